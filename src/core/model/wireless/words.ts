import type { Security, Ssid } from '../../plan';

/** How networks are secured, as people say it. */
export const securityWords: Readonly<Record<Security, string>> = {
  open: 'open',
  owe: 'encrypted without a key (OWE)',
  'wpa-mixed': 'WPA and WPA2 with TKIP',
  'wpa2-personal': 'WPA2, one key',
  'wpa2-wpa3-personal': 'WPA2 and WPA3, one key',
  'wpa3-personal': 'WPA3, one key',
  'wpa2-enterprise': 'WPA2, each by name',
  'wpa2-wpa3-enterprise': 'WPA2 and WPA3, each by name',
  'wpa3-enterprise': 'WPA3, each by name',
};

/** What else is set for a network, in a few words. */
export const besidesOf = (ssid: Ssid): string =>
  [
    ssid.isolated ? 'clients kept apart' : '',
    ssid.portal ? 'portal' : '',
    ssid.hidden ? 'hidden' : '',
    ssid.schedule,
    ssid.cannotWait ? 'no radar channels' : '',
    `from ${ssid.minimumRate} Mbit/s`,
  ]
    .filter(Boolean)
    .join(', ');
