import { lostWithoutOrder, orderOf, plannedState, presentState, settingsOf } from '../../src/core/commission';
import { type Drawn, commissionSite } from '../../src/core/testing/commission';
import { show } from './measure';

/** Draws as the tests do, from a counter instead of chance. */
function drawn(count: number, alike: boolean): Drawn {
  let at = 7;
  const next = (below: number) => (at = (at * 1_103_515_245 + 12_345) % 2 ** 31) % below;
  return {
    parents: Array.from({ length: count - 1 }, (_, i) => i >> 2),
    extra: [],
    comes: Array.from({ length: 8 }, () => (alike && next(3) === 0 ? ('alike' as const) : ('own' as const))),
    natives: Array.from(
      { length: count + 3 },
      () => (['none', 'none', 'management', 'staff'] as const)[next(4)]!,
    ),
    factory: 'default-vlan',
    jacks: Array.from({ length: 8 }, () => next(2) === 0),
    roles: Array.from({ length: 64 }, () => (['staff', 'guests', 'parked'] as const)[next(3)]!),
    plain: false,
  };
}

function main() {
  for (const alike of [false, true]) {
    const { plan, comes } = commissionSite(drawn(40, alike));
    const [now, then] = [presentState(plan, comes), plannedState(plan)];
    const steps = settingsOf(now, then);
    const start = performance.now();
    const { entries } = orderOf(now, then);
    const took = performance.now() - start;
    const count = (kind: string) => entries.filter((entry) => entry.kind === kind).length;
    console.log(
      `Commission: ${now.boxes.length} boxes${alike ? ', some alike' : ''}, ${steps.length} settings: ${count('sit')} places to sit, ${entries.filter((entry) => entry.kind === 'step' && entry.step.setting.kind === 'parachute').length} parachutes, ${count('recorded')} recorded, ${count('console')} by console`,
    );
    show('the order', took);
    const first = entries.find((entry) => entry.kind === 'sit');
    if (first?.kind === 'sit')
      console.log(`  box by box as listed ${lostWithoutOrder(now, then, first.socket).length} are lost`);
  }
}

main();
