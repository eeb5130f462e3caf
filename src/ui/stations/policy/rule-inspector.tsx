'use client';

import { type Plan, type Rule, routersOf } from '@/core/plan';
import { serviceNames, partiesLine, typedParties, typedServices, ruleText } from '@/core/model/policy';
import { useEdit } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Choice, Field } from '../../parts/field';
import { Property, Toggle } from '../../parts/property';
import { actionOptions, wireParties } from './rules-table';

/** A rule: who, whom, which services, until when, and which box sees to it. */
export function RuleInspector({ plan, rule }: { plan: Plan; rule: Rule }) {
  const session = useSession();
  const edit = useEdit();
  const set = useView((state) => state.set);
  const change = (field: keyof Rule, value: unknown, seen?: unknown) =>
    edit('rule', rule.id, field, value, seen);
  const parties = (label: string, field: 'from' | 'to') => (
    <Property label={label}>
      <Field
        label={`Rule ${field}`}
        value={partiesLine(plan, rule[field])}
        placeholder="anybody"
        onCommit={(text) => change(field, wireParties(typedParties(plan, text)), wireParties(rule[field]))}
      />
    </Property>
  );
  return (
    <section aria-label="Chosen rule" className="pb-4">
      <h2 className="font-bold">{ruleText(plan, rule)}</h2>
      <Property label="Does">
        <Choice
          label="Action of the rule"
          value={rule.action}
          options={actionOptions}
          onChoose={(value) => change('action', value, rule.action)}
        />
      </Property>
      {parties('From', 'from')}
      {parties('To', 'to')}
      <Property label="Services">
        <Field
          label="Services of the rule"
          value={rule.services.length === 0 ? '' : serviceNames(plan, rule.services)}
          placeholder="everything"
          onCommit={(text) => change('services', typedServices(plan, text), rule.services)}
        />
      </Property>
      <Property label="Until">
        <Field
          mono
          label="Last day of the rule"
          value={rule.until ?? ''}
          placeholder="for good, or 2026-12-31"
          onCommit={(text) => change('until', text === '' ? null : text, rule.until)}
        />
      </Property>
      <Property label="Seen to by">
        <Choice
          label="Box that enforces the rule"
          value={rule.device ?? ''}
          options={[
            { value: '', label: 'who routes the pair' },
            ...routersOf(plan).map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChoose={(device) =>
            session.perform({ operation: 'setRuleDevice', input: { rule: rule.id, device: device || null } })
          }
        />
      </Property>
      <Property label="Note">
        <Field
          label="Note on the rule"
          value={rule.note}
          placeholder="why"
          onCommit={(text, seen) => change('note', text, seen)}
        />
      </Property>
      <Toggle
        label="switched on"
        checked={rule.enabled}
        onChange={(on) => change('enabled', on, rule.enabled)}
      />
      <Toggle label="written to the log" checked={rule.log} onChange={(on) => change('log', on, rule.log)} />
      <button
        type="button"
        className="button mt-2"
        onClick={() => {
          session.perform({ operation: 'removeRule', input: { rule: rule.id } });
          set({ rule: null });
        }}
      >
        Remove the rule
      </button>
    </section>
  );
}
