'use client';

import { type KeyboardEvent, useMemo, useRef } from 'react';
import { type Plan, type Rule, type Party, badInput } from '@/core/plan';
import { rulesOf, serviceNames, typedParties, typedServices, partiesText } from '@/core/model/policy';
import { formatPrefix } from '@/core/address';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { useCommands } from '../../shell/commands';
import { Form, FormChoice, FormLine, useTypedForm } from '../../parts/form';
import { SortableRows, useSortableRow } from '../../parts/sortable-rows';
import { usePartyNames, useServiceNames } from './party-names';

export const actionOptions = [
  { value: 'allow', label: 'allow' },
  { value: 'deny', label: 'deny' },
] as const;

/** Parties as an operation takes them. */
export const wireParties = (parties: readonly Party[]) =>
  parties.map((party) => ('prefix' in party ? { prefix: formatPrefix(party.prefix) } : party));

/** Rules above the matrix, the first that speaks of something decides it. Order by drag, or Alt and the arrow keys. */
export function RulesTable({ plan }: { plan: Plan }) {
  const session = useSession();
  const rules = rulesOf(plan);
  const first = useRef<HTMLDivElement>(null);
  const commands = useMemo(
    () => [
      { key: '+', name: 'add a rule', run: () => first.current?.querySelector('input')?.focus() },
      { key: 'Alt ↑ ↓', name: 'on a rule: move it up or down', run: null },
    ],
    [],
  );
  useCommands(commands);
  const move = (rule: string, before: string | null) =>
    session.perform({ operation: 'moveRule', input: { rule, before } });
  const onKeyDown = (event: KeyboardEvent, rule: Rule, at: number) => {
    if (!event.altKey || (event.key !== 'ArrowUp' && event.key !== 'ArrowDown')) return;
    event.preventDefault();
    if (event.key === 'ArrowUp' && at > 0) move(rule.id, rules[at - 1]!.id);
    if (event.key === 'ArrowDown' && at < rules.length - 1) move(rule.id, rules[at + 2]?.id ?? null);
  };
  return (
    <section aria-label="Rules" className="mb-6">
      <h3 className="font-bold">Rules above the matrix, from the top</h3>
      {rules.length > 0 && (
        <SortableRows
          ids={rules.map(({ id }) => id)}
          nameOf={(id) => `rule ${rules.findIndex((rule) => rule.id === id) + 1}`}
          onMove={(id, to) => {
            const others = rules.filter((rule) => rule.id !== id);
            move(id, others[to]?.id ?? null);
          }}
        >
          <table className="schedule text-[14px]" aria-label="Rules from the top">
            <thead>
              <tr>
                {['', 'Does', 'From', 'To', 'Services', 'Until', 'Note'].map((head, i) => (
                  <th key={i} scope="col">
                    {head || <span className="sr-only">Place</span>}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rules.map((rule, at) => (
                <RuleRow
                  key={rule.id}
                  plan={plan}
                  rule={rule}
                  at={at}
                  onKeyDown={(event) => onKeyDown(event, rule, at)}
                />
              ))}
            </tbody>
          </table>
        </SortableRows>
      )}
      <div ref={first}>
        <AddRule plan={plan} />
      </div>
    </section>
  );
}

function AddRule({ plan }: { plan: Plan }) {
  const session = useSession();
  const set = useView((state) => state.set);
  const parties = usePartyNames(plan);
  const services = useServiceNames(plan);
  const form = useTypedForm(
    { action: 'allow' as Rule['action'], from: '', to: '', services: '', note: '' },
    ({ action, from, to, services: named, note }) => {
      // Left empty, each means all; all three at once is what a slip of Enter would give.
      if (action === 'allow' && [from, to, named].every((text) => text.trim() === ''))
        throw badInput(
          'Nothing is written, and that would allow everybody everything; write who, or “anybody”.',
          'from',
        );
      const input = {
        action,
        from: wireParties(typedParties(plan, from)),
        to: wireParties(typedParties(plan, to)),
        services: typedServices(plan, named),
        note,
      };
      const change = session.perform({ operation: 'addRule', input });
      set({ rule: change.steps[0]!.id, pairs: [], zone: null });
    },
    { clear: ['from', 'to', 'services', 'note'] },
  );
  return (
    <Form form={form} label="New rule">
      <FormChoice name="action" label="What the rule does" options={actionOptions} width={130} />
      <FormLine name="from" label="From" placeholder="anybody" known={parties} />
      <FormLine name="to" label="To" placeholder="anybody" known={parties} />
      <FormLine name="services" label="Services" placeholder="everything" known={services} />
      <FormLine name="note" label="Note" placeholder="why" />
      <button type="submit" className="button">
        Add rule <span className="key">+</span>
      </button>
    </Form>
  );
}

function RuleRow({
  plan,
  rule,
  at,
  onKeyDown,
}: {
  plan: Plan;
  rule: Rule;
  at: number;
  onKeyDown: (event: KeyboardEvent) => void;
}) {
  const { rule: chosen, set } = useView();
  const { setNodeRef, style, handle } = useSortableRow(rule.id);
  return (
    <tr
      ref={setNodeRef}
      style={style}
      data-record={rule.id}
      aria-selected={chosen === rule.id}
      className={`${chosen === rule.id ? 'bg-chosen' : 'bg-sheet'} ${rule.enabled ? '' : 'text-muted line-through'}`}
      onClick={() => set({ rule: rule.id, pairs: [], zone: null, finding: null })}
    >
      <th scope="row" className="w-14">
        <span className="flex items-center">
          {handle(`rule ${at + 1}`)}
          <button
            type="button"
            className="mono min-h-7 min-w-6 max-[699px]:min-h-touch max-[699px]:min-w-touch px-1 font-bold hover:underline"
            aria-label={`Rule ${at + 1}`}
            onKeyDown={onKeyDown}
          >
            {at + 1}
          </button>
        </span>
      </th>
      <td className="font-bold">{rule.action}</td>
      <td>{partiesText(plan, rule.from)}</td>
      <td>{partiesText(plan, rule.to)}</td>
      <td>{rule.services.length === 0 ? 'everything' : serviceNames(plan, rule.services)}</td>
      <td className="mono">{rule.until ?? ''}</td>
      <td>{rule.note}</td>
    </tr>
  );
}
