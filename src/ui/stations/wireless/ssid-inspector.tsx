'use client';

import { type Plan, type Ssid, bands, vlansOf } from '@/core/plan';
import { accessPoints, isMeantFor, securityWords, sentBy } from '@/core/model/wireless';
import { useEdit } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { Property } from '../../parts/property';
import { RecordField } from '../../parts/record-field';
import { Toggle } from '../../parts/tick';
import { JoinHere } from './join-here';

/** A network: its name, where it leads, how it is secured, on which bands and access points. */
export function SsidInspector({ plan, ssid }: { plan: Plan; ssid: Ssid }) {
  const session = useSession();
  const edit = useEdit();
  const set = useView((state) => state.set);
  const change = (field: keyof Ssid, value: unknown) => edit('ssid', ssid.id, field, value);
  const field = (name: keyof Ssid, placeholder?: string) => (
    <RecordField
      table="ssid"
      record={ssid}
      field={name}
      placeholder={placeholder}
      {...(name === 'security' ? { words: securityWords } : {})}
    />
  );
  const keyed = ssid.security.endsWith('personal') || ssid.security === 'wpa-mixed';
  const at = sentBy(plan, ssid);
  return (
    <section aria-label="Chosen network" className="pb-4">
      <h2 className="font-bold break-all">{ssid.name}</h2>
      {field('name')}
      <Property label="Leads to">
        <Choice
          label="Segment of the network"
          value={ssid.vlan ?? ''}
          options={[
            { value: '', label: 'no segment' },
            ...vlansOf(plan).map(({ id, vid, code, name }) => ({
              value: id,
              label: `${vid} ${code} ${name}`,
            })),
          ]}
          onChoose={(vlan) => change('vlan', vlan || null)}
        />
      </Property>
      {field('security')}
      {keyed && (
        <>
          {field('keySet', 'not recorded')}
          {field('keyKept', 'who keeps it; never the key')}
        </>
      )}
      <Property label="Bands, GHz">
        <div className="flex gap-3">
          {bands.map((band) => (
            <Toggle
              key={band}
              label={band}
              checked={ssid.bands.includes(band)}
              onChange={(on) =>
                change(
                  'bands',
                  bands.filter((each) => (each === band ? on : ssid.bands.includes(each))),
                )
              }
            />
          ))}
        </div>
      </Property>
      {field('minimumRate')}
      {field('schedule', 'always')}
      {field('isolated')}
      {field('portal')}
      {field('hidden')}
      {field('cannotWait')}
      <OnAccessPoints plan={plan} ssid={ssid} />
      <h3 className="pt-3 font-bold">Join here and…</h3>
      {at.length === 0 && <p className="text-[14px] text-muted">No access point sends it.</p>}
      {at.slice(0, 4).map(({ id }) => (
        <JoinHere key={id} plan={plan} ssid={ssid.id} at={id} />
      ))}
      <div className="flex flex-wrap gap-2 pt-3">
        {at.length > 1 && (
          <button
            type="button"
            className="button"
            onClick={() =>
              set({
                review: {
                  title: 'A name for each box',
                  call: { operation: 'nameEachBox', input: { ssid: ssid.id } },
                  accept: 'Name them',
                },
              })
            }
          >
            A name for each box…
          </button>
        )}
        <button
          type="button"
          className="button"
          onClick={() => {
            session.perform({ operation: 'removeFromAir', input: { table: 'ssid', ids: [ssid.id] } });
            set({ ssid: null });
          }}
        >
          Remove {ssid.name}
        </button>
      </div>
    </section>
  );
}

/** On which access points: on all, later ones too, or on those that are ticked. */
function OnAccessPoints({ plan, ssid }: { plan: Plan; ssid: Ssid }) {
  const edit = useEdit();
  const all = accessPoints(plan);
  const put = (on: readonly string[]) => edit('ssid', ssid.id, 'on', on);
  return (
    <fieldset className="pt-2 text-[14px]">
      <legend className="font-bold">On access points</legend>
      <Toggle
        label="on all of them, later ones too"
        checked={ssid.on.length === 0}
        onChange={(on) => put(on ? [] : all.map(({ id }) => id))}
      />
      {ssid.on.length > 0 && (
        <div className="grid max-h-[220px] grid-cols-2 overflow-y-auto pl-4">
          {all.map(({ id, name }) => (
            <Toggle
              key={id}
              label={name}
              checked={isMeantFor(ssid, id)}
              onChange={(on) => {
                const next = all.filter((one) => (one.id === id ? on : isMeantFor(ssid, one.id)));
                // With none ticked it would be on all.
                if (next.length > 0) put(next.map((one) => one.id));
              }}
            />
          ))}
        </div>
      )}
    </fieldset>
  );
}
