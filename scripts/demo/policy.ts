import { zonesOf } from '../../src/core/model/policy';
import type { DemoSite } from './builder';

const zone = (site: DemoSite, name: string) => zonesOf(site.plan).find((item) => item.name === name)!.id;
const host = (site: DemoSite, name: string) => ({ device: site.device(name) });

/** As in a home; the guests of the flat may open the gateway's pages, and the heat pump's maker had a visit. */
export function rowHousePolicy(site: DemoSite): void {
  site.do('startPolicy', { kind: 'home' });
  site.edit('zone', zone(site, 'Guests'), { manages: true });
  site.do('addRule', {
    action: 'allow',
    from: [{ zone: zone(site, 'Guests') }],
    to: [host(site, 'media-box')],
    services: ['stdhttp'],
    note: 'the flat plays music in the yard',
  });
}

/** As in an office; a rule that an earlier one leaves nothing to, and one for a visit that is over. */
export function clinicPolicy(site: DemoSite): void {
  site.do('startPolicy', { kind: 'office' });
  site.do('addRule', {
    action: 'allow',
    from: [{ zone: zone(site, 'Staff') }],
    to: [host(site, 'images'), host(site, 'records')],
    services: ['stdhttps'],
    note: 'practice software',
  });
  site.do('addRule', {
    action: 'deny',
    from: [host(site, 'printer-01')],
    to: [host(site, 'images')],
    services: ['stdhttps'],
    note: 'printers have no business there',
  });
  site.do('addRule', {
    action: 'allow',
    from: [{ zone: zone(site, 'Guests') }],
    to: [host(site, 'x-ray')],
    services: ['stdhttps'],
    note: 'maker’s visit',
  });
  const visit = [...site.plan.rule.values()].at(-1)!;
  site.edit('rule', visit.id, { until: '2026-06-30' });
}

/** Plant and office meet in the exchange zone; one rule lets the office past it. */
export function creameryPolicy(site: DemoSite): void {
  site.do('startPolicy', { kind: 'industrial' });
  // The other plant delivers to the exchange and asks nothing of the machines.
  const north = zone(site, 'plant north');
  const exchange = zone(site, 'Exchange');
  site.do('decidePairs', {
    pairs: [
      { from: north, to: exchange },
      { from: exchange, to: north },
    ],
    decision: 'services',
    services: ['stdhttps', 'stdmqtts'],
  });
  site.do('addService', { name: 'tanker weighing', ports: 'tcp 9443' });
  const [weighing] = [...site.plan.service.values()];
  site.do('addRule', {
    action: 'allow',
    from: [{ zone: zone(site, 'Office') }],
    to: [host(site, 'historian')],
    services: [weighing!.id, 'stdhttps'],
    note: 'dispatch reads the scales',
  });
  site.do('addRule', {
    action: 'allow',
    from: [{ prefix: '203.0.113.64/28' }],
    to: [host(site, 'jump-host')],
    services: ['stdhttps'],
    note: 'maker of the bottling line',
  });
}
