'use client';

import { type FormEvent, useMemo, useState } from 'react';
import { siteOf, type Plan } from '@/core/plan';
import { startFor, starts } from '@/core/edit';
import { zonesOf } from '@/core/model/policy';
import { problemOf } from '../../session/attempt';
import { usePlan, useSession } from '../../session/context';
import { useView } from '../../session/view';
import { useCommands } from '../../shell/commands';
import { OneOf } from '../../parts/one-of';
import { Problem } from '../../parts/problem';
import { StationHead } from '../../parts/station-head';
import { Matrix } from './matrix';
import { OwnServices } from './own-services';
import { RulesTable } from './rules-table';

type Decision = 'allow' | 'deny' | 'usual';
const brushes: readonly (readonly [Decision, string, string])[] = [
  ['allow', 'Allow', 'a'],
  ['deny', 'Deny', 'd'],
  ['usual', 'As usual', 'r'],
];

/** Zones and what passes between them; rules above that. */
export function PolicyStation() {
  const plan = usePlan();
  const zones = zonesOf(plan);
  return (
    <>
      <StationHead title="Who may talk" about="what passes between zones, and rules above that">
        {zones.length > 0 && <AddZone />}
      </StationHead>
      {zones.length === 0 ? <Starts plan={plan} /> : <Decide plan={plan} />}
      <RulesTable plan={plan} />
      <OwnServices plan={plan} />
    </>
  );
}

function Decide({ plan }: { plan: Plan }) {
  const session = useSession();
  const { pairs, set } = useView();
  const [brush, setBrush] = useState<Decision | null>(null);
  const [problem, setProblem] = useState('');
  const decide = useMemo(
    () => (decision: Decision, on: typeof pairs) =>
      setProblem(
        problemOf(() => session.perform({ operation: 'decidePairs', input: { pairs: on, decision } })),
      ),
    [session],
  );
  const commands = useMemo(
    () => [
      ...brushes.map(([decision, label, key]) => ({
        key,
        name: `on chosen cells of the matrix: ${label.toLowerCase()}`,
        run: () => {
          if (pairs.length > 0) decide(decision, pairs);
        },
      })),
      {
        key: 's',
        name: 'on chosen cells of the matrix: only services',
        run: () => document.getElementById('pair-services')?.focus(),
      },
      {
        key: 'Escape',
        name: 'choose no cell',
        run: () => {
          setBrush(null);
          set({ pairs: [], zone: null, rule: null });
        },
      },
    ],
    [pairs, decide, set],
  );
  useCommands(commands);
  return (
    <section aria-label="Matrix" className="mb-6">
      <div className="mb-2 flex flex-wrap items-center gap-2 text-[14px]">
        <span className="text-muted">paint with</span>
        <OneOf
          label="Brush"
          look="buttons"
          value={brush}
          of={brushes.map(([decision, label, key]) => ({
            value: decision,
            shown: (
              <>
                {label} <span className="key">{key}</span>
              </>
            ),
          }))}
          onChoose={setBrush}
          onClear={() => setBrush(null)}
        />
        <span className="text-muted">
          {brush
            ? 'drag over cells; Esc puts the brush down'
            : 'or choose cells and press the key; services with s'}
        </span>
      </div>
      <Problem text={problem} className="mb-1" />
      <Matrix plan={plan} onPaint={brush ? (on) => decide(brush, on) : null} />
      <p className="pt-2 text-[13px] text-muted">
        arrow: everything passes · gate: nothing · gap: that many services · two lines: as each segment wishes
        · tinted: decided here, the others are as usual · + and a number: rules above decide part of it · →
        and a number: forwards lead in · full corner: the rehearsal lets more pass · open corner: not all of
        it works
      </p>
    </section>
  );
}

/** Where to begin: zones by what segments are for, as they would come out here. */
function Starts({ plan }: { plan: Plan }) {
  const session = useSession();
  const [problem, setProblem] = useState('');
  const own = siteOf(plan).kind;
  return (
    <section aria-label="Starting points" className="mb-6 max-w-[860px]">
      <p className="pb-2">No zones yet. Begin with one of these; everything can be changed afterwards.</p>
      {starts.map((start) => (
        <div key={start.kind} className="border-t-2 border-ink py-2">
          <div className="flex flex-wrap items-center gap-3">
            <b className="flex-1">
              As in {start.name}
              {start.kind === own && <span className="font-normal text-muted">, like this site</span>}
            </b>
            <button
              type="button"
              className={`button ${start.kind === own ? 'button-primary' : ''}`}
              onClick={() =>
                setProblem(
                  problemOf(() => session.perform({ operation: 'startPolicy', input: { kind: start.kind } })),
                )
              }
            >
              Begin with it
            </button>
          </div>
          <p>{start.about}</p>
          <p className="text-[14px] text-muted">
            {startFor(plan, start)
              .map(({ name, segments }) =>
                segments.length === 1 && segments[0] === name ? name : `${name}: ${segments.join(', ')}`,
              )
              .join(' · ')}
          </p>
          <ul className="list-[square] pl-6 text-[14px]">
            {start.cells.map(({ from, to, why }) => (
              <li key={`${from} ${to}`}>
                {from} to {to === 'cells' ? 'machine cells' : to}: {why}
              </li>
            ))}
          </ul>
        </div>
      ))}
      <Problem text={problem} />
    </section>
  );
}

function AddZone() {
  const session = useSession();
  const set = useView((state) => state.set);
  const [name, setName] = useState<string | null>(null);
  const [problem, setProblem] = useState('');
  if (name === null)
    return (
      <button type="button" className="button" onClick={() => setName('')}>
        Add zone
      </button>
    );
  const add = (event: FormEvent) => {
    event.preventDefault();
    const found = problemOf(() => {
      const change = session.perform({ operation: 'addZone', input: { name } });
      set({ zone: change.steps[0]!.id, pairs: [], rule: null });
    });
    setProblem(found);
    if (!found) setName(null);
  };
  return (
    <form onSubmit={add} className="flex flex-wrap items-center gap-2">
      <input
        className="field field-line w-[160px]!"
        aria-label="Name of the new zone"
        placeholder="visitors"
        value={name}
        autoFocus
        onChange={(event) => setName(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && setName(null)}
      />
      <button type="submit" className="button button-primary">
        Add
      </button>
      <Problem text={problem} className="w-full" />
    </form>
  );
}
