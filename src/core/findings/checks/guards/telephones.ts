import { type Plan, type Remedy, type Telephony, groupBy, portTitle, subnetOf } from '../../../plan';
import {
  type PluggedPhone,
  type Target,
  hopOf,
  pluggedPhones,
  targetOf,
  telephoniesOf,
} from '../../../model/guards';
import { boxesInOrder } from '../../../model/switching';
import { portsOf } from '../../../model/wiring';
import { helpfulRemedies, homeOf, homeVlanOf, probe, voiceThrough } from '../../../rehearse';
import { onDevice } from '../refs';
import { nameOf } from './asking';
import { guardCheck, someOf } from './shared';

/** Telephones: what they are told, whether it leads anywhere, and what becomes of their priority on the way. */

const on = ({ id }: Telephony) => ({ table: 'telephony' as const, id });
const segment = (plan: Plan, { vlan }: Telephony): string => plan.vlan.get(vlan)!.name;

const noSettings = (plan: Plan, one: Telephony): string =>
  `Telephones in ${segment(plan, one)} do not get their settings`;

const bootForm = guardCheck('telephones-boot', function* (plan) {
  for (const one of telephoniesOf(plan)) {
    if (one.boot === '') continue;
    const target = targetOf(plan, one.boot, 'tftp');
    if (target && (one.bootOption === '66' || target.literal)) continue;
    yield {
      severity: 'fix',
      on: on(one),
      what: noSettings(plan, one),
      because: target
        ? `Option 150 carries addresses (RFC 5859), and “${one.boot}” is none; option 66 carries names and URLs too.`
        : `“${one.boot}” is no host, address or URL.`,
      remedies: target
        ? [
            {
              label: 'Tell it by option 66',
              operation: 'edit',
              input: { table: 'telephony', id: one.id, set: { bootOption: '66' } },
            },
          ]
        : [],
    };
  }
});

const bootUnreached = guardCheck('telephones-boot-unreached', function* (plan, today) {
  for (const one of telephoniesOf(plan)) {
    const target = one.boot === '' ? null : targetOf(plan, one.boot, 'tftp');
    if (!target) continue;
    const why = unreached(plan, one, one.boot, target, today);
    if (why) yield { severity: 'fix', on: on(one), what: noSettings(plan, one), ...why };
  }
});

interface Unreached {
  readonly because: string;
  readonly remedies: readonly Remedy[];
}
/** Why telephones of a segment do not get to where they are sent; null where they do, or nobody knows. */
function unreached(
  plan: Plan,
  { vlan }: Telephony,
  text: string,
  { to, wanted }: Target,
  today: string | null,
): Unreached | null {
  // A segment that nothing gets out of is found by other checks.
  if (homeOf(plan, vlan).why !== null) return null;
  const question = { from: { vlan }, to, wanted };
  const answer = probe(plan, question, today);
  return answer.works === false
    ? {
        because: `${text}: ${answer.summary}.`,
        remedies: helpfulRemedies(plan, question, answer, today),
      }
    : null;
}

const registrar = guardCheck('telephones-registrar', function* (plan, today) {
  for (const one of telephoniesOf(plan)) {
    if (one.registrar === '') continue;
    const target = targetOf(plan, one.registrar, 'sip');
    const what = `Telephones in ${segment(plan, one)} cannot register`;
    if (!target) {
      yield {
        severity: 'stop',
        on: on(one),
        what,
        because: `“${one.registrar}” is no host, address or URL.`,
      };
      continue;
    }
    const why = unreached(plan, one, one.registrar, target, today);
    if (why) yield { severity: 'stop', on: on(one), what, ...why };
  }
});

const untold = guardCheck('telephones-untold', function* (plan) {
  for (const one of telephoniesOf(plan)) {
    const subnet = subnetOf(plan, one.vlan, 4);
    if (one.boot === '' || !subnet || plan.pool.group(subnet.id).size > 0) continue;
    yield {
      severity: 'fix',
      on: on(one),
      what: `Nobody tells telephones in ${segment(plan, one)} their boot server`,
      because: `Option ${one.bootOption} comes with a lease, and nothing is leased there.`,
    };
  }
});

const unannounced = guardCheck('voice-unannounced', function* (plan) {
  for (const { device } of boxesInOrder(plan)) {
    if (hopOf(plan, device).announces !== 'no') continue;
    const ports = portsOf(plan, device).filter(({ role, enabled }) => role === 'voice' && enabled);
    if (ports.length === 0) continue;
    yield {
      severity: 'fix',
      on: onDevice(device),
      what: `${nameOf(plan, device)} cannot tell telephones their VLAN`,
      because: `${someOf(ports.map((port) => portTitle(plan, port)))}: access + voice without an announcement, so a telephone stays in the segment of the computer until its VLAN is set by hand.`,
    };
  }
});

/** Of the telephones at a box one of each segment: the others go the same way. */
const examples = (plan: Plan, phones: readonly PluggedPhone[]): PluggedPhone[] =>
  [...groupBy(phones, ({ phone }) => homeVlanOf(plan, phone.id)).values()].map(([first]) => first!);

const spoilt = guardCheck('voice-spoilt', function* (plan, today) {
  if (plan.voiceHop.size === 0 || plan.telephony.size === 0) return;
  const on = new Map<string, Set<string>>();
  for (const { device } of boxesInOrder(plan))
    for (const { phone } of examples(plan, pluggedPhones(plan, device)))
      for (const hop of voiceThrough(plan, phone.id, today))
        on.set(hop, (on.get(hop) ?? new Set<string>()).add(phone.name));
  for (const [device, phones] of on) {
    const { marks, queue } = hopOf(plan, device);
    const set = {
      ...(marks === 'cleared' && { marks: 'kept' as const }),
      ...(queue === 'no' && { queue: 'yes' as const }),
    };
    if (Object.keys(set).length === 0) continue;
    const faults = [
      marks === 'cleared' ? 'it clears the mark of voice' : '',
      queue === 'no' ? 'it sends voice after whatever came first' : '',
    ].filter(Boolean);
    yield {
      severity: 'fix',
      on: onDevice(device),
      what: `Calls stutter at ${nameOf(plan, device)} when the line is full`,
      because: `On the way of ${someOf([...phones])} ${faults.join(', and ')}.`,
      remedies: [
        {
          label: 'Keep the marks and send voice first',
          operation: 'setVoiceHop',
          input: { devices: [device], set },
        },
      ],
    };
  }
});

export const telephoneChecks = [bootForm, bootUnreached, registrar, untold, unannounced, spoilt];
