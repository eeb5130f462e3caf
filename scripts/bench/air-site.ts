import { perform } from '../../src/core/edit';
import { type Plan, applyChange, planOf, tableNames } from '../../src/core/plan';

/** A plan with access points on top: radios at 2.4 and 5 GHz, hung on floors of 15 by 5 with a few metres between, three networks. */
export function withAir(base: Plan, count: number): Plan {
  const lists = Object.fromEntries(tableNames.map((table) => [table, [...base[table].values()] as object[]]));
  const vlans = [...base.vlan.values()].map(({ id }) => id);
  ['Office', 'Guests', 'Things'].forEach((name, i) =>
    lists.ssid!.push({
      id: `ss${i}`,
      name,
      vlan: vlans[i % vlans.length] ?? null,
      security: 'wpa2-wpa3-personal',
      bands: ['2.4', '5'],
      isolated: true,
      portal: false,
      hidden: false,
      schedule: '',
      minimumRate: '12',
      cannotWait: false,
      keySet: '2026-01-05',
      keyKept: 'safe',
      on: [],
      rank: `a${i}`,
    }),
  );
  for (let i = 0; i < count; i++) {
    const device = `ap${i}`;
    lists.device!.push({ id: device, name: `ap-${i}`, kind: 'access-point', firewall: 'unknown' });
    lists.spot!.push({
      id: `sp${i}`,
      device,
      floor: Math.floor(i / 75),
      // Not quite in line, as walls and ceilings have it.
      x: (i % 15) * 900 + ((i * 37) % 11) * 40,
      y: (Math.floor(i / 15) % 5) * 1100 + ((i * 53) % 13) * 40,
      outdoors: false,
    });
    const radio = { device, enabled: true, interval: 100, kept: false, power: 14 };
    lists.radio!.push({ ...radio, id: `ra${i}`, band: '2.4', channel: [1, 6, 11][i % 3], width: '20' });
    lists.radio!.push({ ...radio, id: `rb${i}`, band: '5', channel: [36, 44, 52][i % 3], width: '40' });
  }
  lists.question = [];
  const site = { ...(lists.site![0] as object), country: 'DE' };
  return planOf({ ...lists, site: [site] } as never);
}

/** Does what is called, or fails. */
export function doneOn(plan: Plan, operation: string, input: unknown, seed: string): Plan {
  const applied = applyChange(plan, perform(plan, { operation, input }, seed));
  if (!applied.ok) throw new Error(`${operation} does not apply`);
  return applied.plan;
}
