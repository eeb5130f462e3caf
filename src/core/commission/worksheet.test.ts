import fc from 'fast-check';
import { commissionSite, drawnCommission, plainDrawing } from '../testing/commission';
import { moreThan, runs } from '../testing/runs';
import { type SheetStep, type Step, orderOf, plannedState, presentState, sheetOf } from './index';

test('every step of an order stands once on the sheet, under a place with an address that fits its box', () => {
  let local = 0;
  fc.assert(
    fc.property(drawnCommission, (drawn) => {
      const { plan, comes } = commissionSite(drawn);
      const now = presentState(plan, comes);
      const { entries } = orderOf(now, plannedState(plan));
      const sheet = sheetOf(plan, now, entries);
      const steps = entries.flatMap((entry): { readonly step: Step; readonly socket: string | null }[] =>
        entry.kind === 'step'
          ? [entry]
          : entry.kind === 'console'
            ? entry.steps.map((step) => ({ step, socket: null }))
            : [],
      );
      const told = sheet.seats.flatMap((seat) =>
        seat.steps.flatMap(
          (step) => Array(step.count).fill({ ...step, socket: seat.socket }) as typeof seat.steps,
        ),
      ) as (SheetStep & { socket: string | null })[];
      expect(told.map(({ device, kind, socket }) => [device, kind, socket])).toEqual(
        steps.map(({ step, socket }) => [step.device, step.setting.kind, socket]),
      );
      expect(sheet.settings).toBe(steps.length);
      expect(sheet.steps).toBeLessThanOrEqual(steps.length);
      for (const { at, device, socket } of told)
        expect(entries[at]).toMatchObject(socket === null ? { device } : { step: { device } });
      for (const { laptop, socket } of sheet.seats)
        if (socket === null) expect(laptop).toBeNull();
        else {
          expect(laptop).toMatch(/^(10\.20\.10\.\d+ |192\.168\.\d+\.\d+ |169\.254\.254\.\d+ 255\.255\.0\.0)/);
          if (laptop!.startsWith('169.')) local++;
        }
    }),
    { numRuns: runs(100), seed: 4 },
  );
  expect(local).toBeGreaterThan(moreThan(10));
});

test('two switches as they come: all is done from one socket, then from the planned port', () => {
  const { plan, comes } = commissionSite(plainDrawing);
  const now = presentState(plan, comes);
  const { entries } = orderOf(now, plannedState(plan));
  const { seats, recorded } = sheetOf(plan, now, entries);
  expect(recorded).toEqual([]);
  expect(seats.map(({ parachute }) => parachute)).not.toContain(true);
  expect(new Set(seats.map(({ socket }) => socket)).size).toBe(2);
  expect(seats.at(-1)!.steps.at(-1)!.kind).toBe('check');
});
