import { siteTests } from '../../commission';
import { type Log, testWords, writtenAt } from '../../log';
import { askAll, questionText } from '../../rehearse';
import { type Block, column, heading, table, text } from '../blocks';
import { type ChapterKind, joined } from '../chapter';

/** What was tried on the site and what came of it, and who signed. */

/** The day of a moment, in UTC. */
export const dayOf = (moment: string): string => moment.slice(0, 10);

function cameOut({ tests }: Log, key: string): string {
  const result = tests.get(key);
  if (!result) return 'not tried';
  const { outcome, reading, note } = result.body;
  return joined([testWords[outcome], reading, note, `${dayOf(writtenAt(result))} ${result.author}`]);
}

function signed({ signOffs, asBuilt }: Log): Block[] {
  const told =
    asBuilt === null
      ? 'Not signed by installer and customer yet.'
      : `Change ${asBuilt} is as built: installer and customer signed it.`;
  return [
    heading('Signatures'),
    text(told),
    ...(signOffs.length === 0
      ? []
      : [
          {
            kind: 'signatures' as const,
            of: signOffs.map(({ body, revision }) => ({
              path: body.signature,
              name: `${body.name}, ${body.role}`,
              about: joined([body.day, `change ${revision}`, body.note]),
            })),
          },
        ]),
  ];
}

export const tests: ChapterKind = {
  id: 'tests',
  title: 'Tests and signatures',
  write: ({ plan, log, today }) => {
    const { rounds } = siteTests(plan, today);
    const kept = askAll(plan, today);
    return [
      ...table(
        'Tests',
        [column('At', 1.3, true), column('Do', 1.7), column('Must be seen', 1.7), column('Came out', 1.3)],
        rounds.flatMap(({ at, place, tests: all }) =>
          all.map(({ key, does, expects }, i) => [
            i === 0 ? joined([at, place]) : '',
            does,
            expects,
            cameOut(log, key),
          ]),
        ),
      ),
      ...(kept.length === 0 ? [] : [heading('Questions asked of the plan')]),
      ...table(
        'Questions asked of the plan',
        [column('Question', 2), column('Must', 0.8), column('The plan says', 2.2)],
        kept.map(({ question, answer, asExpected }) => [
          questionText(plan, question),
          question.expected === 'delivered' ? 'pass' : 'be stopped',
          `${asExpected ? '' : 'otherwise: '}${answer.summary}`,
        ]),
      ),
      ...signed(log),
    ];
  },
};
