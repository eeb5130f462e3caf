'use client';

import { useMemo } from 'react';
import { formatAddress, shortAddress } from '@/core/address';
import { type Address, type Plan, type Subnet, addressesOf, hostOf } from '@/core/plan';
import { editCall, orNone, typedAddress, useEdit } from '../../session/actions';
import { useSession } from '../../session/context';
import { type JudgedFinding, locationOf, useFindings } from '../../session/open-findings';
import type { SiteSession } from '../../session/session';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { useColumns } from '../../parts/columns';
import { type DataColumn, DataTable } from '../../parts/data-table';
import { Field } from '../../parts/field';
import { SeverityMark } from '../../parts/marks';
import { useRecordTable } from '../../parts/record-table';
import { assignmentOptions, kindOptions } from './host-options';
import { MarkedHosts } from './marked-hosts';

const OPTIONAL = ['Kind', 'MAC', 'Fixed by', 'Note'] as const;

/** The fixed addresses of a subnet, edited in place; any number of them. */
export function HostsTable({ plan, subnet }: { plan: Plan; subnet: Subnet }) {
  const session = useSession();
  const edit = useEdit();
  const { address: selected, select } = useView();
  const choice = useColumns<string>('hosts', OPTIONAL);
  const findings = useFindings();
  const byAddress = useMemo(() => {
    const map = new Map<string, JudgedFinding>();
    for (const finding of findings) {
      const { address } = locationOf(plan, finding);
      if (address && !finding.accepted && !map.has(address)) map.set(address, finding);
    }
    return map;
  }, [findings, plan]);
  const all = useMemo(
    () => addressesOf(plan, subnet.id).filter((address) => !address.gateway),
    [plan, subnet.id],
  );
  // The way to edit is the same at every drawing; only the plan makes other columns.
  const columns = useMemo(() => columnsOf(plan, subnet, session, edit), [plan, subnet, session]); // eslint-disable-line react-hooks/exhaustive-deps
  const records = useRecordTable('hosts', all, columns);
  const { marked, markAll } = records;
  return (
    <section aria-label="Fixed addresses">
      <DataTable
        words={['fixed address', 'fixed addresses']}
        records={records}
        columns={columns}
        nameOf={(address) => hostOf(plan, address).device.name}
        of={all.length}
        choice={choice}
        selected={selected}
        onSelect={(address) => select(plan.subnet.get(address.subnet)!.vlan, address.id)}
        lead={({ id }) => {
          const finding = byAddress.get(id);
          return finding && <SeverityMark severity={finding.severity} />;
        }}
        placeholder="name, MAC, kind"
        bulk={
          marked.length > 0 && (
            <MarkedHosts plan={plan} subnet={subnet} marked={marked} onDone={() => markAll(false)} />
          )
        }
        testId="hosts"
      />
    </section>
  );
}

/** What stands in a list, by its value or by what it says. */
const chosen = (options: readonly { readonly value: string; readonly label: string }[], text: string) =>
  options.find(({ value, label }) => [value, label].includes(text.toLowerCase()))?.value ?? text;

/** What stands in each column, and what text pasted over a cell of it does. */
export function columnsOf(
  plan: Plan,
  subnet: Subnet,
  session: SiteSession,
  edit: ReturnType<typeof useEdit>,
): readonly DataColumn<Address>[] {
  const hostAt = (address: Address) => hostOf(plan, address);
  const nameAt = (address: Address) => hostAt(address).device.name;
  const kindText = (address: Address) => hostAt(address).device.kind.replaceAll('-', ' ');
  const assigned = ({ assignment }: Address) =>
    assignmentOptions.find(({ value }) => value === assignment)!.label;
  return [
    {
      id: 'Address',
      width: 100,
      text: ({ address }) => formatAddress(address),
      order: ({ address }) => address,
      paste: ({ id }, text) => ({
        operation: 'moveHost',
        input: { address: id, to: typedAddress(text, subnet) },
      }),
      cell: (address) => (
        <Field
          mono
          label={`Address of ${nameAt(address)}`}
          value={shortAddress(address.address, subnet.prefix)}
          onCommit={(text) =>
            session.perform({
              operation: 'moveHost',
              input: {
                address: address.id,
                to: typedAddress(text, subnet),
                seen: formatAddress(address.address),
              },
            })
          }
        />
      ),
    },
    {
      id: 'Host name',
      width: 110,
      grow: 1.2,
      text: nameAt,
      paste: ({ id }, name) => ({ operation: 'renameHost', input: { address: id, name } }),
      cell: (address) => (
        <Field
          label={`Name of ${nameAt(address)}`}
          value={nameAt(address)}
          onCommit={(text, seen) =>
            session.perform({ operation: 'renameHost', input: { address: address.id, name: text, seen } })
          }
        />
      ),
    },
    {
      id: 'Kind',
      width: 100,
      grow: 0.8,
      text: kindText,
      paste: (address, text) =>
        editCall('device', hostAt(address).device.id, 'kind', chosen(kindOptions, text)),
      cell: (address) => (
        <Choice
          label={`Kind of ${nameAt(address)}`}
          value={hostAt(address).device.kind}
          options={kindOptions}
          onChoose={(kind) => edit('device', hostAt(address).device.id, 'kind', kind)}
        />
      ),
    },
    {
      id: 'MAC',
      width: 158,
      text: (address) => hostAt(address).interface.mac ?? '',
      paste: (address, text) =>
        editCall('interface', hostAt(address).interface.id, 'mac', orNone(text, String)),
      cell: (address) => {
        const { interface: item } = hostAt(address);
        return (
          <Field
            mono
            label={`MAC of ${nameAt(address)}`}
            value={item.mac ?? ''}
            placeholder="none"
            className="text-[13px]"
            onCommit={(text) => edit('interface', item.id, 'mac', orNone(text, String), item.mac)}
          />
        );
      },
    },
    {
      id: 'Fixed by',
      width: 104,
      hint: 'reservation = fixed lease = address binding',
      text: assigned,
      paste: ({ id }, text) => ({
        operation: 'setAssignment',
        input: { addresses: [id], assignment: chosen(assignmentOptions, text) as Address['assignment'] },
      }),
      cell: (address) => (
        <Choice
          label={`Assignment of ${nameAt(address)}`}
          value={address.assignment}
          options={assignmentOptions}
          onChoose={(assignment) =>
            session.perform({ operation: 'setAssignment', input: { addresses: [address.id], assignment } })
          }
        />
      ),
    },
    {
      id: 'Note',
      width: 80,
      grow: 1,
      text: ({ note }) => note,
      paste: ({ id }, text) => editCall('address', id, 'note', text),
      cell: (address) => (
        <Field
          label={`Note on ${nameAt(address)}`}
          value={address.note}
          onCommit={(text, seen) => edit('address', address.id, 'note', text, seen)}
        />
      ),
    },
  ];
}
