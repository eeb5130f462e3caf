'use client';

import { type Plan, type Rule, routersOf } from '@/core/plan';
import {
  serviceNames,
  partiesLine,
  requireWritten,
  typedParties,
  typedServices,
  ruleText,
} from '@/core/model/policy';
import { orNone, useEdit } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { Field } from '../../parts/field';
import { RecordField } from '../../parts/record-field';
import { Property } from '../../parts/property';
import { wireParties } from './rules-table';

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
        onCommit={(text) => {
          if (rule.action === 'allow') requireWritten(text, 'anybody', field);
          change(field, wireParties(typedParties(plan, text)), wireParties(rule[field]));
        }}
      />
    </Property>
  );
  return (
    <section aria-label="Chosen rule" className="pb-4">
      <h2 className="font-bold">{ruleText(plan, rule)}</h2>
      <RecordField table="rule" record={rule} field="action" of="the rule" />
      {parties('From', 'from')}
      {parties('To', 'to')}
      <Property label="Services">
        <Field
          label="Services of the rule"
          value={rule.services.length === 0 ? '' : serviceNames(plan, rule.services)}
          placeholder="everything"
          onCommit={(text) => {
            if (rule.action === 'allow') requireWritten(text, 'everything', 'services');
            change('services', typedServices(plan, text), rule.services);
          }}
        />
      </Property>
      <Property label="Last day">
        <Field
          mono
          label="Last day of the rule"
          value={rule.until ?? ''}
          placeholder="for good, or 2026-12-31"
          onCommit={(text) => {
            if (rule.action === 'allow') requireWritten(text, 'for good', 'until');
            change('until', orNone(text, String, 'for good'), rule.until);
          }}
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
      <RecordField table="rule" record={rule} field="note" of="the rule" placeholder="why" />
      <RecordField table="rule" record={rule} field="enabled" />
      <RecordField table="rule" record={rule} field="log" />
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
