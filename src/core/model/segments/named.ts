import { type Collection, type Plan, type Vlan, badInput, groupBy, memo } from '../../plan';

/** Segments as people type them. */

const sayings: readonly ((vlan: Vlan) => string)[] = [
  ({ vid }) => String(vid),
  ({ vid, code }) => `${vid} ${code}`,
  ({ code }) => code,
  ({ name }) => name,
];
const saidSo = memo((vlans: Collection<Vlan>) => {
  const inOrder = [...vlans.values()].sort((a, b) => a.vid - b.vid);
  return sayings.map((said) => groupBy(inOrder, (vlan) => said(vlan).toLowerCase()));
});

/** The segments a text may mean: by VLAN id, `10`; else by both, `10 CM`; else by code; else by name. Capitals do not matter. */
function vlansMeant(plan: Plan, text: string): readonly Vlan[] {
  const wanted = text.trim().toLowerCase();
  for (const group of saidSo(plan.vlan)) {
    const found = group.get(wanted);
    if (found) return found;
  }
  return [];
}

/** The segment a text means; undefined for none. Throws a Refusal where it may be one of several. */
export function vlanMeant(plan: Plan, text: string, field = 'vlan'): Vlan | undefined {
  const [vlan, ...others] = vlansMeant(plan, text);
  if (others.length === 0) return vlan;
  const all = [vlan!, ...others].map(({ vid, name }) => `VLAN ${vid} ${name}`).join(' or ');
  const apart = others.some(({ vid }) => vid === vlan!.vid)
    ? 'give them ids of their own first'
    : 'write the id';
  throw badInput(`“${text.trim()}” may be ${all}; ${apart}.`, field);
}
