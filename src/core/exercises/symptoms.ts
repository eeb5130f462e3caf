import { type Plan, type DeviceKind, boxOf, portTitle } from '../plan';
import { type Wanted, wantedText, allServices } from '../model/policy';
import { type Air, senderTitle, nameOfReceiver } from '../rehearse';
import { trialsFor } from './choice';
import { endDevices } from './places';
import { type Joined, type Readings, type Trial, type Turned, trialKey } from './trials';

/** What people notice of a fault, and how they put it. */

export interface Symptom {
  /** How soon it is noticed; 0 first. */
  readonly rank: number;
  /** The trials that show it. */
  readonly trials: readonly Trial[];
  /** As somebody says it who does not know networks; with `vague` only what is noticed first. Without a full stop. */
  readonly say: (vague: boolean) => string;
}

/** What is noticed of a device that is cut off: of one, of several. */
const cutWords: Partial<Record<DeviceKind, readonly [string, string]>> = {
  camera: ['shows no picture', 'show no picture'],
  phone: ['has no dial tone', 'have no dial tone'],
  printer: ['does not print', 'do not print'],
  recorder: ['records nothing', 'record nothing'],
  computer: ['gets nowhere', 'get nowhere'],
  server: ['does not answer anybody', 'do not answer anybody'],
  controller: ['reports a lost connection', 'report a lost connection'],
  'safety-controller': ['reports a lost connection', 'report a lost connection'],
  'operator-panel': ['shows only dashes', 'show only dashes'],
  drive: ['reports a lost connection', 'report a lost connection'],
  sensor: ['sends no values', 'send no values'],
};
const otherCut: readonly [string, string] = ['is not reached by anybody', 'are not reached by anybody'];

const list = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;

interface Lost {
  readonly device: string;
  readonly name: string;
  readonly kind: DeviceKind;
  readonly vlan: string;
  readonly trials: readonly Trial[];
  readonly way: 'cut' | 'neighbours' | 'internet' | 'names';
}

/** What a device has lost, by what of its own trials does not work any more. */
function lostBy(plan: Plan, changes: readonly Turned[], worked: ReadonlySet<string>): Lost[] {
  const failing = new Map<string, Trial[]>();
  for (const { trial, before } of changes) {
    const device =
      trial.kind === 'names'
        ? trial.device
        : trial.kind === 'talk' && 'device' in trial.question.from
          ? trial.question.from.device
          : null;
    if (
      device === null ||
      before.verdict === 'stops' ||
      before.verdict === 'silent' ||
      before.verdict === 'none'
    )
      continue;
    failing.set(device, [...(failing.get(device) ?? []), trial]);
  }
  return [...failing].flatMap(([device, trials]): Lost[] => {
    const placed = endDevices(plan).find((item) => item.device.id === device);
    if (!placed) return [];
    const own = trialsFor(plan, [device]).filter(
      (trial) =>
        worked.has(trialKey(trial)) &&
        trial.kind === 'talk' &&
        'device' in trial.question.from &&
        trial.question.from.device === device,
    );
    const failed = new Set(trials.map(trialKey));
    const left = own.filter((trial) => !failed.has(trialKey(trial)));
    const to = (end: 'gateway' | 'internet') =>
      trials.some((trial) => trial.kind === 'talk' && end in trial.question.to);
    const names = trials.some(({ kind }) => kind === 'names');
    const way =
      own.length > 0 && left.length === 0
        ? 'cut'
        : to('gateway')
          ? 'neighbours'
          : to('internet')
            ? 'internet'
            : names
              ? 'names'
              : null;
    if (way === null) return [];
    const { name, kind } = placed.device;
    return [{ device, name, kind, vlan: placed.subnet.vlan, trials, way }];
  });
}

const ranks = { storm: 0, clash: 1, cut: 2, neighbours: 3, internet: 4, names: 5 } as const;

function deviceSymptoms(plan: Plan, lost: readonly Lost[]): Symptom[] {
  const groups = new Map<string, Lost[]>();
  for (const item of lost) {
    const key = `${item.way} ${item.way === 'cut' ? item.kind : ''} ${item.vlan}`;
    groups.set(key, [...(groups.get(key) ?? []), item]);
  }
  return [...groups.values()].map((items): Symptom => {
    const { way, kind, vlan } = items[0]!;
    const segment = plan.vlan.get(vlan)!.name;
    const several = (vague: boolean) => !vague && items.length > 1;
    const who = (vague: boolean) => {
      if (!several(vague)) return items[0]!.name;
      const names = items.map(({ name }) => name);
      return names.length > 3 ? `${names[0]} and ${names.length - 1} more in ${segment}` : list(names);
    };
    const words: Readonly<Record<Lost['way'], readonly [string, string]>> = {
      cut: cutWords[kind] ?? otherCut,
      neighbours: ['gets no further than its neighbours', 'get no further than their neighbours'],
      internet: ['has no Internet', 'have no Internet'],
      names: ['finds no page by its name', 'find no page by its name'],
    };
    return {
      rank: ranks[way],
      trials: items.flatMap(({ trials }) => trials),
      say: (vague) => `${who(vague)} ${words[way][several(vague) ? 1 : 0]}`,
    };
  });
}

/** The symptom of a trial that is not about one device’s own connection. */
function ownSymptom(before: Readings, { trial, before: was, after: is }: Turned): Symptom | null {
  const { plan } = before;
  const symptom = (rank: number, say: string): Symptom => ({ rank, trials: [trial], say: () => say });
  switch (trial.kind) {
    case 'storm':
      return is.verdict === 'storm'
        ? symptom(ranks.storm, 'Everything stands still, and every lamp on the switches flickers at once')
        : null;
    case 'clash':
      // The reading names who shares an address; whoever complains sees only that they come and go.
      return is.verdict.length > was.verdict.length
        ? symptom(
            ranks.clash,
            `${list(clashing(plan, is.verdict))} come and go: now the one answers, now the other`,
          )
        : null;
    case 'lease': {
      const where = portTitle(plan, plan.port.get(trial.port)!);
      const [vlan, got] = is.verdict.split(' ');
      const [home, had] = was.verdict.split(' ');
      if (had === 'leased' && got !== 'leased')
        return symptom(7, `A laptop plugged in at ${where} gets no address`);
      return vlan !== home && got === 'leased'
        ? symptom(
            8,
            `A laptop plugged in at ${where} gets an address, and from there sees what it should not`,
          )
        : null;
    }
    case 'talk': {
      const { from, to, wanted } = trial.question;
      const [a, b] = [senderTitle(plan, from), nameOfReceiver(plan, to)];
      const service = serviceWord(plan, wanted);
      if (was.verdict === 'stops')
        return symptom(10, `From ${a} one gets to ${b} (${service}), and must not`);
      if ('device' in to && boxOf(plan, to.device))
        return symptom(9, `${b} does not answer when somebody wants to configure it`);
      if ('internet' in from) return symptom(6, `From outside nobody gets to ${b} (${service})`);
      return symptom('vlan' in from ? 11 : 9, `${a} does not get to ${b} (${service})`);
    }
    case 'join': {
      const noticed = joinSymptom(plan, trial.at, was.verdict, is.verdict);
      return noticed && symptom(...noticed);
    }
    case 'names':
      return null;
  }
}

/** What people with a laptop say of a network: the first thing that is not as it was. */
function joinSymptom(plan: Plan, at: Air, was: string, is: string): readonly [number, string] | null {
  if (was === 'gone' || is === 'gone') return null;
  const [before, now] = [was, is].map((verdict) => JSON.parse(verdict) as Joined) as [Joined, Joined];
  const where = plan.device.get(at.at)!.name;
  const { name } = before;
  if (now.name !== name || (before.bands !== '' && now.bands === ''))
    return [5, `Near ${where} nobody finds ${name} any more`];
  if (before.leased && !now.leased)
    return [6, `Near ${where} ${name} is there, and who joins it gets no address`];
  if (before.vlan !== now.vlan && now.leased)
    return [8, `Who joins ${name} near ${where} sees what is not meant for them`];
  if (before.bands.length > now.bands.length)
    return [9, `Near ${where} some devices do not find ${name} any more, and others do`];
  if (!before.apart && now.apart) return [9, `On ${name} nobody sees the devices of others any more`];
  if (before.apart && !now.apart) return [10, `Guests on ${name} see each other’s devices`];
  return now.crowded > before.crowded ? [11, `Near ${where} ${name} is slow and stutters`] : null;
}

/** What the service is called, where it has a name. */
const serviceWord = (plan: Plan, wanted: Wanted): string =>
  allServices(plan).find(({ matches }) =>
    matches.some(
      ({ protocol, from, to }) => protocol === wanted.protocol && from <= wanted.port && wanted.port <= to,
    ),
  )?.name ?? wantedText(wanted);

const clashing = (plan: Plan, verdict: string): string[] =>
  verdict
    .split(/,? /)
    .filter((id) => id !== '')
    .map((id) => plan.device.get(id)?.name ?? 'a device');

/** What people notice, soonest and widest first. Empty when nobody notices anything. */
export function symptomsOf(
  before: Readings,
  trials: readonly Trial[],
  changes: readonly Turned[],
): Symptom[] {
  const { plan } = before;
  const worked = new Set(trials.filter((trial) => before.of(trial).verdict !== 'stops').map(trialKey));
  const lost = lostBy(plan, changes, worked);
  const told = new Set(lost.flatMap((item) => item.trials.map(trialKey)));
  const others = changes
    .filter(({ trial }) => !told.has(trialKey(trial)))
    .flatMap((change) => ownSymptom(before, change) ?? []);
  return [...deviceSymptoms(plan, lost), ...others].sort(
    (a, b) => a.rank - b.rank || b.trials.length - a.trials.length,
  );
}
