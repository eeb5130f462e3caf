'use client';

import Link from 'next/link';
import { severities } from '@/core/findings';
import type { SiteSummary } from '@/contract';
import { dayText } from '../parts/dates';
import { SeverityMark } from '../parts/marks';

/** What can be done with a site from the list. */
export type SiteDeed = 'rename' | 'duplicate' | 'archive' | 'delete';
const deeds: readonly SiteDeed[] = ['rename', 'duplicate', 'archive', 'delete'];

/** A site on a line of the list; a card of its own where there is little width. */
export function SiteRow({ site, onDo }: { site: SiteSummary; onDo: (what: SiteDeed) => void }) {
  return (
    <tr className="min-[700px]:h-11 max-[699px]:grid max-[699px]:gap-y-1 max-[699px]:border-b-2 max-[699px]:border-ink max-[699px]:py-3 [&>*]:max-[699px]:border-0!">
      <th scope="row" className="px-1 text-left">
        <Link
          className="text-[17px] font-bold hover:underline"
          href={`/site/${site.id}/${site.exercise ? 'rehearse?view=exercise' : 'segments'}`}
        >
          {site.name}
        </Link>{' '}
        {site.exercise && (
          <span className="pl-2 text-muted">
            {site.exercise === 'open' ? 'exercise, open' : 'exercise, handed in'}
          </span>
        )}
        {site.archived && <span className="pl-2 text-muted">archived</span>}
      </th>
      <td className="px-1">{site.kind}</td>
      <td className="px-1">
        {site.segments} segments, {site.fixed} fixed
      </td>
      <td className="px-1">
        <Counted site={site} />
      </td>
      <td className="px-1 whitespace-nowrap">
        change {site.revision}, {dayText(site.changedAt)}
      </td>
      <td>
        <span className="flex flex-wrap gap-x-5 gap-y-1 px-1 min-[700px]:gap-3 [&>button]:max-[699px]:min-h-touch">
          {deeds.map((what) => {
            const word = what === 'archive' && site.archived ? 'restore' : what;
            return (
              <button
                key={what}
                type="button"
                className="link"
                aria-label={`${word} ${site.name}`}
                onClick={() => onDo(what)}
              >
                {word}
              </button>
            );
          })}
        </span>
      </td>
    </tr>
  );
}

/** The open findings of a site, as far as they are counted. */
function Counted({ site }: { site: SiteSummary }) {
  const why =
    site.exercise === 'open' ? 'put away' : site.counted ? (site.uncountable ?? 'not counted') : 'counting…';
  return (
    <span className={`flex items-center gap-3 ${site.counted ? '' : 'text-muted'}`}>
      {site.findings === null && <span className="text-muted">{why}</span>}
      {severities.map(
        (severity) =>
          site.findings && (
            <span key={severity} className="flex items-center gap-1">
              <SeverityMark severity={severity} /> {site.findings[severity]}
            </span>
          ),
      )}
    </span>
  );
}
