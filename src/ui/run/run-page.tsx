'use client';

import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useSearchParams } from 'next/navigation';
import { Suspense, useState } from 'react';
import { siteOf } from '@/core/plan';
import { useAuthor } from '../session/author';
import { SessionProvider, usePlan, useSession } from '../session/context';
import { LogProvider, useLog } from '../session/log-context';
import { isPaired } from '../session/paired';
import { KeepProgram } from '../shell/keep-program';
import { Loaded } from '../shell/loaded';
import { Logo } from '../parts/marks';
import { RunSteps } from './run-steps';
import { SentLine } from '../log/sent-line';

const AuthorDialog = dynamic(() => import('../shell/author-dialog').then((m) => m.AuthorDialog));

const PairPhone = dynamic(() => import('./pair-phone').then((m) => m.PairPhone));

/** A run on a phone or laptop beside the boxes, step by step. */
export function RunPage({ siteId }: { siteId: string }) {
  return (
    <SessionProvider siteId={siteId}>
      <Loaded>
        <KeepProgram />
        <LogProvider>
          <Suspense>
            <Running />
          </Suspense>
        </LogProvider>
      </Loaded>
    </SessionProvider>
  );
}

function Running() {
  const { siteId } = useSession();
  const plan = usePlan();
  const { name: author, ask } = useAuthor();
  const unnamed = useAuthor((state) => state.asked ?? state.name === '');
  const [pairing, setPairing] = useState(false);
  const paired = isPaired();
  const id = useSearchParams().get('run') ?? '';
  const ready = useLog((state) => state.ready);
  const run = useLog((state) => state.log.runs.find((one) => one.id === id));
  return (
    <div className="mx-auto flex min-h-dvh max-w-[760px] flex-col bg-sheet">
      <header className="flex min-h-[46px] flex-wrap items-center gap-x-3 border-b-[3px] border-ink bg-paper px-3 py-1">
        {paired ? (
          <Logo />
        ) : (
          <Link
            href={`/site/${siteId}/commission?list=log`}
            className="flex min-h-touch items-center gap-2"
            aria-label="Back to the logbook"
          >
            <Logo />
          </Link>
        )}
        <h1 className="min-w-0 flex-1 font-bold">
          {run ? run.begun.body.name : 'Run'}
          <span className="block text-[13px] font-normal text-muted">{siteOf(plan).name}</span>
        </h1>
        {run && !run.ended && !paired && (
          <button type="button" className="button min-h-touch" onClick={() => setPairing(true)}>
            Pair a phone
          </button>
        )}
        <button type="button" className="button min-h-touch" onClick={() => ask(true)}>
          {author || 'Who are you?'}
        </button>
      </header>
      <SentLine />
      <main id="station" tabIndex={-1} className="flex-1 px-3 pt-3 pb-10 outline-none">
        {run && <RunSteps plan={plan} run={run} />}
        {!run && !ready && <p role="status">Reading the log…</p>}
        {!run && ready && (
          <p role="alert" className="border-l-4 border-stop px-3">
            There is no run of this name here. It may not have come from the other device yet; start or open
            one in the logbook.
          </p>
        )}
      </main>
      {unnamed && <AuthorDialog />}
      {pairing && <PairPhone run={id} onClose={() => setPairing(false)} />}
    </div>
  );
}
