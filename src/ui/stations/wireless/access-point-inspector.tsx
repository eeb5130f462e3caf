'use client';

import { type Device, type Plan, type Radio, bands } from '@/core/plan';
import {
  allowedOn,
  beaconShare,
  countryOf,
  networksAt,
  radiosOf,
  spanOf,
  usableChannels,
} from '@/core/model/wireless';
import { useSession } from '../../session/context';
import { RecordField } from '../../parts/record-field';
import { JoinHere } from './join-here';
import { percent } from './words';

/** An access point: its radios with what is allowed there, and what joins find. */
export function AccessPointInspector({ plan, device }: { plan: Plan; device: Device }) {
  const session = useSession();
  const radios = radiosOf(plan, device.id);
  const missing = bands.filter((band) => radios.every((radio) => radio.band !== band));
  return (
    <section aria-label="Chosen access point" className="pb-4">
      <h2 className="mono font-bold">{device.name}</h2>
      {radios.map((radio) => (
        <RadioFields key={radio.id} plan={plan} radio={radio} />
      ))}
      {missing.length > 0 && (
        <div className="flex flex-wrap gap-2 pt-3">
          {missing.map((band) => (
            <button
              key={band}
              type="button"
              className="button"
              onClick={() =>
                session.perform({ operation: 'addRadios', input: { devices: [device.id], bands: [band] } })
              }
            >
              Add {band} GHz
            </button>
          ))}
        </div>
      )}
      <h3 className="pt-3 font-bold">Join here and…</h3>
      {networksAt(plan, device.id).length === 0 && (
        <p className="text-[14px] text-muted">It sends no network.</p>
      )}
      {networksAt(plan, device.id).map(({ id }) => (
        <JoinHere key={id} plan={plan} ssid={id} at={device.id} />
      ))}
    </section>
  );
}

/** What is allowed where a radio stands, in one line. */
function allowedText(plan: Plan, radio: Radio): string {
  const country = countryOf(plan);
  // Wide channels by the frequencies they take: several primary channels lead to the same.
  const channels = new Set(
    usableChannels(country, radio.band, radio.width).map(
      (channel) => spanOf(radio.band, channel, radio.width)!.from,
    ),
  );
  const there = radio.channel === null ? null : allowedOn(country, radio.band, radio.channel, radio.width);
  const parts = [
    channels.size === 0
      ? `no channel of ${radio.width} MHz is allowed`
      : `${channels.size} channels of ${radio.width} MHz allowed`,
    there ? `here up to ${there.power} dBm` : '',
    there?.indoors ? 'indoors only' : '',
    there && there.wait > 0 ? `listens ${there.wait === 60 ? 'a minute' : 'ten minutes'} for radar` : '',
    there?.silent ? 'needs an approval of its own' : '',
  ];
  return parts.filter(Boolean).join(', ');
}

function RadioFields({ plan, radio }: { plan: Plan; radio: Radio }) {
  const session = useSession();
  const field = (name: keyof Radio, placeholder?: string) => (
    <RecordField
      table="radio"
      record={radio}
      field={name}
      placeholder={placeholder}
      of={`${radio.band} GHz`}
    />
  );
  return (
    <section aria-label={`Radio ${radio.band} GHz`} className="pt-2">
      <h3 className="flex items-baseline justify-between border-b-2 border-ink font-bold">
        {radio.band} GHz
        <button
          type="button"
          className="link font-normal"
          aria-label={`remove the radio at ${radio.band} GHz`}
          onClick={() =>
            session.perform({ operation: 'removeFromAir', input: { table: 'radio', ids: [radio.id] } })
          }
        >
          remove
        </button>
      </h3>
      {field('enabled')}
      {field('channel', 'chooses itself')}
      {field('width')}
      {field('power', 'as much as allowed')}
      {field('interval')}
      {field('kept')}
      <p className="py-1 text-[13px] text-muted">
        {allowedText(plan, radio)}; its beacons take {percent(beaconShare(plan, radio))}.
      </p>
    </section>
  );
}
