import { readFileSync } from 'node:fs';
import * as z from 'zod';
import { restAfter, runSheetOf, workedOrder } from '../commission';
import { readPlanFile } from '../formats';
import { finish } from '../plan';
import { logOf, newEntrySchema, paceOf, resultsOf } from '.';

const read = (name: string) => readFileSync(`demo/${name}.json`, 'utf8');

test.each(['1-row-house', '2-clinic', '3-creamery'])(
  'the logbook of %s: a run worked off and signed by both, one half done that goes on from there',
  (name) => {
    const plan = readPlanFile(read(name));
    const entries = z.array(newEntrySchema).parse(JSON.parse(read(`log/${name}`)));
    expect(new Set(entries.map(({ id }) => id)).size).toBe(entries.length);
    const log = logOf(entries);
    expect(log.asBuilt).toBe(0);
    const [finished, underWay, ...none] = log.runs;
    expect(none).toEqual([]);
    const first = finish(workedOrder(plan)).entries;
    const left = (run: typeof finished) => {
      const results = resultsOf(run!.results);
      const rest = finish(restAfter(plan, { after: 0, entries: first }, results));
      return { ...runSheetOf(plan, results, rest.entries), results };
    };
    expect(finished!.ended).not.toBeNull();
    expect(left(finished).sheet.steps).toBe(0);
    expect(left(finished).finished.length).toBeGreaterThan(3);
    expect(underWay!.ended).toBeNull();
    const { next, sheet, results } = left(underWay);
    expect(next).not.toBeNull();
    // Half of it is done: about as much is left as there was.
    const done = results.filter(({ kind }) => kind === 'step').length;
    const share = done / (done + sheet.settings);
    expect(share > 0.25 && share < 0.75).toBe(true);
    expect(log.defects.map(({ state }) => state)).toContain('mended');
    expect([...paceOf(log).keys()]).toEqual(expect.arrayContaining(['sit', 'port', 'check']));
  },
);
