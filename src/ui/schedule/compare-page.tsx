'use client';

import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import { routes } from '@/contract';
import { type ComparedKind, type Plan, badInput, compared, decodePlan, groupBy, siteOf } from '@/core/plan';
import { today } from '@/today';
import { Choice } from '../parts/choice';
import { counted } from '../parts/counted';
import { Field } from '../parts/field';
import { ask } from '../session/api';
import { Paper } from './paper';
import { SheetTable } from './sheet-table';

interface Side {
  readonly site: string;
  /** Null for the newest. */
  readonly at: number | null;
}
interface Read {
  readonly plan: Plan;
  readonly revision: number;
}
const read = async ({ site, at }: Side): Promise<Read> => {
  const query = at === null ? {} : { at };
  const { plan, revision } = await ask(routes.sites.plan, { site, query });
  return { plan: decodePlan(plan), revision };
};
const numberIn = (text: string | null): number | null =>
  text !== null && /^\d{1,9}$/.test(text) ? Number(text) : null;

/** A change by its number; nothing for the newest. Throws a Refusal. */
function changeTyped(text: string): string {
  const typed = text.trim();
  if (typed !== '' && numberIn(typed) === null)
    throw badInput(`“${typed}” is no number of a change; write one like 12, or nothing for now.`, 'change');
  return typed;
}

/** Two plans side by side: earlier and now, what was built and what is planned, this site and another. */
export function ComparePage({ siteId }: { siteId: string }) {
  const router = useRouter();
  const query = useSearchParams();
  const [from, to] = [numberIn(query.get('from')), numberIn(query.get('to'))];
  const other = query.get('with') ?? siteId;
  const [sites, setSites] = useState<readonly { id: string; name: string }[]>([]);
  const [loaded, setLoaded] = useState<{ readonly key: string; readonly sides: [Read, Read] } | null>(null);
  const [problem, setProblem] = useState('');
  const key = `${from} ${to} ${other}`;
  useEffect(() => {
    let stale = false;
    Promise.all([read({ site: siteId, at: from }), read({ site: other, at: to })])
      .then((sides) => {
        if (stale) return;
        setProblem('');
        setLoaded({ key, sides });
      })
      .catch((error: Error) => !stale && setProblem(error.message));
    return () => {
      stale = true;
    };
  }, [siteId, from, to, other, key]);
  useEffect(() => {
    ask(routes.sites.list, { query: {} })
      .then((found) => setSites(found.sites))
      .catch(() => setSites([]));
  }, []);
  const go = (set: Readonly<Record<string, string>>) => {
    const next = new URLSearchParams(query);
    for (const [name, value] of Object.entries(set))
      if (value === '') next.delete(name);
      else next.set(name, value);
    router.replace(`/site/${siteId}/compare?${next}`);
  };
  const [before, after] = loaded?.sides ?? [];
  const known = sites.some(({ id }) => id === other) ? sites : [...sites, { id: other, name: 'that site' }];
  return (
    <Paper
      siteId={siteId}
      title={before ? titleOf(before, after!, other === siteId) : 'Two plans compared'}
      revision={after?.revision ?? 0}
      today={today()}
      from="history"
    >
      <div className="no-print flex flex-wrap items-end gap-x-3 gap-y-1 pt-3">
        <span>Change</span>
        <span className="w-[90px] border-b border-ink">
          <Field
            label="The first change"
            mono
            placeholder="now"
            value={from === null ? '' : String(from)}
            onCommit={(text) => go({ from: changeTyped(text) })}
          />
        </span>
        <span>against change</span>
        <span className="w-[90px] border-b border-ink">
          <Field
            label="The second change"
            mono
            placeholder="now"
            value={to === null ? '' : String(to)}
            onCommit={(text) => go({ to: changeTyped(text) })}
          />
        </span>
        <span>of</span>
        <span className="w-[280px] border-b border-ink">
          <Choice
            label="The second site"
            value={other}
            options={known.map(({ id, name }) => ({
              value: id,
              label: id === siteId ? 'this site' : name,
            }))}
            onChoose={(id) => go({ with: id === siteId ? '' : id, to: '' })}
          />
        </span>
      </div>
      {problem && <p role="alert">{problem}</p>}
      {loaded?.key !== key && !problem && <p role="status">Reading both plans…</p>}
      {before && after && loaded?.key === key && <Kinds kinds={compared(before.plan, after.plan)} />}
    </Paper>
  );
}

const titleOf = (before: Read, after: Read, same: boolean): string =>
  same
    ? `${siteOf(before.plan).name}: change ${before.revision} against change ${after.revision}`
    : `${siteOf(before.plan).name} against ${siteOf(after.plan).name}`;

function Kinds({ kinds }: { kinds: readonly ComparedKind[] }) {
  if (kinds.length === 0)
    return (
      <p role="status" className="pt-4">
        The two are alike.
      </p>
    );
  return kinds.map(({ table, word, added, removed, changed }) => (
    <section key={table} className="pt-4" aria-label={capital(word)}>
      <h2 className="text-[16px] font-bold">{capital(word)}</h2>
      <Names told={counted(added.length, 'new one', 'new ones')} names={added} />
      <Names told={counted(removed.length, 'one less', 'fewer')} names={removed} />
      {changed.length > 0 && (
        <SheetTable label={`${capital(word)}: what is otherwise`}>
          <thead>
            <tr>
              {['What', 'Field', 'First', 'Second'].map((head) => (
                <th key={head} scope="col">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {[...groupBy(changed, ({ id }) => id).values()].flatMap((own) =>
              own.map(({ id, what, field, before, after }, at) => (
                <tr key={`${id} ${field}`} className="break-inside-avoid">
                  {at === 0 && (
                    <th scope="rowgroup" rowSpan={own.length} className="text-left align-top">
                      {what}
                    </th>
                  )}
                  <td>{field}</td>
                  <td className="mono">{before}</td>
                  <td className="mono">{after}</td>
                </tr>
              )),
            )}
          </tbody>
        </SheetTable>
      )}
    </section>
  ));
}

function Names({ told, names }: { told: string; names: readonly string[] }) {
  if (names.length === 0) return null;
  return (
    <p className="py-0.5">
      <strong>{told}:</strong> {names.join(', ')}
    </p>
  );
}

const capital = (word: string): string => word.charAt(0).toUpperCase() + word.slice(1);
