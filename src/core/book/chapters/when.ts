import { formatAddress } from '../../address';
import { nextFreeAddress } from '../../model/hosts';
import { boxesInOrder } from '../../model/switching';
import { switchingOf, upstreamWords, uplinksOf } from '../../model/uplink';
import { ssidsOf } from '../../model/wireless';
import { freePorts, isPassive } from '../../model/wiring';
import {
  type Device,
  type Plan,
  addressesOn,
  boxOf,
  byName,
  interfacesOf,
  portTitle,
  subnetsOf,
  vlansOf,
} from '../../plan';
import { outOfTouch } from '../../rehearse';
import { type Block, column, heading, list, table, text } from '../blocks';
import { type ChapterKind, joined, jacketOf } from '../chapter';

/** What whoever is there can do before anybody comes: worked out for this site, not copied from another. */

function internetDown(plan: Plan): Block[] {
  const uplinks = uplinksOf(plan).filter(({ enabled, segment }) => enabled && segment === null);
  if (uplinks.length === 0) return [];
  const at = (device: string) => {
    const place = boxOf(plan, device)?.location ?? '';
    return `${plan.device.get(device)!.name}${place === '' ? '' : ` (${place})`}`;
  };
  const steps = uplinks.map(({ name, device, port, upstream }) => {
    const socket = port === null ? undefined : plan.port.get(port);
    return `${name}: look at ${upstreamWords[upstream]} and at ${socket ? portTitle(plan, socket) : at(device)}. Without a light there, pull the cable and plug it in again; then take the power of what stands upstream for a minute.`;
  });
  const watched = uplinks.filter(({ monitor }) => monitor !== null);
  const seconds = Math.max(0, ...watched.map((uplink) => switchingOf(uplink).away));
  const takesOver =
    uplinks.length < 2
      ? []
      : [
          watched.length === 0
            ? 'Nothing is pinged, so that only a dead line is noticed and changed from.'
            : `After ${seconds} s at most the traffic goes by another way; sessions begin anew.`,
        ];
  return [
    heading('The Internet is down'),
    text('Everything inside goes on working: printers, servers and machines need no Internet.'),
    ...list(
      [...takesOver, ...steps, 'Still nothing: call the provider, and say what the lights show.'],
      true,
    ),
  ];
}

/** How many devices a sentence names. */
const NAMED = 6;

/** `before`: who is out of touch as it stands. */
function lossWords(plan: Plan, device: string, before: ReadonlySet<string>): string {
  const lost = outOfTouch(plan, { kind: 'box', device }).flatMap((id) =>
    before.has(id) ? [] : (plan.device.get(id)?.name ?? []),
  );
  if (lost.length === 0) return 'nobody';
  const named = [...lost].sort(byName);
  return named.length <= NAMED
    ? named.join(', ')
    : `${named.slice(0, NAMED).join(', ')} and ${named.length - NAMED} more`;
}

function boxDies(plan: Plan): Block[] {
  const boxes = boxesInOrder(plan)
    .map(({ device }) => plan.device.get(device)!)
    .filter(({ kind }) => !isPassive(kind));
  const before = new Set(outOfTouch(plan));
  const addressOf = ({ id }: Device) =>
    joined(
      interfacesOf(plan, id)
        .flatMap((card) => addressesOn(plan, card.id))
        .slice(0, 1)
        .map(({ address }) => formatAddress(address)),
    );
  return [
    heading('A box dies'),
    ...list(
      [
        'Is there a light on it? If not, look at its power supply and at the fuse before anything else.',
        'Put one of the same model in its place and plug every cable into the socket it came from; chapter “Boxes and ports” has each.',
        'Its settings come from what was saved; “Where secrets are kept” says who has the login.',
      ],
      true,
    ),
    ...table(
      'What is lost when a box dies',
      [
        column('Box', 1.1, true),
        column('Stands', 1.3),
        column('Model', 1.3),
        column('Address', 1, true),
        column('Without it, out of touch', 2.4),
      ],
      boxes.map((device) => {
        const { location = '', mounting = '', model = '' } = boxOf(plan, device.id) ?? {};
        return [
          device.name,
          joined([location, mounting]),
          model,
          addressOf(device),
          lossWords(plan, device.id, before),
        ];
      }),
    ),
  ];
}

/** Sockets named for one segment. */
const SOCKETS = 3;

function newDevice(plan: Plan): Block[] {
  const free = boxesInOrder(plan).flatMap(({ device }) => freePorts(plan, device));
  const rows = vlansOf(plan)
    .filter(({ purpose }) => purpose !== 'transit' && purpose !== 'parking')
    .map((vlan) => {
      const [subnet] = subnetsOf(plan, vlan.id);
      const next = subnet ? nextFreeAddress(plan, subnet, 'computer', 'static') : null;
      const sockets = free.filter(
        ({ role, untagged }) => (role === 'access' || role === 'voice') && untagged === vlan.id,
      );
      const names = ssidsOf(plan).filter((ssid) => ssid.vlan === vlan.id);
      return [
        jacketOf(vlan),
        vlan.name,
        sockets.length === 0
          ? 'none'
          : `${joined(sockets.slice(0, SOCKETS).map((port) => portTitle(plan, port)))}${sockets.length > SOCKETS ? `, ${sockets.length - SOCKETS} more` : ''}`,
        joined(names.map(({ name }) => name)),
        next === null ? '' : formatAddress(next),
      ];
    });
  return rows.length === 0
    ? []
    : [
        heading('A new device comes'),
        ...list(
          [
            'Decide which segment it belongs to: what does it have to reach, and who has to reach it?',
            'Plug it into a free socket of that segment, or let it join the wireless name.',
            'It gets an address by itself. What others must always find gets the next fixed one.',
            'Have it written into the plan: name, socket, address.',
          ],
          true,
        ),
        ...table(
          'Free for a new device',
          [
            column('VLAN', 0.7, true),
            column('Segment', 1.1),
            column('Free sockets', 2, true),
            column('Wireless', 1.2),
            column('Next fixed address', 1.2, true),
          ],
          rows,
        ),
      ];
}

export const when: ChapterKind = {
  id: 'when',
  title: 'What to do when',
  write: ({ plan }) => [...internetDown(plan), ...boxDies(plan), ...newDevice(plan)],
};
