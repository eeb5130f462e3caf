import { type HardeningItem, type Plan, groupBy } from '../../../plan';
import { hardeningFor, hardeningTitles, tickOf } from '../../../model/guards';
import { hardeningPoint } from '../../../rehearse';
import { onDevice } from '../refs';
import { nameOf } from './asking';
import { guardCheck, someOf } from './shared';

/** Boxes that somebody began to harden: what is left, and what is ticked and cannot be so. */

const begun = (plan: Plan) => [...groupBy([...plan.hardening.values()], ({ device }) => device)];

const stillOpen = guardCheck('hardening-open', function* (plan) {
  for (const [device] of begun(plan)) {
    const all = hardeningFor(plan, device);
    const left = all.filter((item) => tickOf(plan, device, item) === null);
    if (left.length === 0) continue;
    yield {
      severity: 'note',
      on: onDevice(device),
      what: `${nameOf(plan, device)} is hardened in part`,
      because: `${left.length} of ${all.length} points are open: ${someOf(left.map((item) => hardeningTitles[item].toLowerCase()))}.`,
    };
  }
});

/** What the rehearsal can say of a point without asking every segment. */
const JUDGED: ReadonlySet<HardeningItem> = new Set(['reach', 'time', 'firmware']);
const contradicted = guardCheck('hardening-contradicted', function* (plan, today) {
  for (const [device, ticks] of begun(plan)) {
    const wrong = ticks
      .filter(({ item }) => JUDGED.has(item))
      .map(({ item }) => hardeningPoint(plan, device, item, today))
      .filter((point) => point.wrong);
    if (wrong.length === 0) continue;
    yield {
      severity: 'fix',
      on: onDevice(device),
      what: `${nameOf(plan, device)}: ticked, and it cannot be`,
      because: wrong.map(({ item, evidence }) => `${hardeningTitles[item]}: ${evidence}`).join('. ') + '.',
    };
  }
});

export const hardeningChecks = [stillOpen, contradicted];
