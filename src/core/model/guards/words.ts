/** What a way in is told, as people say it. */

export const accessWords = {
  watch: 'watches, keeps nobody out',
  limited: 'only what is listed passes before',
  closed: 'nothing passes before',
} as const;
export const methodWords = {
  dot1x: '802.1X',
  'dot1x-mac': '802.1X, then the MAC address',
  'mac-dot1x': 'the MAC address, then 802.1X',
  mac: 'the MAC address',
} as const;
export const hostWords = {
  one: 'one device',
  'phone-and-one': 'a telephone and one device',
  each: 'each device for itself',
  all: 'all once one is let in',
} as const;
