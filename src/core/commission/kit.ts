import { type Plan, boxOf, byName, groupBy, modelOf } from '../plan';
import { accessPoints, ssidsOf } from '../model/wireless';
import { hardenable } from '../model/guards';
import { uplinksOf } from '../model/uplink';
import { presentState } from './present';
import { hasOneSocket } from './state';
import { consoleWords } from './way-in';

/** What goes into the bag before one leaves, and what has to be known before one stands there. */

export const kitParts = ['cables', 'laptop', 'boxes', 'ask', 'safety'] as const;
export type KitPart = (typeof kitParts)[number];
export const kitTitles: Readonly<Record<KitPart, string>> = {
  cables: 'Cables and optics',
  laptop: 'To get into boxes',
  boxes: 'For the boxes',
  ask: 'To ask for; kept elsewhere',
  safety: 'To be safe',
};

export interface KitItem {
  readonly part: KitPart;
  readonly what: string;
  /** What it is for. */
  readonly why: string;
  /** Null where it is no matter of how many. */
  readonly count: number | null;
}

const item = (part: KitPart, count: number | null, what: string, why = ''): KitItem => ({
  part,
  what,
  why,
  count,
});
const names = (all: readonly string[]): string => [...all].sort(byName).join(', ');

function cables(plan: Plan): KitItem[] {
  const byKind = groupBy(
    plan.cable.values(),
    ({ media, length }) => `${length === null ? 'zz' : String(length).padStart(7, '0')} ${media}`,
  );
  const leads = [...byKind.keys()].sort().map((key) => {
    const all = byKind.get(key)!;
    const { media, length } = all[0]!;
    const labelled = all.flatMap(({ label }) => (label === '' ? [] : [label]));
    return item(
      'cables',
      all.length,
      `${media.endsWith('mode') ? `${media} fibre` : media} cable, ${length === null ? 'length not measured' : `${length} m`}`,
      labelled.length > 0 && labelled.length <= 8 ? names(labelled) : '',
    );
  });
  const optics = groupBy(
    [...plan.port.values()].filter(({ optic }) => optic !== ''),
    ({ optic }) => optic,
  );
  const bits = [...optics].map(([optic, ports]) =>
    item('cables', ports.length + 1, `optic ${optic}`, `${ports.length} planned and one to spare`),
  );
  const ends = [...plan.cable.values()].filter(({ label }) => label !== '').length;
  const labels =
    ends === 0
      ? []
      : [item('cables', 2 * ends, 'labels for cable ends', 'both ends of each cable that has a name')];
  return [...leads, ...bits, ...labels];
}

function laptop(plan: Plan): KitItem[] {
  const { boxes, apart } = presentState(plan);
  const set = boxes.filter(({ management }) => management !== null);
  if (set.length === 0) return [];
  const single = set.filter((box) => hasOneSocket(box) && apart.has(box.bridge.device));
  const powered = single.filter(({ bridge }) =>
    bridge.ports.some(({ id }) => plan.port.get(id)?.poeClass != null),
  );
  return [
    item('laptop', 2, 'copper cable, 2 m, for the laptop'),
    item('laptop', 1, 'network adapter for USB', 'a laptop without a socket, or whose socket is in use'),
    ...consoleLeads(
      plan,
      set.map(({ bridge }) => bridge.device),
    ),
    item('laptop', 1, 'pin', 'to press reset'),
    ...(powered.length === 0
      ? []
      : [
          item(
            'laptop',
            1,
            'PoE injector',
            `${names(powered.map(({ bridge }) => plan.device.get(bridge.device)!.name))}: set up before they are hung, with the laptop in their only socket`,
          ),
        ]),
  ];
}

/** One lead for each sort of console there is, and where nobody knows it one to be on the safe side. */
function consoleLeads(plan: Plan, devices: readonly string[]): KitItem[] {
  const bySort = groupBy(devices, (device) => modelOf(plan, device)?.console ?? 'none');
  const known = [...bySort].filter(([sort]) => sort !== 'none');
  const why = (own: readonly string[]) =>
    `${names(own.map((device) => plan.device.get(device)!.name))}, where no socket reaches it any more`;
  if (known.length === 0)
    return [item('laptop', 1, 'console lead and its adapter', 'where no socket reaches a box any more')];
  return known.map(([sort, own]) => item('laptop', 1, `console lead, ${consoleWords[sort]}`, why(own)));
}

function boxes(plan: Plan): KitItem[] {
  const all = hardenable(plan).filter(({ id }) => boxOf(plan, id));
  const byModel = groupBy(all, ({ id }) => {
    const { model, firmware } = boxOf(plan, id)!;
    return `${model}\n${firmware}`;
  });
  const images = [...byModel].map(([key, devices]) => {
    const [model = '', firmware = ''] = key.split('\n');
    const what = firmware === '' ? `firmware for ${model}` : `firmware ${firmware} for ${model}`;
    const why =
      firmware === ''
        ? 'no version is recorded: take the current one'
        : names(devices.map(({ name }) => name));
    return item('boxes', null, what, why);
  });
  return [
    ...images,
    ...(all.length === 0
      ? []
      : [item('boxes', all.length, 'labels for boxes', names(all.map(({ name }) => name)))]),
    ...(all.length === 0
      ? []
      : [item('boxes', 1, 'the settings and the order on paper', 'for when the laptop is empty')]),
  ];
}

function toAsk(plan: Plan): KitItem[] {
  const providers = uplinksOf(plan).flatMap(({ name, addressing, providerVlan }) => [
    ...(addressing === 'pppoe'
      ? [item('ask', null, `provider login for ${name}`, 'the customer or the provider has it')]
      : []),
    ...(addressing === 'static'
      ? [item('ask', null, `the provider’s sheet for ${name}`, 'address, mask, gateway, DNS')]
      : []),
    ...(providerVlan === null
      ? []
      : [item('ask', null, `VLAN ${providerVlan} of the provider at ${name}`, 'ask whether it still holds')]),
  ]);
  const kept = groupBy(
    [...plan.box.values()].filter(({ loginKept }) => loginKept !== ''),
    ({ loginKept }) => loginKept,
  );
  const logins = [...kept].map(([where, all]) =>
    item('ask', null, `logins: ${where}`, names(all.map(({ device }) => plan.device.get(device)!.name))),
  );
  const keys = ssidsOf(plan)
    .filter(({ security }) => security === 'wpa-mixed' || security.endsWith('personal'))
    .map(({ name, keyKept }) =>
      item('ask', null, `key of ${name}`, keyKept === '' ? 'nobody said where it is kept' : keyKept),
    );
  return [...providers, ...logins, ...keys];
}

function safety(plan: Plan): KitItem[] {
  const hung = accessPoints(plan).map(({ name }) => name);
  const railed = [...plan.box.values()].filter(({ mounting, model }) =>
    /\b(DIN|rail|cabinet)\b/i.test(`${mounting} ${model}`),
  );
  const machines = [...plan.vlan.values()].filter(
    ({ purpose }) => purpose === 'control-cell' || purpose === 'supervisory',
  );
  const fibre = [...plan.cable.values()].some(({ media }) => media.endsWith('mode'));
  return [
    ...(hung.length === 0 ? [] : [item('safety', 1, 'ladder, and somebody to hold it', names(hung))]),
    ...(railed.length === 0
      ? []
      : [
          item(
            'safety',
            1,
            'lock-out and the qualified person for the cabinets',
            `${names(railed.map(({ device }) => plan.device.get(device)!.name))}: mains and 24 V are isolated first`,
          ),
        ]),
    ...(machines.length === 0
      ? []
      : [item('safety', null, 'a stop agreed with the operator', names(machines.map(({ name }) => name)))]),
    ...(fibre ? [item('safety', 1, 'fibre cleaner and caps', 'never look into a fibre')] : []),
  ];
}

/** The kit list of a site, from its plan. */
export const kitOf = (plan: Plan): KitItem[] => [
  ...cables(plan),
  ...laptop(plan),
  ...boxes(plan),
  ...toAsk(plan),
  ...safety(plan),
];
