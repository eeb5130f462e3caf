'use client';

import { ColumnHeads } from '../../parts/column-heads';
import { formatAddress, formatPrefix } from '@/core/address';
import { type Plan, type Forward, type Uplink, addressesOn, portsText } from '@/core/plan';
import { cardNamed, forwardsOf, targetOf, knownServiceAt } from '@/core/model/uplink';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Form, FormChoice, FormLine, useTypedForm } from '../../parts/form';
import { useHostNames } from './host-names';
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
          className={`mono min-h-7 w-full px-1 text-left font-bold hover:underline max-[699px]:min-h-touch ${forward.enabled ? '' : 'line-through'}`}
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

function AddForward({ plan, uplink }: { plan: Plan; uplink: Uplink }) {
  const session = useSession();
  const set = useView((state) => state.set);
  const hosts = useHostNames(plan);
  const form = useTypedForm(
    { target: '', protocol: 'tcp' as Forward['protocol'], inside: '', from: '' },
    ({ target, protocol, inside, from }) => {
      const input = {
        uplink: uplink.id,
        target: cardNamed(plan, target).id,
        protocol,
        ...typedForward(from, inside),
      };
      const change = session.perform({ operation: 'addForward', input });
      set({ uplink: uplink.id, forward: change.steps.find(({ table }) => table === 'forward')!.id });
    },
    { clear: ['target', 'inside', 'from'] },
  );
  return (
    <Form form={form} label={`New forward on ${uplink.name}`}>
      <FormLine name="target" label="Let in to" placeholder="host name" known={hosts} width={170} />
      <FormChoice name="protocol" label="Protocol" options={protocolOptions} width={104} />
      <FormLine mono name="inside" label="Inside port" placeholder="443" width={104} />
      <FormLine mono name="from" label="Outside port" placeholder="the same" width={104} />
      <button type="submit" className="button">
        Let in
      </button>
    </Form>
  );
}
