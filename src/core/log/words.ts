import { pageTitles, socketTitle } from '../commission';
import type { Plan } from '../plan';
import type { Body } from './entries';
import type { Log, Written } from './fold';

/** Entries in words. */

export const outcomeWords = { done: 'done', differs: 'something else seen', skipped: 'left out' } as const;
export const testWords = { 'as-expected': 'as expected', differs: 'differs' } as const;
export const defectWords = { open: 'open', mended: 'mended', accepted: 'accepted as it is' } as const;

/** What an entry is about, by name; empty where it is about the whole site. */
export function aboutText(plan: Plan, about: Extract<Body, { kind: 'note' }>['about']): string {
  if (!about) return '';
  if (about.table === 'port') return socketTitle(plan, about.id);
  const record = plan[about.table].get(about.id) as { readonly name?: string } | undefined;
  return record?.name ?? 'no longer planned';
}

/** An entry in one line. */
export function entryText(plan: Plan, log: Log, { body }: Written): string {
  const runName = (id: string) => log.runs.find((run) => run.id === id)?.begun.body.name ?? 'a run';
  switch (body.kind) {
    case 'run':
      return `began the run “${body.name}”`;
    case 'sit':
      return `sat down at ${socketTitle(plan, body.socket)}`;
    case 'result':
      return `${outcomeWords[body.outcome]}: ${body.does}`;
    case 'test':
      return `${testWords[body.outcome]} at ${body.at}: ${body.does}`;
    case 'runEnd':
      return `ended the run “${runName(body.run)}”`;
    case 'tick': {
      const name = plan.device.get(body.device)?.name ?? 'a box that is no longer planned';
      const lines = body.lines.map(({ what, value }) => (value === '' ? what : `${what} ${value}`));
      const told = lines.length > 3 ? `${lines.length} lines` : lines.join('; ');
      return `${body.done ? 'set' : 'not set after all'} at ${name}, ${pageTitles[body.page]}: ${told}`;
    }
    case 'visit':
      return `came to the site${body.with === '' ? '' : ` with ${body.with}`}${body.note === '' ? '' : `: ${body.note}`}`;
    case 'visitEnd':
      return `left the site${body.note === '' ? '' : `: ${body.note}`}`;
    case 'note':
      return body.text;
    case 'defect':
      return `defect: ${body.text}`;
    case 'defectState': {
      const defect = log.defects.find(({ id }) => id === body.defect);
      return `defect ${defectWords[body.state]}: ${defect?.opened.body.text ?? 'taken back'}`;
    }
    case 'signOff':
      return `${body.name} signed as ${body.role}, ${body.day}${body.note ? `: ${body.note}` : ''}`;
    case 'correction': {
      const of = log.entries.find(({ id }) => id === body.of);
      if (!of) return `takes back an entry that is not here. ${body.text}`;
      // Told by its own words alone: entries from elsewhere may take back one another.
      const what = of.body.kind === 'correction' ? of.body.text : entryText(plan, log, of);
      return `takes back “${what}”. ${body.text}`;
    }
  }
}
