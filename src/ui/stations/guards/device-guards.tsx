'use client';

import type { Device, Plan } from '@/core/plan';
import { portsTitle } from '@/core/model/wiring';
import { isEdge, treeGuardsFor } from '@/core/rehearse';
import { bindingRows } from '@/core/formats';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';

/** A box: the bindings entered there, and the guards of the tree that its cabling asks for. */
export function DeviceGuards({ plan, device }: { plan: Plan; device: Device }) {
  const session = useSession();
  const set = useView((state) => state.set);
  const rows = bindingRows(plan, device.id);
  const wanted = treeGuardsFor(plan, device.id);
  const edges = [...plan.port.group(device.id).values()].filter((port) => isEdge(plan, port));
  return (
    <section aria-label="Chosen box" className="pb-4">
      <h2 className="mono font-bold">{device.name}</h2>
      <div className="flex flex-wrap gap-2 py-2">
        <button
          type="button"
          className="button"
          disabled={edges.length === 0}
          onClick={() =>
            set({
              review: {
                title: 'MAC limits as planned',
                call: { operation: 'limitMacs', input: { ports: edges.map(({ id }) => id) } },
                accept: 'Limit them',
              },
            })
          }
        >
          Limit MAC addresses…
        </button>
      </div>
      <h3 className="pt-2 font-bold">Guards of the tree</h3>
      {wanted.length === 0 ? (
        <p className="text-[14px] text-muted">Nothing is missing here.</p>
      ) : (
        <>
          <ul className="text-[14px]">
            {(['bpdu', 'root'] as const).map((kind) => {
              const same = wanted.filter(({ guard }) => guard === kind);
              if (same.length === 0) return null;
              const ports = same.map(({ port }) => plan.port.get(port)!);
              return (
                <li key={kind}>
                  <span className="mono">{portsTitle(plan, ports)}</span>:{' '}
                  {kind === 'bpdu' ? 'edge port with BPDU guard' : 'root guard'}, as {same[0]!.why}
                </li>
              );
            })}
          </ul>
          <button
            type="button"
            className="button mt-1"
            onClick={() => session.perform({ operation: 'guardTree', input: { devices: [device.id] } })}
          >
            Set these guards
          </button>
        </>
      )}
      <h3 className="pt-3 font-bold">Bindings</h3>
      {rows.length === 0 ? (
        <p className="text-[14px] text-muted">No address is entered by hand.</p>
      ) : (
        <ul aria-label="Bindings" className="text-[14px]">
          {rows.map(({ id, address, mac, device: name }) => (
            <li key={id} className="flex flex-wrap justify-between gap-x-2 border-b border-rule">
              <span>
                <span className="mono">{address}</span> {name}
                <br />
                <span className={`mono ${mac ? 'text-muted' : 'text-stop'}`}>
                  {mac || 'MAC not recorded'}
                </span>
              </span>
              <button
                type="button"
                className="link"
                aria-label={`remove the binding of ${address}`}
                onClick={() => session.perform({ operation: 'removeBinding', input: { bindings: [id] } })}
              >
                remove
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
