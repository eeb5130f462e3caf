import type { DemoBook } from './log';

/** What became of the work on the demo sites. */
export const books: Readonly<Record<string, DemoBook>> = {
  '1-row-house': {
    finished: {
      name: 'Cupboard and cellar',
      with: 'the electrician',
      why: 'first set-up',
      author: 'Ines',
      begins: '2026-04-20T07:10:00Z',
      said: [
        {
          at: 6,
          outcome: 'differs',
          note: 'refused: it knows 8 VLANs at most',
          reading: 'firmware of two years ago',
        },
      ],
      share: 1,
      customer: 'M. Weir',
      end: 'Everything set and saved. Heat pump and recorder looked at together with the customer.',
    },
    underWay: {
      name: 'After the lightning: cellar anew',
      with: '',
      why: 'the switch in the cellar was replaced',
      left: 'The attic comes next week; the heat pump is on its old cable.',
      author: 'Ines',
      begins: '2026-05-02T12:30:00Z',
      said: [],
      share: 0.5,
    },
    tests: 12,
  },
  '2-clinic': {
    finished: {
      name: 'Comms cupboard and kennels',
      with: 'Rhys on the ladder',
      why: 'opening of the new wing',
      author: 'Tomasz',
      begins: '2026-03-14T06:00:00Z',
      said: [{ at: 9, outcome: 'differs', note: 'the page closes by itself after it took the VLANs' }],
      share: 1,
      customer: 'Dr Harrow',
      end: 'Opened at eight as agreed. The old cables in the kennels stay until the floor is done.',
    },
    underWay: {
      name: 'Surgery wing',
      with: '',
      why: 'ports for the surgery',
      left: 'The far end on the corridor has no light; the room is free on Friday.',
      author: 'Tomasz',
      begins: '2026-05-04T16:05:00Z',
      said: [
        { at: 4, outcome: 'skipped', note: 'the room is in use until Friday' },
        {
          at: 11,
          outcome: 'differs',
          note: 'no light at the far end',
          reading: 'wire map: pair 3 open at 31 m',
        },
      ],
      share: 0.4,
    },
    tests: 20,
  },
  '3-creamery': {
    finished: {
      name: 'Summer stop, all halls',
      with: 'two of the electricians, the shift lead',
      why: 'yearly stop',
      author: 'Mirela',
      begins: '2026-02-07T05:30:00Z',
      said: [{ at: 20, outcome: 'differs', note: 'asks for a restart before it goes on' }],
      share: 1,
      customer: 'Saltmarsh Creamery, shift lead',
      end: 'Line ran again at three. Spare switch is in the cabinet of hall B.',
    },
    underWay: {
      name: 'Cold store and silos',
      with: 'the shift lead',
      why: 'boxes of the cold store',
      left: 'One supply of the cabinet is missing; the electrician comes on Monday.',
      author: 'Mirela',
      begins: '2026-05-01T04:45:00Z',
      said: [
        { at: 14, outcome: 'differs', note: 'both supplies show one light only', reading: '23.1 V and 0 V' },
      ],
      share: 0.45,
    },
    tests: 24,
  },
};
