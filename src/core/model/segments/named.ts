import { type Plan, type Vlan, badInput, vlansOf } from '../../plan';

/** Segments as people type them. */

/** The segments a text may mean: by VLAN id, `10`; else by both, `10 CM`; else by code; else by name. Capitals do not matter. */
function vlansMeant(plan: Plan, text: string): readonly Vlan[] {
  const wanted = text.trim().toLowerCase();
  for (const said of [
    ({ vid }: Vlan) => String(vid),
    ({ vid, code }: Vlan) => `${vid} ${code}`,
    ({ code }: Vlan) => code,
    ({ name }: Vlan) => name,
  ]) {
    const found = vlansOf(plan).filter((vlan) => said(vlan).toLowerCase() === wanted);
    if (found.length > 0) return found;
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
