import { FindingsEngine } from '../../src/core/findings';
import { disturbance, proposeChannels } from '../../src/core/model/wireless';
import type { Plan } from '../../src/core/plan';
import { doneOn, withAir } from './air-site';
import { copyOf, show, time } from './measure';
import { largeTrees } from './trees';

const COUNT = 200;
const wishes = { band: null, widths: false, powers: false } as const;

/** Channels one after the other, each where it is quietest at the time: what a person does by hand. */
function oneByOne(plan: Plan): Plan {
  let now = plan;
  let seed = 0;
  for (const { id, band } of plan.radio.values()) {
    const channels = band === '2.4' ? [1, 6, 11] : [36, 44, 52, 60, 100, 108, 116, 124, 132];
    let best = { channel: 0, cost: Infinity };
    for (const channel of channels) {
      const cost = disturbance(
        doneOn(now, 'edit', { table: 'radio', id, set: { channel } }, `o${seed++}x`),
        band,
      );
      if (cost < best.cost) best = { channel, cost };
    }
    now = doneOn(now, 'edit', { table: 'radio', id, set: { channel: best.channel } }, `o${seed++}x`);
  }
  return now;
}

async function main() {
  const plan = withAir(largeTrees(20, 30, 4, 300, 40), COUNT);
  console.log(`Air: ${COUNT} access points with ${plan.radio.size} radios, three networks`);
  const small = withAir(largeTrees(20, 30, 4, 300, 40), 12);
  const [few] = proposeChannels(small, wishes);
  const hand = oneByOne(small);
  console.log(
    `12 access points at ${few!.band} GHz: as they are ${few!.before}, one by one ${disturbance(hand, few!.band)}, planned ${few!.after}${few!.best ? ', proved to be the least' : ''}`,
  );
  let proposals: ReturnType<typeof proposeChannels> = [];
  const planned = await time(3, () => {
    proposals = proposeChannels(copyOf(plan), wishes);
  });
  show('channels for all radios', planned);
  for (const { band, before, after, bound, best } of proposals)
    console.log(
      `  ${band} GHz: disturbance ${before}, planned ${after}, ${best ? 'the least there is' : `no plan is below ${bound} (${Math.round((100 * (after - bound)) / Math.max(1, bound))} % above it)`}`,
    );
  const whole = await time(3, () => new FindingsEngine(copyOf(plan), '2026-05-04'));
  show('all findings from nothing', whole);
  const engine = new FindingsEngine(plan, '2026-05-04');
  let now = plan;
  let seed = 0;
  const radios = [...plan.radio.values()].map(({ id }) => id);
  const after = async (what: string, change: (i: number) => readonly [string, unknown]) =>
    show(
      `findings after ${what}`,
      await time(45, (i) => {
        now = doneOn(now, ...change(i), `q${seed++}x`);
        engine.advance(now);
      }),
      { name: 'from nothing', ms: whole },
    );
  await after('a channel', (i) => [
    'edit',
    { table: 'radio', id: radios[(i * 14) % radios.length]!, set: { channel: [11, 6, 1][i % 3] } },
  ]);
  await after('a place', (i) => [
    'setSpot',
    { device: `ap${(i * 9) % COUNT}`, floor: 0, x: 100 * i, y: 300, outdoors: false },
  ]);
  await after('the name of a network', (i) => [
    'edit',
    { table: 'ssid', id: 'ss0', set: { name: `Office ${i}` } },
  ]);
  await after('the name of a segment', (i) => [
    'edit',
    { table: 'vlan', id: 'v3', set: { name: `Renamed ${i}` } },
  ]);
}

void main();
