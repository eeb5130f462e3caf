import { blankBox, blankPort, modelById, fabricOf } from '../wiring';
import { type Plan, withRecord } from '../../plan';
import { treesOf } from './forwarding';
import { type Trees, growTrees } from './trees';

/** A switch as it comes from the factory, plugged into a port: what becomes of the common tree. */
export interface Newcomer {
  /** Does anybody hear it there? Not at a port that is off, or of a box that runs no tree. */
  readonly heard: boolean;
  /** Does it become the root of the part it is plugged into? */
  readonly takesRoot: boolean;
  /** Ports that forwarded before and do not now, and the other way round. */
  readonly blocked: readonly string[];
  readonly opened: readonly string[];
  /** The port switched itself off, as its guard heard the newcomer. */
  readonly shut: boolean;
  /** A root guard keeps the newcomer from becoming root. */
  readonly heldOff: boolean;
}

/** The id of a switch that is only tried; its port 1 is where it is plugged in. */
export const NEW_SWITCH = 'newcomer';

/** The plan with a switch as it comes from the factory in a port, with so many ports of its own. */
export const withNewSwitch = (plan: Plan, port: string, baseMac: string, ports = 1): Plan => {
  const { blocks: _blocks, uplinks: _uplinks, id: _id, name, kind, ...able } = modelById.get('switch-8')!;
  let next = withRecord(plan, 'device', NEW_SWITCH, { id: NEW_SWITCH, name: 'new switch', kind });
  next = withRecord(next, 'box', NEW_SWITCH, {
    ...blankBox,
    ...able,
    id: NEW_SWITCH,
    device: NEW_SWITCH,
    model: name,
    baseMac,
  });
  for (let number = 0; number <= ports; number++)
    next = withRecord(next, 'port', `${NEW_SWITCH}${number}`, {
      ...blankPort,
      id: `${NEW_SWITCH}${number}`,
      device: NEW_SWITCH,
      number,
      media: number === 0 ? 'inner' : 'copper',
    });
  // Whatever was plugged in there comes out.
  for (const cable of plan.cable.values())
    if (cable.from === port || cable.to === port) next = withRecord(next, 'cable', cable.id, null);
  return withRecord(next, 'cable', NEW_SWITCH, {
    id: NEW_SWITCH,
    from: port,
    fromSide: 'front',
    to: `${NEW_SWITCH}1`,
    toSide: 'front',
    media: 'copper',
    length: null,
    label: '',
  });
};

const rootIs = ({ grown }: Trees, place: number): boolean => {
  const common = grown.find(({ kind }) => kind === 'common');
  if (!common) return false;
  const bridge = common.places.indexOf(place);
  return (
    bridge >= 0 &&
    common.tree.rootEnds[bridge] === null &&
    common.tree.vectors.filter(({ root }) => root === common.topology.order[bridge]).length > 1
  );
};

/**
 * Plugs in a switch with factory settings: RSTP, priority 32768. `mac` lowest or highest of all: which it will be nobody
 * knows before it is unpacked.
 */
export function plugInSwitch(plan: Plan, port: string, mac: 'lowest' | 'highest'): Newcomer {
  const before = treesOf(plan);
  const next = withNewSwitch(plan, port, mac === 'lowest' ? '00:00:00:00:00:01' : 'FE:FF:FF:FF:FF:FF');
  const fabric = fabricOf(next);
  const after = growTrees(next, fabric);
  const place = fabric.bridges.findIndex(({ device }) => device === NEW_SWITCH);
  const common = after.grown.find(({ kind }) => kind === 'common');
  const end = common?.ports.findIndex(({ ports }) => ports.includes(port)) ?? -1;
  return {
    heard: end >= 0 || after.shut.has(port),
    takesRoot: rootIs(after, place),
    blocked: [...after.blocked.keys()].filter((id) => !before.blocked.has(id) && plan.port.get(id)),
    opened: [...before.blocked.keys()].filter((id) => !after.blocked.has(id)),
    shut: after.shut.has(port),
    heldOff: end >= 0 && common!.topology.ends[end]!.restricted && common!.tree.roles[end] === 'alternate',
  };
}
