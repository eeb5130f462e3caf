'use client';

import { useState } from 'react';
import { formatPrefix } from '@/core/address';
import {
  type Call,
  toWire,
  type Subnet,
  type Vlan,
  purposes,
  subnetOf,
  vlansOf,
  siteOf,
  type Plan,
} from '@/core/plan';
import { hangingOn } from '@/core/edit';
import { dnsText, typedDns } from '@/core/model/hosts';
import { arrivalsWithin, purposeDefaults, leaseOf, needOf, vlanIdPlace64 } from '@/core/model/segments';
import { typedPrefix, useEdit, usePerformOrReview, wholeNumber } from '../../session/actions';
import { problemOf } from '../../session/attempt';
import { usePlan, useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Field } from '../../parts/field';
import { Form, FormLine, useTypedForm } from '../../parts/form';
import { Jacket } from '../../parts/jacket';
import { Cautions } from '../../parts/cautions';
import { RecordField } from '../../parts/record-field';
import { Toggle } from '../../parts/tick';
import { Property } from '../../parts/property';
import { RelayLine } from './relay-line';
import { RoutedBy } from './routed-by';
import { Problem } from '../../parts/problem';

/** Everything of the selected segment that the table has no room for. */
export function SegmentInspector() {
  const plan = usePlan();
  const id = useView((state) => state.vlan);
  const vlan = id ? plan.vlan.get(id) : undefined;
  if (!vlan) return <p className="pb-3 text-muted">Select a segment to see its details here.</p>;
  return <Details key={vlan.id} plan={plan} vlan={vlan} />;
}

const purposeWords = Object.fromEntries(purposes.map((value) => [value, purposeDefaults[value].label]));

function Details({ plan, vlan }: { plan: Plan; vlan: Vlan }) {
  const edit = useEdit();
  const session = useSession();
  const v4 = subnetOf(plan, vlan.id, 4);
  const v6 = subnetOf(plan, vlan.id, 6);
  const proposed6 = vlanIdPlace64(siteOf(plan), vlan.vid);
  const commitV6 = (text: string, seen: string) => {
    if (text === '' || /^none$/i.test(text)) {
      if (v6) session.perform({ operation: 'removeSubnet', input: { subnet: v6.id } });
    } else if (v6)
      session.perform({
        operation: 'setPrefix',
        input: { subnet: v6.id, prefix: typedPrefix(text, v6), seen, relocate: true },
      });
    else
      session.perform({
        operation: 'addSubnet',
        input: { vlan: vlan.id, prefix: typedPrefix(text, undefined) },
      });
  };
  return (
    <section aria-label="Selected segment" className="pb-4">
      <h2 className="flex items-center gap-2 pb-2 text-[16px] font-bold">
        <Jacket vlan={vlan} /> {vlan.name}
      </h2>
      <RecordField table="vlan" record={vlan} field="purpose" words={purposeWords} />
      <Cautions purposes={[vlan.purpose]} />
      <RecordField table="vlan" record={vlan} field="code" />
      <Property label="Colour">
        <input
          type="color"
          aria-label="Colour"
          className="h-7 w-14 border border-ink bg-sheet p-0.5"
          value={vlan.colour}
          onChange={(event) => edit('vlan', vlan.id, 'colour', event.target.value)}
        />
      </Property>
      <Property label="Internet">
        <Toggle
          label={vlan.internet ? 'may reach it' : 'may not reach it'}
          checked={vlan.internet}
          onChange={(on) => edit('vlan', vlan.id, 'internet', on)}
        />
      </Property>
      <RoutedBy plan={plan} vlan={vlan} />
      <RelayLine plan={plan} vlan={vlan} />
      <RecordField table="vlan" record={vlan} field="devices" />
      <RecordField table="vlan" record={vlan} field="growth" />
      {v4 && (
        <Property label="Need">
          <span className="mono px-1">{needOf(plan, vlan, v4).text}</span>
        </Property>
      )}
      <Visitors vlan={vlan} lease={v4 ? leaseOf(plan, v4) : 43200} />
      <Property label="IPv6 subnet">
        <Field
          mono
          label="IPv6 subnet"
          value={v6 ? formatPrefix(v6.prefix) : ''}
          placeholder={proposed6 ? formatPrefix(proposed6) : 'none'}
          onCommit={commitV6}
        />
        {!v6 && proposed6 && (
          <button type="button" className="link" onClick={() => commitV6(formatPrefix(proposed6), '')}>
            Use {formatPrefix(proposed6)}
          </button>
        )}
      </Property>
      {[v4, v6].map((subnet) => subnet && <SubnetDetails key={subnet.id} plan={plan} subnet={subnet} />)}
      {v4 && <SizeButtons vlan={vlan} subnet={v4} />}
      <OrderAndRemove plan={plan} vlan={vlan} />
    </section>
  );
}

function SubnetDetails({ plan, subnet }: { plan: Plan; subnet: Subnet }) {
  const edit = useEdit();
  const family = typeof subnet.prefix.address === 'number' ? 'IPv4' : 'IPv6';
  const commitDns = (text: string) => {
    const wire = (dns: Subnet['dns']) => toWire('subnet', { ...subnet, dns }).dns;
    edit('subnet', subnet.id, 'dns', wire(typedDns(plan, subnet, text)), wire(subnet.dns));
  };
  return (
    <>
      <Property label={`DNS ${family}`}>
        <Field
          mono
          label={`DNS servers ${family}`}
          value={dnsText(plan, subnet)}
          placeholder="none"
          onCommit={commitDns}
        />
      </Property>
      <Property label={`Domain ${family}`}>
        <Field
          mono
          label={`Domain ${family}`}
          value={subnet.domain}
          placeholder={siteOf(plan).domain || 'none'}
          onCommit={(text, seen) => edit('subnet', subnet.id, 'domain', text, seen)}
        />
      </Property>
      {family === 'IPv6' && (
        <Property label="Announced">
          <RecordField table="subnet" record={subnet} field="advertised" />
        </Property>
      )}
      {family === 'IPv4' && (
        <Property label="Pinned">
          <Toggle
            label={subnet.pinned ? 'Fit leaves it here' : 'Fit may move it'}
            checked={subnet.pinned}
            onChange={(on) => edit('subnet', subnet.id, 'pinned', on)}
          />
        </Property>
      )}
    </>
  );
}

/** People who come and go: how many at once, how many arrive, how long the place is open. */
function Visitors({ vlan, lease }: { vlan: Vlan; lease: number }) {
  const edit = useEdit();
  const { transient } = vlan;
  const set = (fields: Partial<NonNullable<Vlan['transient']>>) =>
    edit('vlan', vlan.id, 'transient', { ...transient!, ...fields }, transient);
  if (!transient) return <CountVisitors onCount={(counted) => edit('vlan', vlan.id, 'transient', counted)} />;
  const number = (field: 'present' | 'arrivalsPerHour' | 'openHours', label: string) => (
    <Field
      mono
      label={label}
      value={String(transient[field])}
      onCommit={(text) => set({ [field]: wholeNumber(text, label) })}
    />
  );
  return (
    <>
      <Property label="Most present">{number('present', 'Most present at once')}</Property>
      <Property label="Arrive per h">{number('arrivalsPerHour', 'Arrivals per hour')}</Property>
      <Property label="Open h a day">{number('openHours', 'Hours open per day')}</Property>
      <Property label="In one lease">
        <span className="mono px-1">{arrivalsWithin(transient, lease)} arrivals</span>{' '}
        <button
          type="button"
          className="link"
          onClick={() => edit('vlan', vlan.id, 'transient', null, transient)}
        >
          none
        </button>
      </Property>
    </>
  );
}

/** Nothing is written before the numbers are. */
function CountVisitors({ onCount }: { onCount: (counted: NonNullable<Vlan['transient']>) => void }) {
  const [open, setOpen] = useState(false);
  const form = useTypedForm(
    { present: '20', arrivalsPerHour: '5', openHours: '10' },
    ({ present, arrivalsPerHour, openHours }) =>
      onCount({
        present: wholeNumber(present, 'Most present at once', 'present'),
        arrivalsPerHour: wholeNumber(arrivalsPerHour, 'Arrivals per hour', 'arrivalsPerHour'),
        openHours: wholeNumber(openHours, 'Hours open per day', 'openHours'),
      }),
  );
  if (!open)
    return (
      <Property label="Come and go">
        <button type="button" className="link" onClick={() => setOpen(true)}>
          Count visitors
        </button>
      </Property>
    );
  return (
    <Form
      form={form}
      layout="sheet"
      label="Visitors"
      className="grid gap-1 border-b border-rule py-1 text-[14px]"
    >
      <FormLine mono numeric autoFocus name="present" label="Most present at once" />
      <FormLine mono numeric name="arrivalsPerHour" label="Arrivals per hour" />
      <FormLine mono numeric name="openHours" label="Hours open per day" />
      <div className="flex gap-2">
        <button type="submit" className="button button-primary">
          Count them
        </button>
        <button type="button" className="button" onClick={() => setOpen(false)}>
          Do not
        </button>
      </div>
    </Form>
  );
}

function SizeButtons({ vlan, subnet }: { vlan: Vlan; subnet: Subnet }) {
  const set = useView((state) => state.set);
  const performOrReview = usePerformOrReview();
  const session = useSession();
  const [problem, setProblem] = useState('');
  const guarded = (work: () => void) => setProblem(problemOf(work));
  const resize = (length: number) => {
    const input = { subnet: subnet.id, prefix: typedPrefix(`/${length}`, subnet) };
    guarded(() =>
      performOrReview(
        { operation: 'setPrefix', input },
        { operation: 'setPrefix', input: { ...input, relocate: true } },
        'What would move',
      ),
    );
  };
  const split = { operation: 'splitSubnet', input: { subnet: subnet.id } } satisfies Call;
  return (
    <div className="flex flex-wrap gap-2 pt-3">
      <button
        type="button"
        className="button"
        onClick={() =>
          guarded(() => {
            session.preview(split);
            set({ review: { title: `Split ${vlan.name}`, call: split, accept: 'Split it' } });
          })
        }
      >
        Split…
      </button>
      <button
        type="button"
        className="button"
        disabled={subnet.prefix.length <= 8}
        onClick={() => resize(subnet.prefix.length - 1)}
      >
        Grow to /{subnet.prefix.length - 1}
      </button>
      <button
        type="button"
        className="button"
        disabled={subnet.prefix.length >= 30}
        onClick={() => resize(subnet.prefix.length + 1)}
      >
        Shrink to /{subnet.prefix.length + 1}
      </button>
      <Problem text={problem} className="text-[14px]" />
    </div>
  );
}

function OrderAndRemove({ plan, vlan }: { plan: Plan; vlan: Vlan }) {
  const session = useSession();
  const { select } = useView();
  const [asking, setAsking] = useState(false);
  const vlans = vlansOf(plan);
  const at = vlans.findIndex((other) => other.id === vlan.id);
  const move = (index: number) => {
    const others = vlans.filter((other) => other.id !== vlan.id);
    session.perform({
      operation: 'moveSegment',
      input: { vlan: vlan.id, after: others[index - 1]?.id ?? null },
    });
  };
  const hanging = hangingOn(plan, vlan.id);
  const parts = [
    [hanging.subnets, 'subnet'],
    [hanging.pools, 'pool'],
    [hanging.exclusions, 'exclusion'],
    [hanging.fixed, 'fixed address'],
    [hanging.interfaces, 'gateway interface'],
  ] as const;
  const list = parts
    .filter(([count]) => count > 0)
    .map(([count, what]) => `${count} ${what}${count === 1 ? '' : what.endsWith('s') ? 'es' : 's'}`);
  return (
    <div className="flex flex-wrap gap-2 pt-2">
      <button type="button" className="button" disabled={at <= 0} onClick={() => move(at - 1)}>
        Up
      </button>
      <button
        type="button"
        className="button"
        disabled={at === vlans.length - 1}
        onClick={() => move(at + 1)}
      >
        Down
      </button>
      {asking ? (
        <div
          role="alertdialog"
          aria-label={`Remove ${vlan.name}`}
          className="w-full border-l-4 border-stop bg-sheet px-2 py-2"
        >
          <p className="pb-2">
            Removing {vlan.name} also removes {list.length ? list.join(', ') : 'nothing else'}. Undo brings it
            all back.
          </p>
          {hanging.undecided.length > 0 && (
            <p className="pb-2">Undecided then: {someOf(hanging.undecided)}.</p>
          )}
          {hanging.trunks.length > 0 && (
            <p className="pb-2">No longer carried by {someOf(hanging.trunks)}.</p>
          )}
          <div className="flex gap-2">
            <button
              type="button"
              autoFocus
              className="button"
              onClick={() => {
                session.perform({ operation: 'removeSegment', input: { vlan: vlan.id } });
                select(null);
              }}
            >
              Remove it
            </button>
            <button type="button" className="button" onClick={() => setAsking(false)}>
              Keep it
            </button>
          </div>
        </div>
      ) : (
        <button type="button" className="button" onClick={() => setAsking(true)}>
          Remove…
        </button>
      )}
    </div>
  );
}

/** The first names of a list, and how many more there are. */
const someOf = (names: readonly string[], most = 12): string =>
  names.length <= most
    ? names.join(', ')
    : `${names.slice(0, most).join(', ')} and ${names.length - most} more`;
