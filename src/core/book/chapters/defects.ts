import { FindingsEngine, acceptanceOf, severities } from '../../findings';
import { aboutText, writtenAt } from '../../log';
import { column, heading, list, table, text } from '../blocks';
import { dayOf } from './tests';
import { type ChapterKind } from '../chapter';

/** What is not in order: on the site by what was written down, in the plan by its own checks. */
export const defects: ChapterKind = {
  id: 'defects',
  title: 'Open defects',
  write: ({ plan, log, today }) => {
    const open = log.defects.filter(({ state }) => state === 'open');
    const found = new FindingsEngine(plan, today)
      .all()
      .filter((finding) => !acceptanceOf(plan.acceptance, finding))
      .sort((a, b) => severities.indexOf(a.severity) - severities.indexOf(b.severity));
    const notes = found.filter(({ severity }) => severity === 'note').length;
    return [
      ...(open.length === 0 ? [text('No defect of the site is open.')] : []),
      ...table(
        'Open defects',
        [column('At', 1, true), column('What', 3), column('Since', 1), column('By', 1)],
        open.map(({ opened }) => [
          aboutText(plan, opened.body.about),
          opened.body.text,
          dayOf(writtenAt(opened)),
          opened.author,
        ]),
      ),
      heading('What the checks of the plan say'),
      ...(found.length === notes ? [text('Nothing that has to be mended.')] : []),
      ...list(
        found
          .filter(({ severity }) => severity !== 'note')
          .map(({ severity, what, because }) => `${severity === 'stop' ? 'STOP: ' : ''}${what}. ${because}`),
      ),
      ...(notes === 0 ? [] : [text(`Besides, ${notes} ${notes === 1 ? 'note' : 'notes'} worth knowing.`)]),
    ];
  },
};
