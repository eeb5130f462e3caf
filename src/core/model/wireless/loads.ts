import type { Band, Plan } from '../../plan';
import { beaconsAt } from './airtime';
import { type Span, plannedOf, shared, spanOf } from './channels';
import { clashesOf, onChannels, spanOfForeign, spanOfRadio } from './clashes';

/** What lies on the channels of a band. */

/** What lies on a channel of 20 MHz: radios, pairs of them that hear each other, networks of others, the share beacons take. */
export interface ChannelLoad {
  readonly channel: number;
  readonly radios: number;
  readonly clashes: number;
  readonly foreign: number;
  /** At the radio that hears most of them, 0 to 1. */
  readonly beacons: number;
}
export const loadsOf = (plan: Plan, band: Band): readonly ChannelLoad[] => {
  const radios = onChannels(plan, band).map((one) => ({ ...one, beacons: beaconsAt(plan, one.radio) }));
  const pairs = radios.flatMap(({ radio }) =>
    clashesOf(plan, radio)
      .filter((clash) => radio.id < clash.radio)
      .map((clash) => [radio, plan.radio.get(clash.radio)!] as const),
  );
  const others = [...plan.foreignSsid.values()]
    .filter((one) => one.band === band)
    .flatMap((one) => spanOfForeign(one) ?? []);
  return plannedOf[band].flatMap((channel) => {
    const own = spanOf(band, channel, '20')!;
    const on = (span: Span | null) => span !== null && shared(span, own) > 0;
    const here = radios.filter(({ span }) => on(span));
    const foreign = others.filter(on).length;
    if (here.length + foreign === 0) return [];
    return [
      {
        channel,
        radios: here.length,
        clashes: pairs.filter(([a, b]) => on(spanOfRadio(a)) && on(spanOfRadio(b))).length,
        foreign,
        beacons: Math.max(0, ...here.map(({ beacons }) => beacons)),
      },
    ];
  });
};
