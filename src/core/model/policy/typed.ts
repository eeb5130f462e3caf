import { parsePrefix } from '../../address';
import { type Plan, type Party, badInput, devicesNamed, vlansOf } from '../../plan';
import { allServices } from './services';
import { partyText } from './words';
import { zonesOf } from './zones';

/** Parties and services of a rule as people type them, and the same as text that is read back. */

const parts = (text: string): string[] =>
  text
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean);

function typedParty(plan: Plan, text: string): Party {
  const wanted = text.toLowerCase();
  const zone = zonesOf(plan).find(({ name }) => name.toLowerCase() === wanted);
  if (zone) return { zone: zone.id };
  const vlan = vlansOf(plan).find(({ vid, code, name }) =>
    [String(vid), code.toLowerCase(), name.toLowerCase()].includes(wanted),
  );
  if (vlan) return { vlan: vlan.id };
  const [device] = devicesNamed(plan, text);
  if (device) return { device: device.id };
  const prefix = parsePrefix(/\//.test(text) ? text : `${text}/${text.includes(':') ? 128 : 32}`);
  if (prefix) return { prefix: prefix.prefix };
  throw badInput(
    `“${text}” is no zone, segment, device or network here; there are the zones ${zonesOf(plan)
      .map(({ name }) => name)
      .join(', ')}.`,
    'parties',
  );
}

/** `Staff, 140, historian, 10.0.0.0/24`; empty or `anybody` for everybody. */
export const typedParties = (plan: Plan, text: string): Party[] =>
  /^\s*(anybody|any)?\s*$/i.test(text) ? [] : parts(text).map((part) => typedParty(plan, part));

/** Services by name, `HTTPS, ping`; empty or `everything` for all. */
export function typedServices(plan: Plan, text: string): string[] {
  if (/^\s*(everything|any|all)?\s*$/i.test(text)) return [];
  const known = allServices(plan);
  return parts(text).map((part) => {
    const found = known.find(({ name }) => name.toLowerCase() === part.toLowerCase());
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

/** What typedParties reads back, where names are told apart. */
export const partiesLine = (plan: Plan, parties: readonly Party[]): string =>
  parties.map((party) => partyText(plan, party)).join(', ');
