'use client';

import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Refusal } from '@/core/plan';
import { type SiteSummary, routes } from '@/contract';
import { ask } from '../session/api';
import { ThemeSwitch } from '../shell/theme-switch';
import { readFile } from '../stations/handover/read-file';
import { FileButton } from '../parts/file-button';
import { Logo } from '../parts/marks';
import { Toggle } from '../parts/tick';
import { type SiteDeed, SiteRow } from './site-row';
import { useSites } from './use-sites';

const AuthorDialog = dynamic(() => import('../shell/author-dialog').then((m) => m.AuthorDialog));
const NewSiteDialog = dynamic(() => import('./new-site').then((m) => m.NewSiteDialog));
const RenameDialog = dynamic(() => import('./site-dialogs').then((m) => m.RenameDialog));
const DuplicateDialog = dynamic(() => import('./site-dialogs').then((m) => m.DuplicateDialog));
const DeleteDialog = dynamic(() => import('./site-dialogs').then((m) => m.DeleteDialog));

type Asking =
  | { readonly what: Exclude<SiteDeed, 'archive'>; readonly site: SiteSummary }
  | { readonly what: 'new' }
  | null;

export function SiteList() {
  const router = useRouter();
  const { list, wish, problem, lookAgain, choose, more } = useSites();
  /** Why the last thing that was asked for was not done: it stays while the list looks again. */
  const [refused, setRefused] = useState('');
  const [asking, setAsking] = useState<Asking>(null);
  const close = () => {
    setAsking(null);
    lookAgain();
  };
  const bringIn = async (file: File) => {
    setRefused('');
    try {
      const { id } = await ask(routes.sites.create, { body: { file: await readFile(file) } });
      router.push(`/site/${id}/segments`);
    } catch (error) {
      setRefused(`${file.name}: ${(error as Error | Refusal).message} Nothing was changed.`);
    }
  };
  const archive = async (site: SiteSummary) => {
    setRefused('');
    try {
      await ask(routes.sites.archive, { site: site.id, body: { archived: !site.archived } });
      lookAgain();
    } catch (error) {
      setRefused((error as Error).message);
    }
  };
  const shown = list?.sites ?? [];
  const named = wish.named.trim();
  const exercises = shown.filter(({ exercise }) => exercise);
  const row = (site: SiteSummary) => (
    <SiteRow
      key={site.id}
      site={site}
      onDo={(what) => (what === 'archive' ? void archive(site) : setAsking({ what, site }))}
    />
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
            <input
              type="search"
              className="field field-line max-w-52"
              aria-label="Find a site by its name"
              placeholder="name of a site"
              value={wish.named}
              onChange={(event) => choose({ named: event.target.value })}
            />
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
          {[refused, problem].map(
            (words, i) =>
              words && (
                <p key={i} role="alert" className="mb-3 border-l-4 border-stop px-3 text-stop">
                  {words}
                </p>
              ),
          )}
          {list === null && !problem && <p role="status">Loading…</p>}
          {shown.length > 0 && (
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
                {shown.filter(({ exercise }) => !exercise).map(row)}
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
          {list && shown.length === 0 && (
            <p role="status" className="pt-3">
              {named === ''
                ? 'No site here. Press “New site” to begin.'
                : `No site has “${named}” in its name.`}
            </p>
          )}
          {list?.more && (
            <button type="button" className="button mt-3" onClick={more}>
              More sites
            </button>
          )}
          {list !== null && list.archived > 0 && (
            <div className="pt-3">
              <Toggle
                label="archived sites too"
                checked={wish.archived}
                onChange={(archived) => choose({ archived })}
              />
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
