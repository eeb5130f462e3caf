import { readFileSync } from 'node:fs';
import path from 'node:path';
import { readPlanFile } from '@/core/formats';
import { useView } from './view';
import { isStep, readView, writeView } from './view-address';

const plan = readPlanFile(readFileSync(path.join('demo', '3-creamery.json'), 'utf8'));
const first = <T extends { readonly id: string }>(table: { values(): Iterable<T> }) =>
  [...table.values()][0]!.id;
const zones = [...plan.zone.values()].map(({ id }) => id);
const view = {
  ...useView.getState(),
  vlan: first(plan.vlan),
  address: first(plan.address),
  device: first(plan.device),
  ports: [...plan.port.values()].slice(0, 3).map(({ id }) => id),
  followed: first(plan.vlan),
  uplink: first(plan.uplink),
  forward: null,
  zone: null,
  pairs: [{ from: zones[0]!, to: zones[1]! }],
  rule: null,
  rehearsal: 'dhcp' as const,
  probe: { from: 'desk-1', to: 'the Internet', service: 'tcp 443' },
};

test.each(['segments', 'addresses', 'gear', 'internet', 'policy', 'rehearse', 'findings'])(
  'what is chosen under %s is read back from the address',
  (station) => {
    const query = new URLSearchParams(writeView(station, view));
    const read = readView(station, query, plan);
    expect(view).toMatchObject(read);
    expect(writeView(station, { ...useView.getState(), ...read })).toBe(query.toString());
    if (station !== 'findings') expect([...query.keys()].length).toBeGreaterThan(0);
  },
);

test('what is no longer there, or never was, is not chosen', () => {
  const query = new URLSearchParams('vlan=gone&address=&device=x&port=a.b&cells=q-r&view=nothing');
  expect(readView('gear', query, plan)).toEqual({ device: null, ports: [], followed: null });
  expect(readView('addresses', query, plan)).toEqual({ vlan: null, address: null });
  expect(readView('policy', query, plan)).toEqual({ zone: null, pairs: [], rule: null });
  expect(readView('rehearse', query, plan)).toMatchObject({ rehearsal: 'ask' });
});

test('another segment is a step to go back by, one more port is none', () => {
  const query = (text: string) => new URLSearchParams(text);
  expect(isStep('segments', query('vlan=a'), query('vlan=b'))).toBe(true);
  expect(isStep('gear', query('device=a'), query('device=a&port=p'))).toBe(false);
});
