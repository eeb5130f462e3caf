'use client';

import { formatAddress } from '@/core/address';
import { type Plan, hostOf } from '@/core/plan';
import { radiusOf } from '@/core/model/guards';
import { waysToServers } from '@/core/rehearse';
import { today } from '@/today';
import { useSession } from '../../session/context';
import { ColumnHeads } from '../../parts/column-heads';
import { Fold } from '../../parts/fold';
import { Form, FormChoice, FormLine, useTypedForm } from '../../parts/form';
import { RecordField } from '../../parts/record-field';
import { purposeWords } from './words';

/** The servers, with the way of each asking box to each of them. */
export function Servers({ plan }: { plan: Plan }) {
  const session = useSession();
  const servers = radiusOf(plan);
  const form = useTypedForm(
    { address: '', group: '' },
    ({ address, group }) => void session.perform({ operation: 'addRadius', input: { address, group } }),
  );
  const candidates = [...plan.address.values()]
    .map((address) => ({ address, device: hostOf(plan, address).device }))
    .filter(({ device }) => device.kind === 'server' || device.kind === 'gateway')
    .map(({ address, device }) => ({
      value: address.id,
      label: `${device.name} ${formatAddress(address.address)}`,
    }));
  return (
    <section aria-label="Authentication servers" className="pt-5">
      <h3 className="border-b-2 border-ink font-bold">Whom they ask</h3>
      {servers.map((server) => {
        const { device } = hostOf(plan, plan.address.get(server.address)!);
        return (
          <Fold
            key={server.id}
            id="server"
            title={device.name}
            told={`UDP ${server.port}, ${server.tries} × ${server.timeout} s`}
          >
            <div className="grid max-w-[760px] gap-x-6 min-[900px]:grid-cols-2">
              <div>
                {(['port', 'accounting', 'change', 'group'] as const).map((name) => (
                  <RecordField key={name} table="radius" record={server} field={name} of={device.name} />
                ))}
              </div>
              <div>
                {(['timeout', 'tries', 'dead', 'tester', 'secretSet', 'secretKept'] as const).map((name) => (
                  <RecordField key={name} table="radius" record={server} field={name} of={device.name} />
                ))}
                <button
                  type="button"
                  className="button mt-2"
                  onClick={() =>
                    session.perform({
                      operation: 'removeFromAccess',
                      input: { table: 'radius', ids: [server.id] },
                    })
                  }
                >
                  Ask {device.name} no longer
                </button>
              </div>
            </div>
          </Fold>
        );
      })}
      <WaysToServers plan={plan} />
      <Form form={form} label="New server">
        <FormChoice name="address" label="Server" options={candidates} width={260} />
        <FormLine name="group" label="Group" placeholder="none" width={120} />
        <button type="submit" className="button">
          Ask it
        </button>
      </Form>
    </section>
  );
}

function WaysToServers({ plan }: { plan: Plan }) {
  const ways = waysToServers(plan, today());
  if (ways.length === 0) return null;
  return (
    <table className="schedule mt-2 text-[14px]" aria-label="The way to the servers">
      <ColumnHeads columns={['Box', 'Server', 'For', 'UDP', 'There and back']} />
      <tbody>
        {ways.map(({ access, box, server, name, purpose, port, why }) => (
          <tr key={`${access} ${box} ${server.id} ${purpose}`}>
            <td className="mono whitespace-nowrap">{plan.device.get(box)!.name}</td>
            <td className="mono">{name}</td>
            <td>{purposeWords[purpose]}</td>
            <td className="mono">{port}</td>
            <td className={why === null ? '' : 'text-stop'}>{why ?? 'passes'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
