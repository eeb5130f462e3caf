'use client';

import Link from 'next/link';
import type { RefObject } from 'react';
import { siteOf } from '@/core/plan';
import { usePlan, useSession, useSite } from '../session/context';
import type { SaveState } from '../session/state';
import { Logo } from '../parts/marks';
import { FindBox } from './find-box';
import { ThemeSwitch } from './theme-switch';

const saveWords: Readonly<Record<SaveState, string>> = {
  saved: 'saved',
  saving: 'saving',
  offline: 'offline, kept here',
  trouble: 'not saved, kept here',
  deleted: 'this site was deleted',
};

export function Header({
  findRef,
  onKeys,
}: {
  findRef: RefObject<HTMLInputElement | null>;
  onKeys: () => void;
}) {
  const session = useSession();
  const plan = usePlan();
  const { revision, saving, lastChange, conflicts } = useSite((state) => state);
  const trouble = (saving !== 'saved' && saving !== 'saving') || conflicts.length > 0;
  return (
    <header className="no-print flex h-[46px] items-center gap-3 border-b-[3px] border-ink px-3 max-[699px]:h-[47px]">
      <Link
        href="/"
        className="flex items-center gap-2 text-[18px] font-bold"
        aria-label="Dianome, all sites"
      >
        <Logo /> <span className="hidden min-[900px]:inline">Dianome</span>
      </Link>
      <h1 className="min-w-0 truncate font-bold max-[699px]:flex-1">{siteOf(plan).name}</h1>
      <p
        className={`mono text-[13px] whitespace-nowrap ${trouble ? 'border-2 border-stop px-1 text-stop' : 'text-muted'}`}
        role="status"
      >
        <span className="max-[699px]:hidden">change {revision} </span>
        {conflicts.length > 0 ? 'conflict' : saveWords[saving]}
      </p>
      <p
        className="min-w-0 flex-1 truncate text-[14px] text-muted max-[899px]:invisible max-[699px]:hidden"
        title={lastChange}
        data-testid="last-change"
      >
        {lastChange}
      </p>
      <div className="max-[699px]:hidden">
        <FindBox inputRef={findRef} />
      </div>
      <button type="button" className="flex items-center gap-1" onClick={() => void session.undo('undo')}>
        <span className="key" aria-hidden="true">
          u
        </span>
        undo
      </button>
      <button type="button" className="flex items-center gap-1" onClick={() => void session.undo('redo')}>
        <span className="key" aria-hidden="true">
          U
        </span>
        redo
      </button>
      <ThemeSwitch />
      <button type="button" className="key max-[699px]:hidden" aria-label="Keys" onClick={onKeys}>
        ?
      </button>
    </header>
  );
}
