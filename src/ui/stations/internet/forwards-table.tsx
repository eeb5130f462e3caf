'use client';

import { type FormEvent, useState } from 'react';
import { ColumnHeads } from '../../parts/column-heads';
import { formatAddress, formatPrefix } from '@/core/address';
import { type Plan, type Forward, type Uplink, addressesOn, portsText } from '@/core/plan';
import { cardNamed, forwardsOf, targetOf, knownServiceAt } from '@/core/model/uplink';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Choice } from '../../parts/field';
import { Problem } from '../../parts/problem';
import { HostField } from './host-field';
import { typedForward } from './typed-forward';
import { protocolOptions } from './words';

/** What an uplink lets in, and the line that adds to it. */
export function ForwardsTable({ plan, uplink }: { plan: Plan; uplink: Uplink }) {
  const forwards = forwardsOf(plan, uplink.id);
  return (
    <>
      {forwards.length > 0 && (
        <table className="schedule schedule-cards text-[14px]" aria-label={`Forwards of ${uplink.name}`}>
          <ColumnHeads
            columns={['Outside', 'Leads to', 'Inside', 'Who may come', 'Note']}
            className="max-[699px]:hidden"
          />
          <tbody>
            {forwards.map((forward) => (
              <Row key={forward.id} plan={plan} forward={forward} />
            ))}
          </tbody>
        </table>
      )}
      <AddForward plan={plan} uplink={uplink} />
    </>
  );
}

function Row({ plan, forward }: { plan: Plan; forward: Forward }) {
  const { forward: chosen, set } = useView();
  const target = targetOf(plan, forward);
  const address = addressesOn(plan, forward.target)[0];
  const service = knownServiceAt(forward.protocol, forward.inside);
  return (
    <tr
      data-record={forward.id}
      aria-selected={chosen === forward.id}
      className={`max-[699px]:flex max-[699px]:flex-wrap max-[699px]:gap-x-2 max-[699px]:border-b max-[699px]:border-rule ${chosen === forward.id ? 'bg-chosen' : ''}`}
    >
      <th scope="row" className="text-left">
        <button
          type="button"
          className={`mono min-h-7 w-full px-1 text-left font-bold hover:underline max-[699px]:min-h-11 ${forward.enabled ? '' : 'line-through'}`}
          onClick={() => set({ forward: forward.id, uplink: forward.uplink, finding: null })}
        >
          {portsText(forward.protocol, forward.from, forward.to)}
        </button>
      </th>
      <td>
        <b>{target.name}</b>{' '}
        <span className="mono text-muted">{address ? formatAddress(address.address) : 'no address'}</span>
      </td>
      <td>
        <span className="mono">{forward.inside}</span>
        {service && <span className="text-muted"> {service.name}</span>}
      </td>
      <td className="mono">
        {forward.sources.length === 0 ? 'anybody' : forward.sources.map(formatPrefix).join(', ')}
      </td>
      <td>
        {forward.enabled ? '' : 'switched off. '}
        {forward.note}
      </td>
    </tr>
  );
}

const blank = { target: '', inside: '', outside: '' };

function AddForward({ plan, uplink }: { plan: Plan; uplink: Uplink }) {
  const session = useSession();
  const set = useView((state) => state.set);
  const [typed, setTyped] = useState(blank);
  const [protocol, setProtocol] = useState<Forward['protocol']>('tcp');
  const [problem, setProblem] = useState('');
  const add = (event: FormEvent) => {
    event.preventDefault();
    const found = problemOf(() => {
      const input = {
        uplink: uplink.id,
        target: cardNamed(plan, typed.target).id,
        protocol,
        ...typedForward(typed.outside, typed.inside),
      };
      const change = session.perform({ operation: 'addForward', input });
      set({ uplink: uplink.id, forward: change.steps.find(({ table }) => table === 'forward')!.id });
      setTyped(blank);
    });
    setProblem(found);
  };
  const port = (field: 'inside' | 'outside', label: string, placeholder: string) => (
    <label className="w-[104px] text-[13px]">
      {label}
      <input
        className="field field-line mono"
        value={typed[field]}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(event) => setTyped({ ...typed, [field]: event.target.value })}
      />
    </label>
  );
  return (
    <form
      aria-label={`New forward on ${uplink.name}`}
      className="flex flex-wrap items-end gap-2 py-1"
      onSubmit={add}
    >
      <HostField
        plan={plan}
        label="Let in to"
        value={typed.target}
        onChange={(target) => setTyped({ ...typed, target })}
      />
      <label className="w-[104px] text-[13px]">
        Protocol
        <Choice lined label="Protocol" value={protocol} options={protocolOptions} onChoose={setProtocol} />
      </label>
      {port('inside', 'Inside port', '443')}
      {port('outside', 'Outside port', 'the same')}
      <button type="submit" className="button">
        Let in
      </button>
      <Problem text={problem} className="w-full text-[14px]" />
    </form>
  );
}
