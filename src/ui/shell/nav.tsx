'use client';

import Link from 'next/link';
import { severities } from '@/core/findings';
import { useAuthor } from '../session/author';
import { useSession } from '../session/context';
import { countOpen, useFindings } from '../session/open-findings';
import { SeverityMark } from '../parts/marks';
import { type StationEntry, stations, views } from './stations';
import { useStation } from './findings-panel';

/** The stations in the order of the work, each with its open findings by severity. */
export function Nav({ onGo }: { onGo?: () => void }) {
  const session = useSession();
  const here = useStation();
  const findings = useFindings();
  const entry = (item: StationEntry, number: number | null) => {
    const own = item.findings ? findings.filter((finding) => finding.station === item.findings) : [];
    const counts = countOpen(item.path === 'findings' ? findings : own);
    return (
      <li key={item.path}>
        <Link
          href={`/site/${session.siteId}/${item.path}`}
          onClick={onGo}
          aria-current={here === item.path ? 'page' : undefined}
          className={`flex min-h-[35px] items-center gap-1.5 border-b border-rule py-1 pr-2 pl-2 max-[699px]:min-h-[44px] ${here === item.path ? 'border-l-[5px] border-l-ink bg-sheet font-bold' : 'border-l-[5px] border-l-transparent text-muted hover:bg-sheet'}`}
        >
          <span className="mono w-4 text-right text-[13px]">{number ?? ''}</span>
          <span className="flex-1">{item.label}</span>
          {severities
            .filter((severity) => counts[severity] > 0 && severity !== 'note')
            .map((severity) => (
              <span key={severity} className="flex items-center gap-0.5 text-[12px] font-bold text-ink">
                <SeverityMark severity={severity} size={13} />
                {counts[severity] > 999 ? '999+' : counts[severity]}
              </span>
            ))}
        </Link>
      </li>
    );
  };
  return (
    <nav aria-label="Stations">
      <ol>{stations.map((item, i) => entry(item, i + 1))}</ol>
      <ul className="mt-3 border-t border-rule">{views.map((item) => entry(item, null))}</ul>
      <WorkingAs />
    </nav>
  );
}

/** Whom the history names; pressed, it asks again. */
function WorkingAs() {
  const { name, ask } = useAuthor();
  return (
    <button
      type="button"
      className="mt-3 flex min-h-[35px] w-full items-center gap-1.5 px-3 text-left text-[13px] text-muted hover:bg-sheet max-[699px]:min-h-[44px]"
      onClick={() => ask(true)}
    >
      <span className="truncate">{name === '' ? 'No name in the history' : `You are ${name}`}</span>
      <span className="link">{name === '' ? 'say who you are' : 'change'}</span>
    </button>
  );
}
