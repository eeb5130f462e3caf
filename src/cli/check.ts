import { FindingsEngine, type Severity, acceptanceOf, severities } from '../core/findings';
import { byName, siteOf } from '../core/plan';
import type { Command } from './command';
import { Misuse, planIn } from './files';

/** What is amiss in a plan, as the program shows it beside every station. */
export const check: Command = {
  usage: 'PLAN [--from stop|fix|note] [--accepted]',
  about: 'says what is amiss; fails where anything is, from that severity up (fix where none is named)',
  takes: { from: 'severity', accepted: '' },
  run: ({ words: [path], switches, today }) => {
    const plan = planIn(path);
    const from = (switches.get('from') ?? 'fix') as Severity;
    if (!severities.includes(from)) throw new Misuse(`“${from}” is no severity: ${severities.join(', ')}.`);
    const all = [...new FindingsEngine(plan, today).all()]
      .filter((finding) => switches.has('accepted') || !acceptanceOf(plan.acceptance, finding))
      .sort(
        (a, b) =>
          severities.indexOf(a.severity) - severities.indexOf(b.severity) ||
          byName(a.station, b.station) ||
          byName(a.what, b.what),
      );
    const counts = Object.fromEntries(
      severities.map((severity) => [severity, all.filter((one) => one.severity === severity).length]),
    );
    const fails = all.some(({ severity }) => severities.indexOf(severity) <= severities.indexOf(from));
    return {
      code: fails ? 1 : 0,
      text: [
        ...all.map(
          ({ severity, station, what, because }) =>
            `${severity.padEnd(5)} ${station}: ${what}\n      ${because}`,
        ),
        `${siteOf(plan).name}: ${severities.map((severity) => `${counts[severity]} ${severity}`).join(', ')}`,
      ].join('\n'),
      json: {
        site: siteOf(plan).name,
        counts,
        findings: all.map(({ key, check: id, station, severity, what, because, remedies }) => ({
          key,
          check: id,
          station,
          severity,
          what,
          because,
          remedies: remedies.map(({ label }) => label),
        })),
      },
    };
  },
};
