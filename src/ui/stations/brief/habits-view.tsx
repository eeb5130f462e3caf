'use client';

import type { ReactNode } from 'react';
import { formatPrefix, parsePrefix } from '@/core/address';
import { toWire, siteOf, SITE_ID, type Site, siteKinds } from '@/core/plan';
import { useEdit, wholeNumber } from '../../session/actions';
import { usePlan } from '../../session/context';
import { Choice } from '../../parts/choice';
import { Field } from '../../parts/field';
import { Form, FormLine, useTypedForm } from '../../parts/form';
import { schools } from './schools';

/** What the site is called, its address space and its habits. Everything that is proposed follows them. */
export function HabitsView() {
  const plan = usePlan();
  const site = siteOf(plan);
  const wire = toWire('site', site);
  const edit = useEdit();
  const set = (field: keyof Site, value: unknown) => edit('site', SITE_ID, field, value, wire[field]);
  const prefixes = (text: string) => {
    const list = text.split(/[,\s]+/).filter(Boolean);
    return list.map((item) => (parsePrefix(item) ? formatPrefix(parsePrefix(item)!.prefix) : item));
  };
  const text = (field: 'name' | 'namingPattern' | 'domain' | 'timeZone', label: string, mono = true) => (
    <Row label={label}>
      <Field
        lined
        mono={mono}
        label={label}
        value={site[field]}
        placeholder="none"
        onCommit={(value) => set(field, value)}
      />
    </Row>
  );
  const number = (field: 'infrastructureBand' | 'fixedBand', label: string, about: string) => (
    <Row label={label} about={about}>
      <Field
        lined
        mono
        label={label}
        value={String(site[field])}
        onCommit={(value) => set(field, wholeNumber(value, label))}
      />
    </Row>
  );
  return (
    <div className="max-w-[860px]">
      {text('name', 'Name of the site', false)}
      <Row label="Kind">
        <Choice
          lined
          label="Kind of site"
          value={site.kind}
          options={siteKinds.map((value) => ({ value, label: value }))}
          onChoose={(value) => set('kind', value)}
        />
      </Row>
      <Row label="Address space" about="prefixes this site numbers its segments from, IPv4 and IPv6">
        <Field
          lined
          mono
          label="Address space"
          value={site.space.map(formatPrefix).join(', ')}
          onCommit={(value) => set('space', prefixes(value))}
        />
      </Row>
      {schools.map((school) => (
        <Row
          key={school.field}
          label={school.question}
          about={school.options.find((option) => option.value === site[school.field])?.cost}
        >
          <Choice
            lined
            label={school.question}
            value={String(site[school.field])}
            options={school.options}
            onChoose={(value) => set(school.field, school.read ? school.read(value) : value)}
          />
        </Row>
      ))}
      {number(
        'infrastructureBand',
        'Infrastructure band',
        'host numbers from 1 for switches, access points and gateways',
      )}
      {number('fixedBand', 'Fixed band', 'the next host numbers, for fixed addresses; the pool follows')}
      {text('namingPattern', 'Naming pattern')}
      {text('domain', 'Domain')}
      {text('timeZone', 'Time zone')}
      <ForeignNetworks site={site} onSet={(value) => set('foreign', value)} />
      <Row label="Notes">
        <Field lined multiline label="Notes" value={site.notes} onCommit={(value) => set('notes', value)} />
      </Row>
    </div>
  );
}

function Row({ label, about, children }: { label: string; about?: string | undefined; children: ReactNode }) {
  return (
    <div className="grid grid-cols-[12rem_minmax(0,1fr)] items-start gap-x-3 border-b border-rule py-1 max-[699px]:grid-cols-1">
      <span className="pt-1 font-bold">{label}</span>
      <div>
        {children}
        {about && <p className="text-[14px] text-muted">{about}</p>}
      </div>
    </div>
  );
}

/** Networks of others that must not be used here: the provider's box, a partner's tunnel, a machine's fixed range. */
function ForeignNetworks({ site, onSet }: { site: Site; onSet: (value: unknown) => void }) {
  const wire = toWire('site', site).foreign as { prefix: string; why: string }[];
  const form = useTypedForm(
    { prefix: '', why: '' },
    ({ prefix, why }) => {
      const parsed = parsePrefix(prefix);
      onSet([...wire, { prefix: parsed ? formatPrefix(parsed.prefix) : prefix, why }]);
    },
    { clear: ['prefix', 'why'] },
  );
  return (
    <Row label="Foreign networks" about="networks of others that this site must not collide with">
      <ul>
        {wire.map((network, i) => (
          <li key={i} className="flex items-center gap-3 border-b border-rule">
            <span className="mono">{network.prefix}</span>
            <span className="flex-1">{network.why}</span>
            <button
              type="button"
              className="link"
              aria-label={`Remove ${network.prefix}`}
              onClick={() => onSet(wire.filter((_, at) => at !== i))}
            >
              remove
            </button>
          </li>
        ))}
      </ul>
      <Form form={form}>
        <FormLine mono name="prefix" label="Foreign prefix" placeholder="192.168.178.0/24" width={190} />
        <FormLine name="why" label="Whose network" placeholder="whose it is" width={260} />
        <button type="submit" className="button">
          Add
        </button>
      </Form>
    </Row>
  );
}
