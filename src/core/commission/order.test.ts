import fc from 'fast-check';
import { commissionSite, drawnCommission } from '../testing/commission';
import { runs } from '../testing/runs';
import { type SiteState, after, orderOf, plannedState, presentState, reachedFrom, settingsOf } from './index';
import { isAsPlanned } from './steps';

/** Law: the order loses no box that has steps left, ends in the plan, and closes its parachutes. */
test('nobody cuts themselves off', () => {
  const seen = { steps: 0, parachutes: 0, sits: 0, apart: 0, consoles: 0, recorded: 0 };
  fc.assert(
    fc.property(drawnCommission, (drawn) => {
      const { plan, comes } = commissionSite(drawn);
      const then = plannedState(plan);
      const now = presentState(plan, comes);
      if (now.apart.size > 0) seen.apart++;
      const { entries, end } = orderOf(now, then);
      let state: SiteState = now;
      let seat: string | null = null;
      const parachutes = new Set<string>();
      for (const entry of entries) {
        if (entry.kind === 'sit') {
          seat = entry.socket;
          seen.sits++;
        } else if (entry.kind === 'console') {
          seen.consoles++;
          if (process.env.SHOW)
            console.log(
              JSON.stringify(drawn),
              entries
                .map((e) =>
                  e.kind === 'step'
                    ? `${e.step.device} ${e.step.setting.kind}${'port' in e.step.setting ? ` ${e.step.setting.port}${'part' in e.step.setting ? e.step.setting.part : ''}` : ''} @${e.socket} ${e.reached}`
                    : e.kind === 'sit'
                      ? `SIT ${e.socket}`
                      : e.kind === 'console'
                        ? `CONSOLE ${e.device} ${e.steps.map((s) => s.setting.kind)}`
                        : `REC ${e.port}`,
                )
                .join('\n'),
            );
          if (process.env.SHOW) throw new Error('x');
          for (const step of entry.steps) state = after(state, step);
        } else if (entry.kind === 'recorded') {
          parachutes.delete(entry.port);
          seen.recorded++;
        } else {
          const { step } = entry;
          expect(entry.socket).toBe(seat);
          expect([...reachedFrom(state, seat!).keys()]).toContain(step.device);
          state = after(state, step);
          seen.steps++;
          if (step.setting.kind === 'parachute') {
            parachutes.add(step.setting.port);
            seen.parachutes++;
          } else if (step.setting.kind === 'port') parachutes.delete(step.setting.port);
        }
      }
      expect([...parachutes]).toEqual([]);
      if (!entries.some(({ kind }) => kind === 'console' || kind === 'recorded'))
        end.boxes.forEach((box, at) => expect([at, isAsPlanned(box, then.boxes[at]!)]).toEqual([at, true]));
      expect(settingsOf(now, then).length).toBeLessThanOrEqual(
        entries.filter(({ kind }) => kind === 'step').length +
          1000 * Number(entries.some(({ kind }) => kind === 'console')),
      );
    }),
    {
      numRuns: runs(Number(process.env.N ?? 500)),
      seed: 1,
      ...(process.env.P ? { path: process.env.P, endOnFailure: true } : {}),
    },
  );
  console.log(seen);
});
