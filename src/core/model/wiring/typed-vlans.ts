import { type Plan, type Port, type Vlan, badInput, vlansOf } from '../../plan';
import { vlanMeant } from '../segments';

/** The segment a person means by its VLAN id, code or name; a refusal lists what there is. */
export function typedVlan(plan: Plan, text: string): Vlan {
  const found = vlanMeant(plan, text);
  if (found) return found;
  const known = vlansOf(plan)
    .map((vlan) => `${vlan.vid} ${vlan.code}`)
    .join(', ');
  throw badInput(
    `“${text.trim()}” is no segment of this site; ${known ? `there are ${known}` : 'add one under Segments first'}.`,
    'vlan',
  );
}

/** What a trunk carries, as typed: `10, CM, 30`, `all`, `all but 30` or `none`. */
export function typedTagged(plan: Plan, text: string): Pick<Port, 'taggedMode' | 'tagged'> {
  const trimmed = text.trim();
  if (/^all$/i.test(trimmed)) return { taggedMode: 'all', tagged: [] };
  if (trimmed === '' || /^none$/i.test(trimmed)) return { taggedMode: 'list', tagged: [] };
  const but = /^all\s+(?:but|except)\s+(.+)$/i.exec(trimmed);
  const list = (but ? but[1]! : trimmed).split(',').filter((part) => part.trim() !== '');
  const tagged = [...new Set(list.map((part) => typedVlan(plan, part).id))].sort();
  return { taggedMode: but ? 'except' : 'list', tagged };
}

/** The same as text that typedTagged reads back. */
export function taggedText(plan: Plan, port: Pick<Port, 'taggedMode' | 'tagged'>): string {
  const vids = port.tagged.map((id) => plan.vlan.get(id)!.vid).sort((a, b) => a - b);
  if (port.taggedMode === 'all') return 'all';
  if (port.taggedMode === 'except') return vids.length ? `all but ${vids.join(', ')}` : 'all';
  return vids.length ? vids.join(', ') : 'none';
}
