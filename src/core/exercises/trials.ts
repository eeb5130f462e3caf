import { formatAddress } from '../address';
import {
  groupBy,
  type Plan,
  addressesOf,
  addressesOn,
  dnsOf,
  interfacesOf,
  portTitle,
  subnetsOf,
} from '../plan';
import { type Wanted, wantedText } from '../model/policy';
import {
  type Air,
  airTitle,
  senderTitle,
  discover,
  type ProbeQuestion,
  nameOfReceiver,
  probe,
} from '../rehearse';
import { bandsSent, clashesOf, radiosOf } from '../model/wireless';
import { fabric, hasLoop } from '../model/switching';

/** What somebody can try on a network, and what it says: the instruments of whoever looks for a fault. */

export type Trial =
  /** The probe. */
  | { readonly kind: 'talk'; readonly question: ProbeQuestion }
  /** A laptop plugged into a port asks for an address. */
  | { readonly kind: 'lease'; readonly port: string }
  /** A laptop joins a wireless network at an access point. */
  | { readonly kind: 'join'; readonly at: Air }
  /** A device asks for a name. */
  | { readonly kind: 'names'; readonly device: string }
  /** Who has the addresses of a subnet. */
  | { readonly kind: 'clash'; readonly subnet: string }
  /** Does anything go round? */
  | { readonly kind: 'storm' };

export interface Reading {
  /** Two readings with the same verdict mean the same to whoever uses the network. */
  readonly verdict: string;
  readonly text: string;
}

const keys = new WeakMap<Trial, string>();
/** Two trials with the same key are the same. */
export function trialKey(trial: Trial): string {
  let key = keys.get(trial);
  if (key === undefined) {
    key = JSON.stringify(trial, (_, value: unknown) => (typeof value === 'bigint' ? `${value}` : value));
    keys.set(trial, key);
  }
  return key;
}

const DNS: Wanted = { protocol: 'udp', port: 53 };

const GONE: Reading = { verdict: 'gone', text: 'it is no longer in the plan' };

function isThere(plan: Plan, { from, to }: ProbeQuestion): boolean {
  if ('port' in from && !plan.port.get(from.port)) return false;
  if ('ssid' in from && !(plan.ssid.get(from.ssid) && plan.device.get(from.at))) return false;
  if ('device' in from && !plan.device.get(from.device)) return false;
  if ('vlan' in from && !plan.vlan.get(from.vlan)) return false;
  if ('tunnel' in from && !plan.tunnel.get(from.tunnel)) return false;
  if ('device' in to && !plan.device.get(to.device)) return false;
  return !('vlan' in to) || plan.vlan.get(to.vlan) !== undefined;
}

/** The first server a device asks for names; null where it has none. */
function nameServer(plan: Plan, device: string) {
  const [address] = interfacesOf(plan, device).flatMap(({ id }) => addressesOn(plan, id));
  if (!address) return null;
  const own = plan.interface.get(address.interface)!.ownDns;
  return (own ?? dnsOf(plan, plan.subnet.get(address.subnet)!))[0] ?? null;
}

/** Makes a trial on a plan. `today` as a day, for rules that end. */
export function readTrial(plan: Plan, trial: Trial, today: string | null): Reading {
  switch (trial.kind) {
    case 'talk': {
      if (!isThere(plan, trial.question)) return GONE;
      const { delivered, assumed, summary } = probe(plan, trial.question, today);
      // Whoever pulls a plug out of the plan has not made anything work.
      return { verdict: delivered ? (assumed ? 'assumed' : 'passes') : 'stops', text: summary };
    }
    case 'lease': {
      if (!plan.port.get(trial.port) || !fabric(plan).seats.has(trial.port)) return GONE;
      const found = discover(plan, { at: { port: trial.port }, mac: null, rogueAt: null }, today);
      const where = found.vlan ? `${found.vlan.name}: ` : '';
      return {
        verdict: `${found.vlan?.id ?? 'nowhere'} ${found.taken ? 'leased' : 'none'}`,
        text: `${where}${found.summary}`,
      };
    }
    case 'join':
      return joined(plan, trial.at, today);
    case 'names': {
      const device = plan.device.get(trial.device);
      if (!device) return GONE;
      const server = nameServer(plan, trial.device);
      if (server === null) return { verdict: 'none', text: `${device.name} asks nobody for names` };
      const question = { from: { device: device.id }, to: { address: server }, wanted: DNS };
      const { delivered, summary } = probe(plan, question, today);
      return {
        verdict: delivered ? 'answered' : 'silent',
        text: `${device.name} asks ${formatAddress(server)}: ${summary}`,
      };
    }
    case 'clash': {
      if (!plan.subnet.get(trial.subnet)) return GONE;
      const shared = sharedIn(plan, trial.subnet);
      return {
        verdict: shared.map(({ devices }) => devices.join(' ')).join(', '),
        text:
          shared.length === 0
            ? 'no address is given twice'
            : shared
                .map(({ address, names }) => `${formatAddress(address)} is at ${names.join(' and ')}`)
                .join('; '),
      };
    }
    case 'storm': {
      const loop = hasLoop(plan);
      return {
        verdict: loop ? 'storm' : 'still',
        text: loop ? 'the boxes are joined in a ring that nothing opens' : 'nothing goes round',
      };
    }
  }
}

/** The addresses of a subnet that several devices have, with who they are. */
function sharedIn(plan: Plan, subnet: string) {
  const given = addressesOf(plan, subnet).filter(({ assignment }) => assignment !== 'virtual');
  return [...groupBy(given, ({ address }) => address)]
    .filter(([, items]) => items.length > 1)
    .map(([address, items]) => {
      const devices = items.map(({ interface: id }) => plan.interface.get(id)!.device);
      return { address, devices, names: devices.map((id) => plan.device.get(id)!.name) };
    });
}

/** What somebody finds who joins a network: in which bands, under which name, where it leads, and how the air is. */
export interface Joined {
  readonly bands: string;
  readonly name: string;
  readonly vlan: string;
  readonly leased: boolean;
  readonly apart: boolean;
  /** On how many of its radios somebody else is heard. */
  readonly crowded: number;
}

function joined(plan: Plan, at: Air, today: string | null): Reading {
  const ssid = plan.ssid.get(at.ssid);
  if (!ssid || !plan.device.get(at.at)) return GONE;
  const bands = bandsSent(plan, at.at, ssid);
  const found = discover(plan, { at, mac: null, rogueAt: null }, today);
  const crowded = radiosOf(plan, at.at).filter((radio) => radio.enabled && clashesOf(plan, radio).length > 0);
  const verdict: Joined = {
    bands: bands.join(' '),
    name: ssid.name,
    vlan: found.vlan?.id ?? '',
    leased: found.taken !== null,
    apart: ssid.isolated,
    crowded: crowded.length,
  };
  const air = bands.length === 0 ? 'not on the air' : `on ${bands.join(' and ')} GHz`;
  const others = crowded.map((radio) => `${radio.band} GHz shared with ${clashesOf(plan, radio).length}`);
  return {
    verdict: JSON.stringify(verdict),
    text: [
      `${ssid.name} ${air}`,
      `${found.vlan ? `${found.vlan.name}: ` : ''}${found.summary}`,
      ...(ssid.isolated ? ['clients kept apart'] : []),
      ...others,
    ].join('; '),
  };
}

/** The segment by its id in which somebody lands who can work there; empty where nobody can. */
function landedIn(plan: Plan, vlan: string, leased: boolean): string {
  const served = vlan === '' || vlan === 'nowhere' ? [] : subnetsOf(plan, vlan);
  // Where nothing is leased by plan, whoever lands sets an address himself.
  const byHand = served.length > 0 && served.every(({ id }) => plan.pool.group(id).size === 0);
  return leased || byHand ? vlan : '';
}

/** What is seen of a network that is not on the air. */
const ABSENT = 'absent';

/**
 * What of a reading somebody sees who makes the trial on the site, and knows the plan as it should be: `answers` or `silent` of
 * a talk or a name, the segment by its id where one lands (empty for nowhere), `absent` of a network that is not on the air, `once` or `twice` of addresses, `storm` or `still`.
 */
export function seenIn(plan: Plan, trial: Trial, { verdict }: Reading): string {
  switch (trial.kind) {
    case 'talk':
      return verdict === 'passes' || verdict === 'assumed' ? 'answers' : 'silent';
    case 'names':
      return verdict === 'answered' ? 'answers' : 'silent';
    case 'lease': {
      const [vlan, how] = verdict.split(' ');
      return landedIn(plan, how ? vlan! : '', how === 'leased');
    }
    case 'join': {
      if (verdict === GONE.verdict) return ABSENT;
      const found = JSON.parse(verdict) as Joined;
      const isThere = found.bands !== '' && found.name === plan.ssid.get(trial.at.ssid)?.name;
      return isThere ? landedIn(plan, found.vlan, found.leased) : ABSENT;
    }
    case 'clash':
      return verdict === '' ? 'once' : 'twice';
    case 'storm':
      return verdict;
  }
}

export function trialTitle(plan: Plan, trial: Trial): string {
  switch (trial.kind) {
    case 'talk': {
      const { from, to, wanted } = trial.question;
      return `Probe, ${senderTitle(plan, from)} to ${nameOfReceiver(plan, to)}, ${wantedText(wanted)}`;
    }
    case 'lease':
      return `DHCP, a laptop in ${portTitle(plan, plan.port.get(trial.port)!)}`;
    case 'join':
      return `Wireless, a laptop on ${airTitle(plan, trial.at)}`;
    case 'names':
      return `Probe, ${plan.device.get(trial.device)!.name} to its server of names`;
    case 'clash':
      return 'Addresses';
    case 'storm':
      return 'Spanning trees';
  }
}

/** The readings of one plan, each made once. */
export class Readings {
  private readonly known = new Map<string, Reading>();

  constructor(
    readonly plan: Plan,
    private readonly today: string | null,
  ) {}

  of(trial: Trial): Reading {
    const key = trialKey(trial);
    let reading = this.known.get(key);
    if (!reading) this.known.set(key, (reading = readTrial(this.plan, trial, this.today)));
    return reading;
  }
}

export interface Turned {
  readonly trial: Trial;
  readonly before: Reading;
  readonly after: Reading;
}

/** The trials that say something else on the second plan. */
export const turned = (before: Readings, after: Readings, trials: readonly Trial[]): Turned[] =>
  trials.flatMap((trial) => {
    const [was, is] = [before.of(trial), after.of(trial)];
    const same = was.verdict === is.verdict || (was.verdict === 'assumed' && is.verdict === 'passes');
    return same ? [] : [{ trial, before: was, after: is }];
  });
