import { joinRemedy } from '../../../rehearse';
import { type Port, portTitle, boxOf } from '../../../plan';
import { boxLinks } from '../../../model/switching';
import { innerPort, endsAt, homesOf } from '../../../model/wiring';
import { onPort } from '../refs';
import { assign, boxCheck, gearCheck, vlanBoxCheck } from './shared';

/** Whether a port suits what is plugged into it. */

const trunkToEnd = vlanBoxCheck('trunk-to-end', function* (plan, { ports }) {
  for (const port of ports) {
    if (port.role !== 'trunk') continue;
    const [end, other] = endsAt(plan, port);
    if (!end || other) continue;
    const [home, second] = homesOf(plan, end.id);
    const deaf = port.untagged === null;
    if (!deaf && port.taggedMode === 'list') continue;
    yield {
      severity: deaf ? 'stop' : 'fix',
      on: onPort(port),
      what: deaf ? `${end.name} hears only tagged frames` : `${end.name} gets every segment`,
      because: deaf
        ? `${portTitle(plan, port)} is a trunk without an untagged VLAN, and ${end.name} does not tag.`
        : `${portTitle(plan, port)} carries all segments to a ${end.kind.replaceAll('-', ' ')}: whoever owns it is in all of them.`,
      remedies: home && !second ? [joinRemedy(`Make it access ${home.vid} ${home.code}`, port, home)] : [],
    };
  }
});

const wrongSegment = vlanBoxCheck('port-wrong-segment', function* (plan, { ports }) {
  for (const port of ports) {
    if (port.role !== 'access' && port.role !== 'voice') continue;
    // Two cables in one port are a finding of their own.
    for (const end of endsAt(plan, port).slice(0, 1)) {
      const homes = homesOf(plan, end.id);
      if (homes.length !== 1) continue;
      const [home] = homes;
      if (home!.id === port.untagged || home!.id === port.voice) continue;
      const here = port.untagged === null ? undefined : plan.vlan.get(port.untagged);
      yield {
        severity: 'stop',
        on: onPort(port),
        also: [{ table: 'device', id: end.id }],
        what: `${end.name} is plugged into the wrong segment`,
        because: `Its address is in ${home!.name} (${home!.vid}), and ${portTitle(plan, port)} is in ${here ? `${here.name} (${here.vid})` : 'none'}.`,
        remedies:
          endsAt(plan, port).length === 1
            ? [joinRemedy(`Put ${portTitle(plan, port)} in ${home!.vid} ${home!.code}`, port, home!)]
            : [],
      };
    }
  }
});

/** The VLANs a box needs at its wire: those its inside takes part in with a tag. */
const innerTagged = (inner: Port | undefined): readonly string[] =>
  inner?.taggedMode === 'list' ? inner.tagged : [];

const accessToAp = gearCheck('access-to-ap', function* (plan) {
  for (const { link, a, b } of boxLinks(plan))
    for (const [port, far] of [
      [a, b],
      [b, a],
    ] as const) {
      const device = plan.device.get(far.device)!;
      if (port.role !== 'access' || device.kind !== 'access-point') continue;
      const needed = innerTagged(innerPort(plan, device.id)).filter((vlan) => vlan !== port.untagged);
      if (needed.length === 0 || !boxOf(plan, port.device)!.vlanAware) continue;
      const names = needed.map((id) => plan.vlan.get(id)!.name).join(', ');
      yield {
        severity: 'fix',
        on: onPort(port),
        also: [onPort(far), { table: 'cable', id: link.cables[0]! }],
        what: `${device.name} hangs on an access port`,
        because: `It serves ${names} besides, and ${portTitle(plan, port)} lets only one segment through.`,
        remedies: [
          assign(`Make ${portTitle(plan, port)} a trunk for it`, [port], 'trunk', {
            vlan: port.untagged,
            tagged: needed,
          }),
        ],
      };
    }
});

const plainInTaggedPath = gearCheck('plain-switch-tagged', function* (plan) {
  for (const { link, a, b } of boxLinks(plan))
    for (const [port, far] of [
      [a, b],
      [b, a],
    ] as const) {
      const device = plan.device.get(far.device)!;
      if (boxOf(plan, device.id)!.vlanAware || port.role !== 'trunk') continue;
      if (port.taggedMode === 'list' && port.tagged.length === 0) continue;
      yield {
        severity: 'fix',
        on: onPort(port),
        also: [{ table: 'cable', id: link.cables[0]! }],
        what: `Tagged segments run through ${device.name}, which knows no VLANs`,
        because: `Everything ${portTitle(plan, port)} sends with a tag reaches every port of ${device.name} unasked.`,
      };
    }
});

const plainServesMany = boxCheck('plain-switch-tagged', function* (plan, { box, device, ports }) {
  if (box.vlanAware) return;
  const ends = ports.flatMap((port) => endsAt(plan, port));
  const homes = new Map(ends.flatMap((end) => homesOf(plan, end.id).map((vlan) => [vlan.id, vlan] as const)));
  if (homes.size < 2) return;
  yield {
    severity: 'stop',
    on: { table: 'device', id: device.id },
    also: ends.map((end) => ({ table: 'device' as const, id: end.id })),
    what: `${device.name} serves devices of ${homes.size} segments`,
    because: `It knows no VLANs, so ${[...homes.values()].map((vlan) => vlan.name).join(' and ')} cannot be told apart behind it.`,
  };
});

export const endChecks = [accessToAp, plainInTaggedPath];
export const endBoxChecks = [trunkToEnd, wrongSegment, plainServesMany];
