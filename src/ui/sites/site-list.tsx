'use client';

import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useState } from 'react';
import { severities } from '@/core/findings';
import { Refusal } from '@/core/plan';
import { SITES_PART, type SiteSummary, routes } from '@/contract';
import { ask } from '../session/api';
import { ThemeSwitch } from '../shell/theme-switch';
import { readFile } from '../stations/handover/read-file';
import { FileButton } from '../parts/file-button';
import { dayText } from '../parts/dates';
import { Logo, SeverityMark } from '../parts/marks';
import { Toggle } from '../parts/tick';

const AuthorDialog = dynamic(() => import('../shell/author-dialog').then((m) => m.AuthorDialog));
const NewSiteDialog = dynamic(() => import('./new-site').then((m) => m.NewSiteDialog));
const RenameDialog = dynamic(() => import('./site-dialogs').then((m) => m.RenameDialog));
const DuplicateDialog = dynamic(() => import('./site-dialogs').then((m) => m.DuplicateDialog));
const DeleteDialog = dynamic(() => import('./site-dialogs').then((m) => m.DeleteDialog));

const LOOK_AGAIN = 1500;

type Asking =
  | { readonly what: 'rename' | 'duplicate' | 'delete'; readonly site: SiteSummary }
  | { readonly what: 'new' }
  | null;

export function SiteList() {
  const router = useRouter();
  const [sites, setSites] = useState<readonly SiteSummary[] | null>(null);
  const [problem, setProblem] = useState('');
  const [asking, setAsking] = useState<Asking>(null);
  const [archived, setArchived] = useState(false);
  const [listed, setListed] = useState<{ archived: number; next: string | null }>({
    archived: 0,
    next: null,
  });
  /** Loads as many parts as are shown, or one more. */
  const load = useCallback(
    async (parts = 1) => {
      try {
        let found: readonly SiteSummary[] = [];
        let after: string | undefined;
        for (let part = 0; part < parts; part++) {
          const query = { after, archived: archived ? 'yes' : 'no' };
          const { sites: more, ...rest } = await ask(routes.sites.list, { query });
          found = [...found, ...more];
          setListed(rest);
          if (rest.next === null) break;
          after = rest.next;
        }
        setSites(found);
        setProblem('');
      } catch (error) {
        setProblem((error as Error).message);
      }
    },
    [archived],
  );
  const parts = Math.max(1, Math.ceil((sites?.length ?? 0) / SITES_PART));
  useEffect(() => {
    void load(); // eslint-disable-line react-hooks/set-state-in-effect
  }, [load]);
  // Findings are counted while nobody waits; the list looks again until they are, and while the server is away.
  const unfinished = problem !== '' || sites?.some((site) => !site.counted && site.exercise !== 'open');
  useEffect(() => {
    if (!unfinished) return;
    const timer = setTimeout(() => void load(parts), LOOK_AGAIN);
    return () => clearTimeout(timer);
  }, [unfinished, sites, load, parts, problem]);
  const close = () => {
    setAsking(null);
    void load(parts);
  };
  const bringIn = async (file: File) => {
    try {
      const { id } = await ask(routes.sites.create, { body: { file: await readFile(file) } });
      router.push(`/site/${id}/segments`);
    } catch (error) {
      setProblem(`${file.name}: ${(error as Error | Refusal).message} Nothing was changed.`);
    }
  };
  const archive = async (site: SiteSummary) => {
    try {
      await ask(routes.sites.archive, { site: site.id, body: { archived: !site.archived } });
      await load(parts);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const shown = sites ?? [];
  const plans = shown.filter(({ exercise }) => !exercise);
  const exercises = shown.filter(({ exercise }) => exercise);
  const row = (site: SiteSummary) => (
    <tr
      key={site.id}
      className="min-[700px]:h-11 max-[699px]:grid max-[699px]:gap-y-1 max-[699px]:border-b-2 max-[699px]:border-ink max-[699px]:py-3 [&>*]:max-[699px]:border-0!"
    >
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
        <span className={`flex items-center gap-3 ${site.counted ? '' : 'text-muted'}`}>
          {site.findings === null && (
            <span className="text-muted">
              {site.exercise === 'open'
                ? 'put away'
                : site.counted
                  ? (site.uncountable ?? 'not counted')
                  : 'counting…'}
            </span>
          )}
          {severities.map(
            (severity) =>
              site.findings && (
                <span key={severity} className="flex items-center gap-1">
                  <SeverityMark severity={severity} /> {site.findings[severity]}
                </span>
              ),
          )}
        </span>
      </td>
      <td className="px-1 whitespace-nowrap">
        change {site.revision}, {dayText(site.changedAt)}
      </td>
      <td>
        <span className="flex flex-wrap gap-x-5 gap-y-1 px-1 min-[700px]:gap-3 [&>button]:max-[699px]:min-h-11">
          {(['rename', 'duplicate'] as const).map((what) => (
            <button
              key={what}
              type="button"
              className="link"
              aria-label={`${what} ${site.name}`}
              onClick={() => setAsking({ what, site })}
            >
              {what}
            </button>
          ))}
          <button
            type="button"
            className="link"
            aria-label={`${site.archived ? 'restore' : 'archive'} ${site.name}`}
            onClick={() => void archive(site)}
          >
            {site.archived ? 'restore' : 'archive'}
          </button>
          <button
            type="button"
            className="link"
            aria-label={`delete ${site.name}`}
            onClick={() => setAsking({ what: 'delete', site })}
          >
            delete
          </button>
        </span>
      </td>
    </tr>
  );
  return (
    <div className="flex min-h-dvh flex-col">
      <header className="flex h-[46px] items-center gap-3 border-b-[3px] border-ink px-4">
        <Logo />
        <h1 className="text-[18px] font-bold">Dianome</h1>
        <p className="flex-1 text-muted max-[699px]:hidden">network plans that check themselves</p>
        <ThemeSwitch />
      </header>
      <main className="flex-1 bg-sheet px-4 py-4">
        <div className="mx-auto max-w-[1080px]">
          <div className="flex flex-wrap items-center gap-3 pb-3">
            <h2 className="tape text-[15px]">Sites</h2>
            <span className="flex-1" />
            <FileButton
              label="Bring in a plan file"
              accept=".json,application/json"
              onChoose={(file) => void bringIn(file)}
            />
            <button
              type="button"
              className="button button-primary"
              onClick={() => setAsking({ what: 'new' })}
            >
              New site
            </button>
          </div>
          {problem && (
            <p role="alert" className="mb-3 border-l-4 border-stop px-3 text-stop">
              {problem}
            </p>
          )}
          {sites === null && !problem && <p role="status">Loading…</p>}
          {sites && (
            <table className="schedule max-[699px]:block">
              <thead className="max-[699px]:sr-only">
                <tr>
                  {['Site', 'Kind', 'Size', 'Findings', 'Last change', ''].map((head, i) => (
                    <th key={i} scope="col">
                      {head || <span className="sr-only">Do</span>}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody className="max-[699px]:block">
                {plans.map(row)}
                {exercises.length > 0 && (
                  <tr className="max-[699px]:block">
                    <th
                      colSpan={6}
                      scope="rowgroup"
                      className="px-1 pt-4 text-left text-muted max-[699px]:block"
                    >
                      Exercises
                    </th>
                  </tr>
                )}
                {exercises.map(row)}
              </tbody>
            </table>
          )}
          {sites && shown.length === 0 && <p className="pt-3">No site here. Press “New site” to begin.</p>}
          {listed.next !== null && (
            <button type="button" className="button mt-3" onClick={() => void load(parts + 1)}>
              More sites
            </button>
          )}
          {listed.archived > 0 && (
            <div className="pt-3">
              <Toggle label="archived sites too" checked={archived} onChange={setArchived} />
            </div>
          )}
        </div>
      </main>
      {asking?.what === 'new' && <NewSiteDialog onClose={close} />}
      {asking?.what === 'rename' && <RenameDialog site={asking.site} onClose={close} />}
      {asking?.what === 'duplicate' && <DuplicateDialog site={asking.site} onClose={close} />}
      {asking?.what === 'delete' && <DeleteDialog site={asking.site} onClose={close} />}
      <AuthorDialog />
    </div>
  );
}
