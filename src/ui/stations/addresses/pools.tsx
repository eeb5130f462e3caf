'use client';

import { useWatch } from 'react-hook-form';
import { formatAddress, parseAddress, formatPrefix, countOf, endOf, shortAddress } from '@/core/address';
import { leaseWords } from '@/core/formats';
import {
  type Call,
  type Plan,
  siteOf,
  type Exclusion,
  type Pool,
  type Subnet,
  Refusal,
  badInput,
} from '@/core/plan';
import { interfacesNamed, namesOfInterfaces } from '@/core/model/hosts';
import { dynamicNeed } from '@/core/model/pools';
import { leaseCapacity, usualLeases, bandsOf } from '@/core/model/segments';
import { typedAddress, useEdit, wholeNumber } from '../../session/actions';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { Field } from '../../parts/field';
import { countText } from '../../parts/count-text';
import { Form, FormLine, useTypedForm } from '../../parts/form';

/** Pools and exclusions of a subnet as rows: start and end, or start and count, whichever is known. */
export function Pools({ plan, subnet }: { plan: Plan; subnet: Subnet }) {
  const session = useSession();
  const pools = [...plan.pool.group(subnet.id).values()];
  const exclusions = [...plan.exclusion.group(subnet.id).values()];
  const { need, capacity } = dynamicNeed(plan, subnet);
  return (
    <section aria-label="Pools" className="pb-4">
      <div className="relative overflow-x-auto">
        <table className="schedule max-w-[760px]">
          <thead>
            <tr>
              {['Range', 'Start', 'End', 'Count', 'Leases', 'Lease time', 'Leased by, or why', ''].map(
                (head, i) => (
                  <th key={i} scope="col">
                    {head || <span className="sr-only">Remove</span>}
                  </th>
                ),
              )}
            </tr>
          </thead>
          <tbody>
            {[...pools, ...exclusions].map((range) => (
              <RangeRow key={range.id} plan={plan} subnet={subnet} range={range} />
            ))}
            {pools.length + exclusions.length === 0 && (
              <tr>
                <td colSpan={8} className="px-1 text-muted">
                  No pool: nothing is leased here.
                </td>
              </tr>
            )}
          </tbody>
        </table>
      </div>
      <p className="mono py-1 text-[14px]">
        need {need.text}
        {pools.length > 0 &&
          `; ${capacity >= need.total ? 'held by' : 'but only'} ${countText(capacity)} leases`}
      </p>
      <AddRange plan={plan} subnet={subnet} onAdd={(call) => session.perform(call)} />
    </section>
  );
}

const isPool = (range: Pool | Exclusion): range is Pool => 'lease' in range;

function RangeRow({ plan, subnet, range }: { plan: Plan; subnet: Subnet; range: Pool | Exclusion }) {
  const edit = useEdit();
  const session = useSession();
  const pool = isPool(range);
  const table = pool ? 'pool' : 'exclusion';
  const word = pool ? 'Pool' : 'Exclusion';
  const end = (side: 'start' | 'end') => (
    <Field
      mono
      label={`${word} ${side}`}
      value={shortAddress(range[side], subnet.prefix)}
      onCommit={(text) => edit(table, range.id, side, typedAddress(text, subnet), formatAddress(range[side]))}
    />
  );
  const leases = [...new Set([...usualLeases, ...(pool ? [range.lease] : [])])].sort((a, b) => b - a);
  return (
    <tr data-record={range.id}>
      <th scope="row" className="px-1 text-left">
        {word}
      </th>
      <td className="w-[120px]">{end('start')}</td>
      <td className="w-[120px]">{end('end')}</td>
      <td className="w-[80px]">
        <Field
          mono
          label={`${word} count`}
          value={String(countOf(range))}
          onCommit={(text) => {
            const count = wholeNumber(text, 'The count');
            if (count < 1)
              throw new Refusal('bad-input', 'The count is 0; write at least 1, or remove the range.');
            edit(table, range.id, 'end', formatAddress(endOf(range.start, count)), formatAddress(range.end));
          }}
        />
      </td>
      <td className="mono px-1">{pool ? countText(leaseCapacity(plan, subnet, range)) : ''}</td>
      <td>
        {pool && (
          <Choice
            label="Lease time"
            value={String(range.lease)}
            options={leases.map((lease) => ({ value: String(lease), label: leaseWords(lease) }))}
            onChoose={(value) => edit('pool', range.id, 'lease', Number(value), range.lease)}
          />
        )}
      </td>
      <td>
        {pool && (
          <Field
            mono
            label="Leased by"
            value={namesOfInterfaces(plan, range.servedBy)}
            placeholder="nobody"
            onCommit={(text) =>
              edit(
                'pool',
                range.id,
                'servedBy',
                interfacesNamed(plan, /^nobody$/i.test(text) ? '' : text, subnet.vlan, range.servedBy),
                range.servedBy,
              )
            }
          />
        )}
        {!pool && (
          <Field
            label="Reason of the exclusion"
            value={range.why}
            placeholder="why"
            onCommit={(text, seen) => edit('exclusion', range.id, 'why', text, seen)}
          />
        )}
      </td>
      <td>
        <button
          type="button"
          className="link"
          aria-label={`Remove ${word.toLowerCase()} ${formatAddress(range.start)}`}
          onClick={() => session.perform({ operation: 'removeRange', input: { table, id: range.id } })}
        >
          remove
        </button>
      </td>
    </tr>
  );
}

/** The pool calculator: two of start, end and count give the third, both ends counted. */
function AddRange({ plan, subnet, onAdd }: { plan: Plan; subnet: Subnet; onAdd: (call: Call) => void }) {
  const band = bandsOf(siteOf(plan), subnet.prefix).pool;
  const read = ({ start, end, count }: typeof noRange) => {
    const from = parseAddress(typedAddress(start, subnet)) ?? (start === '' ? (band?.start ?? null) : null);
    const given = /^\d+$/.test(count.trim()) ? Number(count) : null;
    const until =
      end !== ''
        ? parseAddress(typedAddress(end, subnet))
        : from !== null && given
          ? endOf(from, given)
          : null;
    return { from, until };
  };
  const add = (operation: 'addPool' | 'addExclusion') => (typed: typeof noRange) => {
    const { from, until } = read(typed);
    if (from === null)
      throw badInput(
        `The start “${typed.start}” is not an address in ${formatPrefix(subnet.prefix)}; write .100 or the whole address.`,
        'start',
      );
    if (until === null) throw badInput('Write the end or the count; the other one follows.', 'end');
    onAdd({
      operation,
      input: { subnet: subnet.id, start: formatAddress(from), end: formatAddress(until) },
    });
  };
  const form = useTypedForm(noRange, add('addPool'), { clear: ['start', 'end', 'count'] });
  const { control, setValue } = form.form;
  const [start, end, count] = useWatch({ control, name: ['start', 'end', 'count'] });
  const { from, until } = read({ start, end, count });
  const known = from !== null && until !== null && typeof from === typeof until && from <= until;
  return (
    <Form form={form} label="New range">
      <FormLine
        mono
        name="start"
        label="Start"
        placeholder={band ? shortAddress(band.start, subnet.prefix) : ''}
        width={110}
      />
      <FormLine
        mono
        name="end"
        label="End"
        placeholder={until !== null && end === '' ? shortAddress(until, subnet.prefix) : ''}
        width={110}
        onType={() => setValue('count', '')}
      />
      <FormLine
        mono
        name="count"
        label="or count"
        placeholder={known && count === '' ? String(countOf({ start: from, end: until })) : ''}
        width={110}
        onType={() => setValue('end', '')}
      />
      <button type="submit" className="button">
        Add pool
      </button>
      <button type="button" className="button" onClick={() => form.submit(add('addExclusion'))}>
        Exclude
      </button>
      {known && (
        <span className="mono text-[14px]" data-testid="range-sum">
          {formatAddress(from)} – {formatAddress(until)} = {countText(countOf({ start: from, end: until }))}
        </span>
      )}
    </Form>
  );
}
const noRange = { start: '', end: '', count: '' };
