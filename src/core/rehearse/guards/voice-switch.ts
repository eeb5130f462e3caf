import { type Plan, type Port, type Vlan, boxOf, portTitle, vlansOf, withRecord } from '../../plan';
import { noHop } from '../../model/guards';
import { NEW_SWITCH, withNewSwitch } from '../../model/tree';
import { accessWithVoice, linksAt, portsOf, trunk } from '../../model/wiring';
import { type Telephone, telephoneAt } from './telephone';

/** A switch that announces a voice VLAN of its own, before it is connected: who hears it, and where its telephones end. */

export interface Heard {
  readonly title: string;
  readonly says: string;
  /** Does something go wrong by it? */
  readonly wrong: boolean;
}
export interface VoiceSwitch {
  readonly heard: readonly Heard[];
  /** A telephone plugged into it. */
  readonly telephone: Telephone;
}

/** The VLAN with an id, or one that is no segment of this site. */
function vlanNumbered(plan: Plan, vid: number): Vlan {
  const known = vlansOf(plan).find((vlan) => vlan.vid === vid);
  if (known) return known;
  const like = vlansOf(plan)[0];
  return {
    id: `${NEW_SWITCH}vlan`,
    lan: like?.lan ?? [...plan.lan.values()][0]!.id,
    vid,
    code: 'NN',
    name: `VLAN ${vid} (no segment of this site)`,
    colour: '#808080',
    purpose: 'voice',
    internet: false,
    devices: 0,
    growth: 0,
    transient: null,
    rank: 'zz',
  };
}

/** Who hears an announcement at a port: its box, and where that passes LLDP on (IEEE 802.1AB clause 7.1), all behind it. */
function hearers(plan: Plan, first: Port): Port[] {
  const found: Port[] = [];
  const seen = new Set<string>();
  const queue = [first];
  for (let port = queue.pop(); port; port = queue.pop()) {
    const box = boxOf(plan, port.device);
    if (!box || box.vlanAware || !box.passes.includes('lldp')) {
      found.push(port);
      continue;
    }
    if (seen.has(port.device)) continue;
    seen.add(port.device);
    for (const own of portsOf(plan, port.device))
      if (own.number > 0 && own.id !== port.id)
        for (const { to } of linksAt(plan, own)) queue.push(plan.port.get(to)!);
  }
  return found;
}

function heardAt(plan: Plan, port: Port, vlan: Vlan): Heard {
  const device = plan.device.get(port.device)!;
  const title = portTitle(plan, port);
  if (device.kind === 'phone')
    return {
      title,
      says: `goes to VLAN ${vlan.vid}, or back, by whose announcement it heard last`,
      wrong: true,
    };
  if (boxOf(plan, port.device) && port.setsItself === 'neighbour')
    return {
      title,
      says: `sets itself by its neighbour: what is behind it comes in with VLAN ${vlan.vid} as well`,
      wrong: vlan.purpose !== 'voice' || !plan.vlan.get(vlan.id),
    };
  return { title, says: 'hears it and changes nothing', wrong: false };
}

/**
 * Connects a switch to a port that carries every VLAN on its way up and announces one for voice to its own telephones, and plugs
 * a telephone into it. `vid` may be of a segment or of none.
 */
export function voiceSwitchAt(plan: Plan, port: Port, vid: number, today: string | null): VoiceSwitch {
  const vlan = vlanNumbered(plan, vid);
  let next = withNewSwitch(plan, port.id, '02:00:00:00:00:01', 2);
  if (!plan.vlan.get(vlan.id)) next = withRecord(next, 'vlan', vlan.id, vlan);
  const [inside, up, socket] = [...portsOf(next, NEW_SWITCH)].sort((a, b) => a.number - b.number);
  const every = trunk([], null, 'all');
  for (const one of [inside!, up!])
    next = withRecord(next, 'port', one.id, { ...next.port.get(one.id)!, ...every });
  const told = accessWithVoice(vlan.id, vlan.id);
  next = withRecord(next, 'port', socket!.id, { ...next.port.get(socket!.id)!, ...told });
  next = withRecord(next, 'voiceHop', NEW_SWITCH, {
    ...noHop,
    id: NEW_SWITCH,
    device: NEW_SWITCH,
    announces: 'yes',
  });
  return {
    heard: hearers(plan, port).map((one) => heardAt(plan, one, vlan)),
    telephone: telephoneAt(next, next.port.get(socket!.id)!, null, today, { powered: false }),
  };
}
