import type { Port, Uplink } from '../plan';
import { plainUplink, proposePrefix } from '../edit';
import type { Prefix } from '../address';
import type { Brief } from './gather';
import type { Decision, Hardware } from './design';
import { linePorts } from './hardware';
import type { KeyedDraft } from './keyed';

/** The Internet side of a proposal: an uplink for each connection, and the way in for remote help. */

/** What a wish asks for and the proposal cannot give, with why. */
export interface Unmet {
  readonly what: string;
  readonly why: string;
}

/** Can anything get in over a connection: a public address, and a provider that lets it? */
const letsIn = ({ outside, noForwards, upstream }: Brief['lines'][number]): boolean =>
  outside === 'public' && !noForwards && upstream !== 'routing';

export function writeLines(
  draft: KeyedDraft,
  brief: Brief,
  hardware: Hardware,
  gateway: string,
  ports: ReadonlyMap<number, Port>,
): { readonly uplinks: readonly Uplink[]; readonly decisions: readonly Decision[] } {
  // What is there by this name already stays as it is.
  const known = new Map(
    [...draft.plan.uplink.values()]
      .filter(({ id }) => !draft.isProposed('uplink', id))
      .map((uplink) => [uplink.name.toLowerCase(), uplink]),
  );
  const numbers = linePorts(hardware.gateway, brief.lines.length);
  const slowest = Math.max(1, Math.min(...brief.lines.map(({ down }) => down ?? Infinity), 1_000_000));
  const together = brief.lines.filter(({ standby }, i) => !standby || i === 0).length;
  let tier = 1;
  const decisions: Decision[] = [];
  const uplinks = brief.lines.map((line, i) => {
    const there = known.get(line.name.toLowerCase());
    if (there) return there;
    if (line.standby && i > 0) tier = Math.min(9, tier + 1);
    const key = `uplink ${line.id}`;
    const { name, addressing, providerVlan, upstream, outside, address, network, down, up } = line;
    const weight = Math.min(256, Math.max(1, Math.round((down ?? slowest) / slowest)));
    decisions.push({
      what: `${name} at port ${numbers[i]} of the gateway`,
      why:
        brief.lines.length === 1
          ? 'the only way out'
          : line.standby
            ? 'used while those before it fail'
            : together > 1
              ? `carries its share with the others, weight ${weight}`
              : 'used first',
    });
    return draft.under('internet', key, () =>
      draft.insert('uplink', {
        ...plainUplink,
        device: gateway,
        port: ports.get(numbers[i]!)!.id,
        name,
        addressing,
        providerVlan,
        upstream,
        outside,
        address,
        network,
        down,
        up,
        noForwards: line.noForwards,
        monitor: line.monitor,
        delegated: line.delegated,
        tier,
        weight,
      }),
    );
  });
  return { uplinks, decisions };
}

/** Room for people who dial in at once. */
const DIAL_IN_LENGTH = 28;
/** A VLAN id whose third octet nothing else takes. */
const DIAL_IN_PLACE = 250;

/** The way in for remote help; why there is none where nothing gets in. */
export function writeRemote(draft: KeyedDraft, brief: Brief, gateway: string): string | Unmet {
  const open = brief.lines.find(letsIn);
  if (!open)
    return {
      what: 'Remote help cannot dial in',
      why:
        brief.lines.length === 0
          ? 'no Internet connection is named'
          : 'no connection has a public address that anything gets in on; let the device call out instead',
    };
  const key = 'remote help';
  const had: Prefix | undefined = draft.was('tunnel', key)?.remote[0];
  const remote = had ?? proposePrefix(draft.plan, DIAL_IN_PLACE, DIAL_IN_LENGTH);
  if (!remote) return { what: 'Remote help cannot dial in', why: 'the address space has no room for it' };
  return draft.under('internet', key, () =>
    draft.insert('tunnel', {
      device: gateway,
      uplink: draft.idOf(`uplink ${open.id}`),
      name: 'remote help',
      peer: '',
      initiates: false,
      enabled: true,
      remote: [remote],
    }),
  ).id;
}
