import { matrixDrawing, ruleScheduleOf } from '../../formats';
import { explainZone, zonesOf } from '../../model/policy';
import { column, drawn, heading, list, table, text } from '../blocks';
import type { ChapterKind } from '../chapter';

/** Who may talk: sentences, the matrix and every line in the order in which it is asked. */
export const policy: ChapterKind = {
  id: 'policy',
  title: 'Who may talk',
  write: ({ plan, today }) => {
    const zones = zonesOf(plan);
    if (zones.length === 0) return [text('No zones are recorded: nothing is filtered inside.')];
    return [
      ...list(zones.map((zone) => explainZone(plan, zone))),
      heading('Matrix'),
      text('From the zones at the left to those at the top, before any rule.'),
      ...drawn(matrixDrawing(plan), true),
      heading('Lines'),
      text('The first line that fits decides.'),
      ...table(
        'Lines, the first that fits decides',
        [
          column('Line', 0.45, true),
          column('Box', 0.9),
          column('Action', 0.6),
          column('From', 1.3),
          column('To', 1.3),
          column('Service', 1.3),
          column('Ports', 1.3, true),
          column('Note', 1.2),
        ],
        ruleScheduleOf(plan, today).map((line, i) => [
          String(i + 1),
          line.boxes,
          line.action,
          line.from,
          line.to,
          line.services,
          line.ports,
          [line.note, line.until && `until ${line.until}`, line.log ? 'logged' : '']
            .filter(Boolean)
            .join(', '),
        ]),
      ),
    ];
  },
};
