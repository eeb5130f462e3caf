'use client';

import { useMemo, useState } from 'react';
import { type Band, type Plan, type Radio, bands } from '@/core/plan';
import {
  accessPoints,
  beaconsAt,
  clashesOf,
  foreignAt,
  heardAt,
  KEEPS_SILENT,
  namesOn,
  nearTo,
  radiosIn,
  radiosOf,
  widthsOf,
} from '@/core/model/wireless';
import { useSession } from '../../session/context';
import { editCall, orNone, useEdit, wholeNumber } from '../../session/actions';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { useColumns } from '../../parts/columns';
import { type DataColumn, DataTable } from '../../parts/data-table';
import { Field } from '../../parts/field';
import { Jacket } from '../../parts/jacket';
import { OneOf } from '../../parts/one-of';
import { useRecordTable } from '../../parts/record-table';
import { AirStrip } from './air-strip';
import { Heard } from './heard';
import { percent } from './words';

/** One band: its radios on the strip, and in a table. */
export function AirPanel({ plan }: { plan: Plan }) {
  const session = useSession();
  const used = bands.filter((band) => radiosIn(plan, band).length > 0);
  const [chosen, setBand] = useState<Band>('2.4');
  const band = used.includes(chosen) ? chosen : (used[0] ?? '2.4');
  const without = accessPoints(plan).filter(({ id }) => radiosOf(plan, id).length === 0);
  return (
    <>
      {without.length > 0 && (
        <p className="flex flex-wrap items-center gap-2 pb-3">
          {without.length === 1 ? `${without[0]!.name} has` : `${without.length} access points have`} no radio
          on record.
          <button
            type="button"
            className="button"
            onClick={() =>
              session.perform({
                operation: 'addRadios',
                input: { devices: without.map(({ id }) => id), bands: ['2.4', '5'] },
              })
            }
          >
            Add 2.4 and 5 GHz
          </button>
        </p>
      )}
      {used.length > 0 && (
        <>
          <div className="flex flex-wrap items-center gap-3 pb-2">
            <OneOf
              label="Band"
              look="bar"
              value={band}
              of={bands.map((value) => ({ value, shown: `${value} GHz` }))}
              onChoose={setBand}
            />
            <span className="text-[13px] text-muted">
              each radio lies on the strip as wide as its channel; hatched: it shares it with one it hears
            </span>
          </div>
          <AirStrip plan={plan} band={band} />
          <RadioTable plan={plan} band={band} />
        </>
      )}
      <Heard plan={plan} band={band} />
    </>
  );
}

/** Whom a radio hears loudest, and who hears it. */
function hears(plan: Plan, radio: Radio): string {
  const own = nearTo(plan, radio.device, radio.band).map(({ device }) => ({
    name: plan.device.get(device)!.name,
    ...heardAt(plan, radio.device, device, radio.band),
  }));
  const foreign = foreignAt(plan, radio.device, radio.band).map(({ name, dbm }) => ({
    name: `${name || 'no name'} (foreign)`,
    dbm,
    known: 'measured' as const,
  }));
  const loud = [...own, ...foreign].filter(({ dbm }) => dbm >= KEEPS_SILENT).sort((a, b) => b.dbm - a.dbm);
  const text = loud
    .slice(0, 3)
    .map(
      ({ name, dbm, known }) =>
        `${name} ${known === 'measured' ? '' : known === 'estimated' ? '≈' : '?'}${dbm}`,
    );
  return text.join(', ') + (loud.length > 3 ? `, ${loud.length - 3} more` : '');
}

function RadioTable({ plan, band }: { plan: Plan; band: Band }) {
  const { accessPoint, set } = useView();
  const edit = useEdit();
  const all = useMemo(
    () => accessPoints(plan).flatMap(({ id }) => radiosOf(plan, id).filter((radio) => radio.band === band)),
    [plan, band],
  );
  const choice = useColumns<string>('radios', ['Place', 'Hears', 'Beacons']);
  const clashing = useMemo(
    () =>
      new Set(radiosIn(plan, band).flatMap((radio) => (clashesOf(plan, radio).length > 0 ? [radio.id] : []))),
    [plan, band],
  );
  const columns = useMemo(() => columnsOf(plan, clashing, edit), [plan, clashing]); // eslint-disable-line react-hooks/exhaustive-deps
  const records = useRecordTable('radios', all, columns);
  return (
    <section aria-label={`Radios at ${band} GHz`} className="pt-3">
      <DataTable
        words={['radio', 'radios']}
        records={records}
        columns={columns}
        nameOf={(radio) => plan.device.get(radio.device)!.name}
        of={all.length}
        choice={choice}
        selected={all.find(({ device }) => device === accessPoint)?.id ?? null}
        onSelect={({ device }) => set({ accessPoint: device, ssid: null, finding: null })}
        placeholder="access point, place"
        testId="radios"
      />
    </section>
  );
}

/** A channel as typed: a number, or nothing for a radio that chooses itself. */
const channelOf = (text: string): number | null =>
  orNone(text.replace(/^auto$/i, ''), (written) => wholeNumber(written, 'The channel', 'channel'), 'itself');
const powerOf = (text: string): number | null =>
  orNone(text, (written) => wholeNumber(written.replace(/dBm/i, ''), 'The power', 'power'), 'most');

/** What stands in each column, and what text pasted over a cell of it does. */
export function columnsOf(
  plan: Plan,
  clashing: ReadonlySet<string>,
  edit: ReturnType<typeof useEdit>,
): readonly DataColumn<Radio>[] {
  const name = ({ device }: Radio) => plan.device.get(device)!.name;
  const place = ({ device }: Radio) => plan.box.by('device', device)[0]?.location ?? '';
  return [
    { id: 'Radio', width: 84, text: name, cell: (radio) => <b className="mono">{name(radio)}</b> },
    { id: 'Place', width: 84, grow: 0.6, text: place, cell: place },
    {
      id: 'Channel',
      width: 70,
      text: ({ channel }) => String(channel ?? 'itself'),
      order: ({ channel }) => channel ?? 0,
      paste: ({ id }, text) => editCall('radio', id, 'channel', channelOf(text)),
      cell: (radio) => (
        <Field
          mono
          label={`Channel of ${name(radio)}`}
          value={radio.channel === null ? '' : String(radio.channel)}
          placeholder={radio.enabled ? 'itself' : 'off'}
          className={clashing.has(radio.id) ? 'font-bold text-stop' : ''}
          onCommit={(text) => edit('radio', radio.id, 'channel', channelOf(text), radio.channel)}
        />
      ),
    },
    {
      id: 'Width',
      width: 86,
      hint: 'MHz',
      text: ({ width }) => width,
      paste: ({ id }, text) => editCall('radio', id, 'width', text),
      cell: (radio) => (
        <Choice
          label={`Width of ${name(radio)}`}
          value={radio.width}
          options={widthsOf[radio.band].map((value) => ({ value, label: `${value} MHz` }))}
          onChoose={(value) => edit('radio', radio.id, 'width', value)}
        />
      ),
    },
    {
      id: 'Power',
      width: 62,
      hint: 'EIRP in dBm',
      text: ({ power }) => String(power ?? 'most'),
      order: ({ power }) => power ?? 99,
      paste: ({ id }, text) => editCall('radio', id, 'power', powerOf(text)),
      cell: (radio) => (
        <Field
          mono
          label={`Power of ${name(radio)}`}
          value={radio.power === null ? '' : String(radio.power)}
          placeholder="most"
          onCommit={(text) => edit('radio', radio.id, 'power', powerOf(text), radio.power)}
        />
      ),
    },
    {
      id: 'Hears',
      width: 104,
      grow: 1.6,
      hint: 'dBm; ≈ estimated from places, ? assumed',
      text: (radio) => hears(plan, radio),
      cell: (radio) => (
        <span className="mono block truncate text-[13px]" title={hears(plan, radio)}>
          {hears(plan, radio)}
        </span>
      ),
    },
    {
      id: 'Beacons',
      width: 74,
      hint: 'share of the channel that beacons take: its own and those it hears',
      text: (radio) => percent(beaconsAt(plan, radio)),
      order: (radio) => Math.round(beaconsAt(plan, radio) * 10_000),
      cell: (radio) => <span className="mono">{percent(beaconsAt(plan, radio))}</span>,
    },
    {
      id: 'Sends',
      width: 128,
      grow: 1,
      text: (radio) =>
        namesOn(plan, radio)
          .map((ssid) => ssid.name)
          .join(', '),
      cell: (radio) => (
        <span
          className="flex gap-1 overflow-hidden"
          title={namesOn(plan, radio)
            .map((ssid) => ssid.name)
            .join(', ')}
        >
          {namesOn(plan, radio).map((ssid) => {
            const vlan = ssid.vlan === null ? undefined : plan.vlan.get(ssid.vlan);
            return vlan ? <Jacket key={ssid.id} vlan={vlan} wide={false} /> : <span key={ssid.id}>?</span>;
          })}
        </span>
      ),
    },
  ];
}
