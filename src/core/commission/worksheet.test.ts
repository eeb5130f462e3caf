import fc from 'fast-check';
import { commissionSite, drawnCommission, plainDrawing } from '../testing/commission';
import { runs } from '../testing/runs';
import { type SheetStep, orderOf, plannedState, presentState, sheetOf } from './index';

test('every step of an order stands once on the sheet, under a place with an address that fits its box', () => {
  fc.assert(
    fc.property(drawnCommission, (drawn) => {
      const { plan, comes } = commissionSite(drawn);
      const now = presentState(plan, comes);
      const { entries } = orderOf(now, plannedState(plan));
      const sheet = sheetOf(plan, now, entries);
      const steps = entries.flatMap((entry) => (entry.kind === 'step' ? [entry] : []));
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
      for (const { at, device } of told) expect(entries[at]).toMatchObject({ step: { device } });
      for (const seat of sheet.seats) expect(seat.laptop).toMatch(/^(10\.20\.10|192\.168\.\d+)\.\d+ 255\./);
    }),
    { numRuns: runs(100), seed: 4 },
  );
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
