'use client';

import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import { routes } from '@/contract';
import { type Plan, decodePlan } from '@/core/plan';
import { today } from '@/today';
import { ask } from '../session/api';
import { PortSchedulePage } from './port-schedule-page';
import { RuleSchedulePage } from './rule-schedule-page';
import { SchedulePage } from './schedule-page';
import { SettingsPage } from './settings-page';

/** It brings everything that a book can speak of. */
const BookPage = dynamic(() => import('../book/book-page').then((m) => m.BookPage));

const pages = {
  schedule: SchedulePage,
  ports: PortSchedulePage,
  rules: RuleSchedulePage,
  settings: SettingsPage,
  book: BookPage,
};
export type SheetName = keyof typeof pages;

/** What a sheet is made from: the saved plan and the day. */
export interface SheetProps {
  readonly siteId: string;
  readonly plan: Plan;
  readonly revision: number;
  readonly today: string;
}

/** A sheet to print. It is made here, as a long one would keep everybody else of the server waiting. */
export function Sheet({ siteId, name }: { siteId: string; name: SheetName }) {
  const [loaded, setLoaded] = useState<Pick<SheetProps, 'plan' | 'revision'> | null>(null);
  const [problem, setProblem] = useState('');
  useEffect(() => {
    ask(routes.sites.plan, { site: siteId })
      .then(({ revision, plan }) => setLoaded({ revision, plan: decodePlan(plan) }))
      .catch((error: Error) => setProblem(error.message));
  }, [siteId]);
  if (!loaded)
    return (
      <main className="p-6" aria-busy={!problem}>
        <h1 className="text-[22px] font-bold">{problem ? 'There is no sheet' : 'Making the sheet…'}</h1>
        {problem && <p role="alert">{problem} Load the page again.</p>}
      </main>
    );
  const Page = pages[name];
  return <Page siteId={siteId} today={today()} {...loaded} />;
}
