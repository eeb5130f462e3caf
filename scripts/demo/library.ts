import { parsePrefix } from '../../src/core/address';
import { DemoSite } from './builder';

/** A town library that is about to be wired anew: nothing but what the customer said. */
export function library(): DemoSite {
  const site = new DemoSite('li', 'Town library, Mill Lane', 'office', {
    space: [parsePrefix('10.60.0.0/16')!.prefix],
    foreign: [
      { prefix: parsePrefix('10.60.200.0/24')!.prefix, why: 'the town hall, reached by the council’s line' },
    ],
    domain: 'library.example.net',
    timeZone: 'Europe/Dublin',
    namingPattern: '{code}-{kind}-{nn}',
    country: 'IE',
    notes: 'Opening in spring. The reading room is open to everybody; the archive stands across the yard.',
  });
  const place = (name: string, set: Record<string, unknown>) => {
    site.do('addPlace', { name });
    const made = [...site.plan.place.values()].find((one) => one.name === name)!;
    site.edit('place', made.id, set);
  };
  place('Comms cupboard', { area: 120 });
  place('Reading room', { sort: 'same-building', metres: 45, area: 420, strangers: true });
  place('Offices', { sort: 'same-building', metres: 38, area: 160 });
  place('Archive', { sort: 'other-building', metres: 130, area: 200 });
  const needs: readonly (readonly [string, number, string, string, Record<string, unknown>?])[] = [
    ['workstation', 9, 'desks', 'Offices'],
    ['workstation', 14, 'catalogue and study places', 'Reading room', { apart: 'Public places' }],
    ['laptop', 12, 'staff laptops', 'Offices', { link: 'wireless' }],
    ['guest', 70, 'readers’ own devices', 'Reading room', { link: 'wireless', growth: 60 }],
    ['telephone', 7, 'telephones', 'Offices'],
    ['printer', 3, 'printers', 'Offices'],
    ['camera', 6, 'cameras at the doors', 'Reading room', { growth: 0 }],
    ['camera', 2, 'cameras in the archive', 'Archive'],
    ['recorder', 1, 'recorder', 'Comms cupboard'],
    ['server', 2, 'catalogue server and backup', 'Comms cupboard'],
    ['sensor', 8, 'climate of the archive', 'Archive', { growth: 50 }],
    ['scanner', 4, 'hand scanners at the desk', 'Reading room', { link: 'wireless' }],
  ];
  for (const [thing, count, name, at, more = {}] of needs)
    site.do('addNeed', { thing, count, name, place: at, ...more });
  site.do('addLine', { name: 'fibre of the council', outside: 'public' });
  site.do('addLine', { name: 'mobile', outside: 'shared' });
  const [fibre, mobile] = [...site.plan.line.values()].sort((a, b) => (a.rank < b.rank ? -1 : 1));
  site.edit('line', fibre!.id, { down: 500, up: 250, providerVlan: 35, monitor: '203.0.113.1' });
  site.edit('line', mobile!.id, {
    down: 80,
    up: 20,
    upstream: 'mobile',
    standby: true,
    monitor: '198.51.100.1',
  });
  site.do('addStock', {
    sort: 'switch',
    model: '24 + 4 of last year, PoE',
    copper: 24,
    fibre: 4,
    poeBudget: 250,
  });
  const wishes: readonly (readonly [string, string, string, readonly string[], string])[] = [
    ['cameras', 'internet', 'deny', [], 'pictures of people stay in the house'],
    ['staff', 'cameras', 'allow', ['stdhttps', 'stdrtsp'], 'the desk looks at the doors'],
    ['guest', 'iot', 'deny', [], 'readers do not reach the printers'],
    ['building', 'internet', 'deny', [], 'the climate of the archive is nobody else’s business'],
    ['remote', 'building', 'allow', ['stdhttps'], 'the climate company looks after its sensors'],
  ];
  for (const [from, to, decision, services, why] of wishes)
    site.do('addWish', { from, to, decision, services, why });
  return site;
}
