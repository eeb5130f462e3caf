import { type Plan, type Forward, addressesOn, portsText, type Remedy } from '../../../plan';
import { takenBy } from '../../../edit';
import {
  protocolsMeet,
  knownServiceAt,
  forwardsOf,
  listenersOf,
  targetOf,
  uplinksOf,
  letsForwardsIn,
} from '../../../model/uplink';
import {
  forwardTitle,
  internetCheck,
  isListenedTo,
  onForward,
  onUplink,
  removalOf,
  setField,
} from './shared';

/** What is let in from outside. */

function* enabled(plan: Plan): Generator<Forward> {
  for (const forward of plan.forward.values()) if (forward.enabled) yield forward;
}

const cannotWork = internetCheck('forward-cannot-work', function* (plan) {
  for (const forward of enabled(plan)) {
    const uplink = plan.uplink.get(forward.uplink)!;
    const { works, why } = letsForwardsIn(uplink);
    if (works !== false) continue;
    const others = uplinksOf(plan).filter(
      (other) => other.id !== uplink.id && letsForwardsIn(other).works === true,
    );
    const exposed = letsForwardsIn({ ...uplink, passes: 'everything' }).works === true;
    yield {
      severity: 'stop',
      on: onForward(forward),
      also: [onUplink(uplink)],
      what: `${forwardTitle(plan, forward)} cannot work on ${uplink.name}`,
      because: `Nothing gets as far as ${plan.device.get(uplink.device)!.name}: ${why}.`,
      remedies: [
        ...(exposed
          ? [
              {
                label: 'Have the box upstream pass everything on',
                operation: 'endDoubleNat',
                input: { uplink: uplink.id, how: 'expose' },
              } satisfies Remedy,
            ]
          : []),
        ...others.map((other): Remedy => ({
          label: `Let it in on ${other.name}`,
          operation: 'moveForward',
          input: { forward: forward.id, uplink: other.id },
        })),
        removalOf(forward),
      ],
    };
  }
});

const twice = internetCheck('forward-twice', function* (plan) {
  for (const uplink of uplinksOf(plan)) {
    const seen: Forward[] = [];
    for (const forward of forwardsOf(plan, uplink.id).filter((item) => item.enabled)) {
      const other = takenBy(plan, uplink.id, forward, forward.id).find((item) => seen.includes(item));
      seen.push(forward);
      if (!other) continue;
      yield {
        severity: 'stop',
        on: onForward(forward),
        also: [onForward(other)],
        what: `Two forwards share an outside port on ${uplink.name}`,
        because: `${forwardTitle(plan, other)} and ${forwardTitle(plan, forward)}: the first one gets everything.`,
        remedies: [
          {
            label: `Give ${targetOf(plan, forward).name} a free outside port`,
            operation: 'renumberForward',
            input: { forward: forward.id },
          },
        ],
      };
    }
  }
});

const floating = internetCheck('forward-no-address', function* (plan) {
  for (const forward of enabled(plan)) {
    if (addressesOn(plan, forward.target).some(({ assignment }) => assignment !== 'virtual')) continue;
    yield {
      severity: 'stop',
      on: onForward(forward),
      what: `${targetOf(plan, forward).name} has no fixed address to forward to`,
      because: `${portsText(forward.protocol, forward.from, forward.to)} would lead to whoever has its address by then. Give it a fixed address under Addresses.`,
      remedies: [removalOf(forward)],
    };
  }
});

const notOffered = internetCheck('forward-not-offered', function* (plan) {
  for (const forward of enabled(plan)) {
    const target = targetOf(plan, forward);
    const listeners = listenersOf(plan, target.id);
    const span = forward.to - forward.from;
    if (isListenedTo(plan, forward) !== false) continue;
    const usable = listeners.filter(({ protocol }) => protocolsMeet(protocol, forward.protocol));
    yield {
      severity: 'fix',
      on: onForward(forward),
      also: [{ table: 'device', id: target.id }],
      what: `${target.name} does not listen on ${forward.inside}`,
      because: `It lists ${listeners.map((listener) => portsText(listener.protocol, listener.port)).join(', ')}; the forward leads to ${portsText(forward.protocol, forward.inside, forward.inside + span)}.`,
      remedies: usable
        .filter(({ port }) => port + span <= 65_535)
        .slice(0, 2)
        .map((listener) =>
          setField(
            `Lead it to ${listener.port}${listener.name ? ` (${listener.name})` : ''}`,
            'forward',
            forward.id,
            'inside',
            listener.port,
            forward.inside,
          ),
        ),
    };
  }
});

const exposed = internetCheck('forward-exposes', function* (plan) {
  for (const forward of enabled(plan)) {
    const service = knownServiceAt(forward.protocol, forward.inside);
    if (!service || (!service.plain && !service.control) || forward.sources.length > 0) continue;
    const target = targetOf(plan, forward);
    yield {
      severity: service.control ? 'stop' : 'fix',
      on: onForward(forward),
      also: [{ table: 'device', id: target.id }],
      what: `${service.name} of ${target.name} is open to the whole Internet`,
      because: `${service.control ? 'Whoever gets in there controls the device; such ports are found within minutes' : 'What passes there is not encrypted, passwords included'}. Limit who may come, or reach it by VPN.`,
      remedies: [setField('Switch the forward off', 'forward', forward.id, 'enabled', false, true)],
    };
  }
});

export const forwardChecks = [cannotWork, twice, floating, notOffered, exposed];
