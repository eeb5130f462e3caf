import { channelsDrawing } from '../../formats';
import { accessPoints, besidesOf, radiosOf, securityWords, sentBy, ssidsOf } from '../../model/wireless';
import { type Plan, type Ssid, boxOf, siteOf } from '../../plan';
import { column, drawn, heading, table, text } from '../blocks';
import { type ChapterKind, jacketOf } from '../chapter';

/** Names on the air, radios and channels. */

function sentWords(plan: Plan, ssid: Ssid): string {
  const at = sentBy(plan, ssid);
  if (at.length === 0) return 'none';
  return at.length > 1 && at.length === accessPoints(plan).length
    ? `all ${at.length}`
    : at.map(({ name }) => name).join(', ');
}

export const wireless: ChapterKind = {
  id: 'wireless',
  title: 'Wireless',
  write: ({ plan }) => {
    const radios = accessPoints(plan).flatMap((device) =>
      radiosOf(plan, device.id).map((radio) => ({ device, radio })),
    );
    if (ssidsOf(plan).length + radios.length === 0) return [];
    const { country } = siteOf(plan);
    return [
      ...table(
        'Wireless networks',
        [
          column('Network', 1.2),
          column('Leads to', 0.8, true),
          column('Secured by', 1.6),
          column('GHz', 0.8),
          column('Access points', 1.4),
          column('Besides', 1.6),
        ],
        ssidsOf(plan).map((ssid) => {
          const vlan = ssid.vlan === null ? undefined : plan.vlan.get(ssid.vlan);
          return [
            ssid.name,
            vlan ? jacketOf(vlan) : 'no segment',
            securityWords[ssid.security],
            ssid.bands.join(', '),
            sentWords(plan, ssid),
            besidesOf(ssid),
          ];
        }),
      ),
      ...(radios.length === 0 ? [] : [heading('Radios')]),
      ...(radios.length === 0
        ? []
        : [
            text(
              country === ''
                ? 'No country is recorded; only what is allowed nearly everywhere is used.'
                : `Channels and power by the rules of ${country}.`,
            ),
          ]),
      ...table(
        'Radios',
        [
          column('Access point', 1.3, true),
          column('Place', 1.6),
          column('GHz', 0.6),
          column('Channel', 1.1),
          column('Width', 0.8),
          column('Power', 1),
        ],
        radios.map(({ device, radio }) => [
          device.name,
          boxOf(plan, device.id)?.location ?? '',
          radio.band,
          radio.enabled ? (radio.channel === null ? 'chooses by itself' : String(radio.channel)) : 'off',
          `${radio.width} MHz`,
          radio.power === null ? 'as allowed' : `${radio.power} dBm`,
        ]),
      ),
      ...drawn(channelsDrawing(plan)),
    ];
  },
};
