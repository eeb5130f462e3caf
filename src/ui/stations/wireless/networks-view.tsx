'use client';

import { type Plan, type Ssid, SITE_ID, siteOf, vlansOf } from '@/core/plan';
import {
  TABLE_DATE,
  accessPoints,
  besidesOf,
  countryCodes,
  securityWords,
  sentBy,
  ssidsOf,
} from '@/core/model/wireless';
import { useEdit } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { ColumnHeads } from '../../parts/column-heads';
import { Form, FormChoice, FormLine, useTypedForm } from '../../parts/form';
import { Jacket } from '../../parts/jacket';
import { OneOf } from '../../parts/one-of';
import { securityOptions } from './words';

/** The names on the air, where each leads, and what holds for all of them. */
export function NetworksView({ plan }: { plan: Plan }) {
  const networks = ssidsOf(plan);
  return (
    <>
      <section aria-label="Wireless networks">
        {networks.length > 0 && (
          <table className="schedule schedule-cards text-[14px]" aria-label="Wireless networks">
            <ColumnHeads
              columns={['Network', 'Leads to', 'Secured by', 'Bands, GHz', 'Access points', 'Besides']}
              className="max-[699px]:hidden"
            />
            <tbody>
              {networks.map((ssid) => (
                <Row key={ssid.id} plan={plan} ssid={ssid} />
              ))}
            </tbody>
          </table>
        )}
        <AddNetwork plan={plan} />
      </section>
      <Rules plan={plan} />
    </>
  );
}

function Row({ plan, ssid }: { plan: Plan; ssid: Ssid }) {
  const { ssid: chosen, set } = useView();
  const vlan = ssid.vlan === null ? undefined : plan.vlan.get(ssid.vlan);
  const at = sentBy(plan, ssid);
  const everywhere = at.length > 1 && at.length === accessPoints(plan).length;
  return (
    <tr
      data-record={ssid.id}
      aria-selected={chosen === ssid.id}
      className={`max-[699px]:flex max-[699px]:flex-wrap max-[699px]:gap-x-2 max-[699px]:border-b max-[699px]:border-rule ${chosen === ssid.id ? 'bg-chosen' : ''}`}
    >
      <th scope="row" className="min-w-[110px] text-left">
        <button
          type="button"
          className="min-h-7 w-full px-1 text-left font-bold break-words hover:underline max-[699px]:min-h-touch"
          onClick={() => set({ ssid: ssid.id, accessPoint: null, finding: null })}
        >
          {ssid.name}
        </button>
      </th>
      <td>{vlan ? <Jacket vlan={vlan} /> : <span className="text-stop">no segment</span>}</td>
      <td>{securityWords[ssid.security]}</td>
      <td className="mono">{ssid.bands.join('  ') || 'none'}</td>
      <td>
        {at.length === 0 ? (
          <span className="text-stop">none</span>
        ) : everywhere ? (
          `all ${at.length}`
        ) : (
          at.map(({ name }) => name).join(', ')
        )}
      </td>
      <td className="text-muted">{besidesOf(ssid)}</td>
    </tr>
  );
}

function AddNetwork({ plan }: { plan: Plan }) {
  const session = useSession();
  const set = useView((state) => state.set);
  const form = useTypedForm(
    { name: '', vlan: '', security: 'wpa2-wpa3-personal' as Ssid['security'] },
    ({ name, vlan, security }) => {
      const change = session.perform({ operation: 'addSsid', input: { name, vlan: vlan || null, security } });
      set({ ssid: change.steps.find(({ table }) => table === 'ssid')!.id, accessPoint: null });
    },
    { clear: ['name'] },
  );
  return (
    <Form form={form} label="New wireless network">
      <FormLine name="name" label="New network" placeholder="its name on the air" width={200} />
      <FormChoice
        name="vlan"
        label="Leads to"
        width={210}
        options={[
          { value: '', label: 'no segment yet' },
          ...vlansOf(plan).map(({ id, vid, code, name }) => ({ value: id, label: `${vid} ${code} ${name}` })),
        ]}
      />
      <FormChoice name="security" label="Secured by" options={securityOptions} width={230} />
      <button type="submit" className="button">
        Put it on the air
      </button>
    </Form>
  );
}

const countryNames = new Intl.DisplayNames(['en'], { type: 'region' });
const nameOf = (code: string): string => {
  try {
    return countryNames.of(code) ?? code;
  } catch {
    return code;
  }
};
const countryOptions = [
  { value: '', label: 'not known: what is allowed nearly everywhere' },
  ...countryCodes
    .map((code) => ({ value: code, label: `${nameOf(code)} (${code})` }))
    .sort((a, b) => a.label.localeCompare(b.label)),
];

const schools = [
  { value: 'one' as const, shown: 'one name everywhere', title: 'clients roam by themselves' },
  { value: 'each' as const, shown: 'a name for each box', title: 'one sees at which box one is' },
];
const consequences = {
  one: 'Clients move from one access point to the next by themselves; nobody sees at which one they are.',
  each: 'Everybody sees at which box they are, and clients hold on to a box until its name is gone.',
} as const;
const radar = [
  { value: 'used' as const, shown: 'used', title: 'listened to for a minute or ten before use' },
  { value: 'avoided' as const, shown: 'avoided', title: 'fewer channels, none of which is left for a radar' },
];

/** What holds for the whole site. */
function Rules({ plan }: { plan: Plan }) {
  const edit = useEdit();
  const { country, wirelessNames, radarChannels } = siteOf(plan);
  const change = (field: 'country' | 'wirelessNames' | 'radarChannels', value: string) =>
    edit('site', SITE_ID, field, value);
  return (
    <section aria-label="Rules of the air" className="grid max-w-[760px] gap-2 pt-5">
      <h3 className="border-b-2 border-ink font-bold">Rules of the air</h3>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="w-[130px]">Country</span>
        <div className="w-[330px] border-b border-rule">
          <Choice
            label="Country"
            value={country}
            options={countryOptions}
            onChoose={(value) => change('country', value)}
          />
        </div>
        <span className="text-[13px] text-muted">table of {TABLE_DATE}</span>
      </div>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="w-[130px]">Names</span>
        <OneOf
          label="Names on the air"
          look="bar"
          value={wirelessNames}
          of={schools}
          onChoose={(value) => change('wirelessNames', value)}
        />
        <span className="basis-full text-[13px] text-muted">{consequences[wirelessNames]}</span>
      </div>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <span className="w-[130px]">Radar channels</span>
        <OneOf
          label="Radar channels"
          look="bar"
          value={radarChannels}
          of={radar}
          onChoose={(value) => change('radarChannels', value)}
        />
      </div>
    </section>
  );
}
