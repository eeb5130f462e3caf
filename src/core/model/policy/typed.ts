import { parseNetwork } from '../../address';
import { type Plan, type Party, Refusal, badInput, equal } from '../../plan';
import { deviceMeant, deviceTyped } from '../hosts';
import { vlanMeant } from '../segments';
import { allServices } from './services';
import { partyText } from './words';
import { isJust, zoneCalled, zonesOf } from './zones';

/** Parties and services of a rule as people type them, and the same as text that is read back. */

/** So many commas a name may hold. */
const COMMAS = 3;

/** The parts between commas; of a text that is known as a whole, commas and all, one part. */
function parts(text: string, known: (part: string) => boolean): string[] {
  const all = text.split(',').map((part) => part.trim());
  const found: string[] = [];
  for (let i = 0; i < all.length;) {
    let end = Math.min(all.length, i + COMMAS + 1);
    const joined = () => all.slice(i, end).join(', ');
    while (end > i + 1 && !known(joined())) end--;
    if (joined() !== '') found.push(joined());
    i = end;
  }
  return found;
}

/** A name as `parts` would write it; capitals do not matter. */
const evened = (name: string): string =>
  name
    .split(',')
    .map((part) => part.trim())
    .join(', ')
    .toLowerCase();

const finders = {
  zone: (plan: Plan, text: string): Party | undefined => {
    const wanted = evened(text);
    const zone =
      zoneCalled(plan, text) ??
      (text.includes(',') ? zonesOf(plan).find(({ name }) => evened(name) === wanted) : undefined);
    return zone && { zone: zone.id };
  },
  segment: (plan: Plan, text: string): Party | undefined => {
    const vlan = vlanMeant(plan, text, 'parties');
    return vlan && { vlan: vlan.id };
  },
  device: (plan: Plan, text: string): Party | undefined => {
    const device = deviceMeant(plan, text, 'parties');
    return device && { device: device.id };
  },
};
type Word = keyof typeof finders;
const words = Object.keys(finders) as Word[];

/** What a text may be, by the word that says which: `Office`, `zone Office`, `10.0.0.0/24`. A zone of just a segment is that segment. */
function meant(plan: Plan, text: string): Party[] {
  const found = words.flatMap((word) => finders[word](plan, text) ?? []);
  const [first, second] = found;
  if (
    first &&
    'zone' in first &&
    second &&
    'vlan' in second &&
    isJust(plan.zone.get(first.zone)!, second.vlan)
  )
    found.splice(1, 1);
  if (found.length > 0) return found;
  const [, word, rest] = /^(zone|segment|device)\s+(.+)$/is.exec(text) ?? [];
  const said = word === undefined ? undefined : finders[word.toLowerCase() as Word](plan, rest!);
  if (said) return [said];
  const prefix = parseNetwork(text);
  return prefix ? [{ prefix }] : [];
}

const wordOf = (party: Party): Word | null =>
  'zone' in party ? 'zone' : 'vlan' in party ? 'segment' : 'device' in party ? 'device' : null;

function typedParty(plan: Plan, text: string): Party {
  const [party, ...others] = meant(plan, text);
  if (!party)
    throw badInput(
      `“${text}” is no zone, segment, device or network here; there are the zones ${zonesOf(plan)
        .map(({ name }) => name)
        .join(', ')}.`,
      'parties',
    );
  // Which of them is more cannot be guessed.
  if (others.length > 0)
    throw badInput(
      `“${text}” may be ${[party, ...others].map((one) => `the ${wordOf(one)}`).join(' or ')}; write ${[
        party,
        ...others,
      ]
        .map((one) => `“${wordOf(one)} ${text}”`)
        .join(' or ')}.`,
      'parties',
    );
  return party;
}

/** `Staff, 140, historian, 10.0.0.0/24`; empty or `anybody` for everybody. Throws a Refusal. */
export function typedParties(plan: Plan, text: string): Party[] {
  const isKnown = (part: string) => meant(plan, part).length > 0;
  const anybody = /^\s*(anybody|any)?\s*$/i.test(text);
  if (anybody && !isKnown(text.trim())) return [];
  return parts(text, isKnown).map((part) => typedParty(plan, part));
}

/** Refuses a value that was emptied where nothing means all: what lets more through is written out. */
export function requireWritten(
  text: string,
  all: 'anybody' | 'everything' | 'for good',
  field: string,
): void {
  if (text.trim() === '')
    throw badInput(`Left empty, this would be ${all}; write ${all} if that is meant, or press Esc.`, field);
}

/** A party as it is typed: its name, with the word that says what it is where something else is called so too. */
export function partyTyped(plan: Plan, party: Party): string {
  const name = 'device' in party ? deviceTyped(plan, plan.device.get(party.device)!) : partyText(plan, party);
  const ways = [
    name,
    `${wordOf(party) ?? 'network'} ${name}`,
    ...('vlan' in party ? [`segment ${plan.vlan.get(party.vlan)!.vid}`] : []),
  ];
  return ways.find((way) => readsAs(plan, way, party)) ?? name;
}

function readsAs(plan: Plan, text: string, party: Party): boolean {
  try {
    return equal(typedParties(plan, text), [party]);
  } catch (error) {
    if (error instanceof Refusal) return false;
    throw error;
  }
}

/** Parties as typedParties reads them back. */
export const partiesLine = (plan: Plan, parties: readonly Party[]): string =>
  parties.map((party) => partyTyped(plan, party)).join(', ');

/** Services by name, `HTTPS, ping`; empty or `everything` for all. Throws a Refusal. */
export function typedServices(plan: Plan, text: string): string[] {
  const known = allServices(plan);
  const named = (part: string) => known.find(({ name }) => evened(name) === evened(part));
  if (/^\s*(everything|any|all)?\s*$/i.test(text) && !named(text)) return [];
  return parts(text, (part) => named(part) !== undefined).map((part) => {
    const found = named(part);
    if (found) return found.id;
    const near = known
      .filter(({ name }) => name.toLowerCase().startsWith(part[0]!.toLowerCase()))
      .slice(0, 4);
    const hint = near.length
      ? `there are ${near.map(({ name }) => name).join(', ')}`
      : 'choose one of the list';
    throw badInput(
      `“${part}” is no service here; ${hint}, or add it below as a service of this site.`,
      'services',
    );
  });
}
