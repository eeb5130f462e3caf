import {
  TABLE_DATE,
  allowedChannel,
  allowedOn,
  beaconShare,
  beaconsOf,
  betterChannel,
  clashesOf,
  countryOf,
  isKnownCountry,
  namesOn,
  radiosOf,
  sentBy,
  spotOf,
  accessPoints,
} from '../../../model/wireless';
import { type Plan, type Radio, type Remedy, SITE_ID, groupBy, recordTitle, siteOf } from '../../../plan';
import type { RadioCheck } from '../../finding';
import { airCheck, onRadio, onSsid, radioCheck, setting } from './shared';

/** Radios: what is allowed, who disturbs whom, what their names cost. */

const titleOf = (plan: Plan, radio: Radio): string => recordTitle(plan, 'radio', radio);

const country = airCheck('country-unknown', function* (plan) {
  if (plan.radio.size === 0 || isKnownCountry(countryOf(plan))) return;
  yield {
    severity: 'note',
    on: { table: 'site', id: SITE_ID },
    what: 'No country is chosen for the air',
    because: `So only channels and powers count as allowed that are so nearly everywhere (table of ${TABLE_DATE}). Choose the country under Wireless.`,
  };
});

const onChannel = (radio: Radio, to: { channel: number; width: string }): Remedy =>
  setting(
    `Put it on channel ${to.channel}${to.width === radio.width ? '' : `, ${to.width} MHz`}`,
    'radio',
    radio.id,
    { channel: to.channel, width: to.width },
  );

const notAllowed = radioCheck('channel-not-allowed', function* (plan, radio) {
  const where = isKnownCountry(countryOf(plan)) ? `in ${countryOf(plan)}` : 'nearly everywhere';
  if (radio.channel === null) return;
  const allowed = allowedOn(countryOf(plan), radio.band, radio.channel, radio.width);
  const move = (): Remedy[] => {
    const other = allowedChannel(plan, radio);
    return other ? [onChannel(radio, other)] : [];
  };
  const outside = spotOf(plan, radio.device)?.outdoors ?? false;
  const what = `${titleOf(plan, radio)} stands where it may not`;
  if (!allowed)
    yield {
      severity: 'stop',
      on: onRadio(radio),
      what,
      because: `Channel ${radio.channel} with ${radio.width} MHz is not allowed ${where} (table of ${TABLE_DATE}).`,
      remedies: move(),
    };
  else if (allowed.indoors && outside)
    yield {
      severity: 'stop',
      on: onRadio(radio),
      what,
      because: `Channel ${radio.channel} is for indoors only ${where}, and ${plan.device.get(radio.device)!.name} hangs outdoors.`,
      remedies: move(),
    };
  else if (allowed.silent)
    yield {
      severity: 'note',
      on: onRadio(radio),
      what: `${titleOf(plan, radio)} needs an approval of its own`,
      because: `On channel ${radio.channel} the table of ${TABLE_DATE} lets only those speak ${where} who heard another first.`,
      remedies: move(),
    };
});

const power = radioCheck('power-not-allowed', function* (plan, radio) {
  if (radio.channel === null || radio.power === null) return;
  const allowed = allowedOn(countryOf(plan), radio.band, radio.channel, radio.width);
  if (!allowed || radio.power <= allowed.power) return;
  yield {
    severity: 'stop',
    on: onRadio(radio),
    what: `${titleOf(plan, radio)} sends too loudly`,
    because: `${radio.power} dBm are set, ${allowed.power} dBm (EIRP) are allowed on channel ${radio.channel}${isKnownCountry(countryOf(plan)) ? ` in ${countryOf(plan)}` : ' nearly everywhere'}.`,
    remedies: [setting(`Send ${allowed.power} dBm`, 'radio', radio.id, { power: allowed.power })],
  };
});

const radar = radioCheck('radar-waits', function* (plan, radio) {
  const avoided = siteOf(plan).radarChannels === 'avoided';
  if (radio.channel === null) return;
  const wait = allowedOn(countryOf(plan), radio.band, radio.channel, radio.width)?.wait ?? 0;
  if (wait === 0) return;
  const waiting = namesOn(plan, radio).find(({ cannotWait }) => cannotWait);
  if (!waiting && !avoided) return;
  const other = allowedChannel(plan, radio);
  yield {
    severity: 'fix',
    on: onRadio(radio),
    also: waiting ? [onSsid(waiting)] : [],
    what: `${titleOf(plan, radio)} falls silent for radar`,
    because: `Channel ${radio.channel} is listened to for ${wait === 60 ? 'a minute' : 'ten minutes'} before it is used, and left when a radar is heard; ${
      waiting ? `the devices on ${waiting.name} cannot wait` : 'the site avoids such channels'
    }.`,
    remedies: other ? [onChannel(radio, other)] : [],
  };
});

const wide = radioCheck('wide-at-2.4', function* (plan, radio) {
  if (radio.band !== '2.4' || radio.width === '20') return;
  yield {
    severity: 'fix',
    on: onRadio(radio),
    what: `${titleOf(plan, radio)} takes half the band`,
    because:
      '40 MHz at 2.4 GHz leave one channel for everybody else; of 20 MHz there are three that do not overlap.',
    remedies: [setting('Take 20 MHz', 'radio', radio.id, { width: '20' })],
  };
});

const clash = radioCheck('channel-clash', function* (plan, radio) {
  const [loudest, ...others] = clashesOf(plan, radio);
  const better = loudest && betterChannel(plan, radio);
  if (!loudest || !better) return;
  const { level, shared, channel } = loudest;
  const known = { measured: 'measured', estimated: 'estimated', assumed: 'assumed, as nothing is known' }[
    level.known
  ];
  yield {
    severity: 'fix',
    on: onRadio(radio),
    also: [{ table: 'radio', id: loudest.radio }],
    what: `${titleOf(plan, radio)} shares the air with ${plan.device.get(loudest.device)!.name}`,
    because: `Channels ${radio.channel} and ${channel} share ${shared} MHz, and they hear each other at ${level.dbm} dBm (${known})${
      others.length > 0 ? `; so do ${others.length} more` : ''
    }. On channel ${better.channel} it would be disturbed ${better.then === 0 ? 'by nobody' : 'less'}.`,
    remedies: [
      onChannel(radio, { channel: better.channel, width: radio.width }),
      {
        label: `Plan all channels at ${radio.band} GHz`,
        operation: 'planChannels',
        input: { band: radio.band },
      },
    ],
  };
});

/** More than so many names cost more than they give. */
const NAMES = 4;
/** From this share of a channel on, beacons are felt. */
const BEACONS = 0.1;

const percent = (share: number): string => `${(share * 100).toFixed(1)} %`;

const manyNames = radioCheck('many-names', function* (plan, radio) {
  if (beaconsOf(plan, radio).names <= NAMES) return;
  const names = namesOn(plan, radio);
  const last = names.at(-1)!;
  const elsewhere = sentBy(plan, last).some(({ id }) => id !== radio.device);
  yield {
    severity: 'fix',
    on: onRadio(radio),
    what: `${titleOf(plan, radio)} sends ${names.length} names`,
    because: `Each sends its beacons at the lowest rate: together ${percent(beaconShare(plan, radio))} of the channel’s time, for everybody who hears it. ${NAMES} are enough.`,
    remedies:
      elsewhere && names.length === NAMES + 1
        ? [
            {
              label: `${last.name} only at the others`,
              operation: 'takeOffAir',
              input: { ssid: last.id, device: radio.device },
            },
          ]
        : [],
  };
});

const slowBeacons = radioCheck('slow-beacons', function* (plan, radio) {
  const share = beaconShare(plan, radio);
  if (share <= BEACONS) return;
  const names = namesOn(plan, radio);
  const slow = names.filter(({ minimumRate }) => Number(minimumRate) < 12);
  yield {
    severity: 'fix',
    on: onRadio(radio),
    also: slow.map(onSsid),
    what: `Beacons take ${percent(share)} of ${titleOf(plan, radio)}`,
    because: `${names.length} ${names.length === 1 ? 'name' : 'names'}, the lowest rate ${Math.min(...names.map(({ minimumRate }) => Number(minimumRate)))} Mbit/s, one beacon each every ${radio.interval} TU.`,
    remedies:
      slow.length > 0 && radio.interval >= 50
        ? [
            {
              label: 'No rate below 12 Mbit/s',
              operation: 'several',
              input: {
                label: 'No rate below 12 Mbit/s',
                calls: slow.map(({ id }) => ({
                  operation: 'edit',
                  input: { table: 'ssid', id, set: { minimumRate: '12' } },
                })),
              },
            },
          ]
        : [],
  };
});

const twoRadios = airCheck('radio-twice', function* (plan) {
  for (const { id, name } of accessPoints(plan)) {
    const radios = radiosOf(plan, id).filter(({ enabled }) => enabled);
    for (const [band, same] of groupBy(radios, (radio) => radio.band)) {
      const [, ...more] = same;
      if (more.length === 0) continue;
      yield {
        severity: 'note',
        on: onRadio(more[0]!),
        what: `${name} has ${same.length} radios at ${band} GHz`,
        because:
          'One box with two radios in a band hears itself; it is taken for one that was written down twice.',
        remedies: [
          {
            label: 'Remove the second',
            operation: 'removeFromAir',
            input: { table: 'radio', ids: more.map(({ id: radio }) => radio) },
          },
        ],
      };
    }
  }
});

export const radioSiteChecks = [country, twoRadios];
/** Those of one radio that is on. */
export const radioChecks: readonly RadioCheck[] = [
  notAllowed,
  power,
  radar,
  wide,
  clash,
  manyNames,
  slowBeacons,
];
