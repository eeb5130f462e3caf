import type { BoxModel } from '../../src/core/plan';
import type { DemoSite } from './builder';

type Known = Partial<Omit<BoxModel, 'id' | 'name'>>;
const rack: Known = {
  console: 'rj45',
  consoleSpeed: 115200,
  starts: 95,
  page: 50,
  reset: 'hold the button in front for ten seconds',
  light: 'amber while it starts, green when its page opens',
};

/** What the installers of these sites know of the models they use. */
const known: Readonly<Record<string, Known>> = {
  'home gateway, 1 + 4': {
    starts: 70,
    page: 40,
    reset: 'pin in the hole beside the power plug, fifteen seconds',
    light: 'blinks green, then stays green',
  },
  'gateway, 6 ports': { ...rack, consoleSpeed: 9600, starts: 150 },
  '8 + 2 fibre, PoE 65 W': { ...rack, console: 'usb', starts: 60 },
  '24 + 4 fibre, PoE 190 W': rack,
  '48 + 4 fibre, PoE 740 W': {
    ...rack,
    starts: 180,
    quirks: 'Powers its ports for half a minute before it is ready: telephones start twice.',
  },
  '8 + 2 DIN rail, PoE 60 W, dual 24 V': {
    console: 'serial',
    consoleSpeed: 9600,
    starts: 30,
    page: 45,
    reset: 'both buttons while the supply comes on',
    light: 'the relay light is red until one supply is missing no more',
  },
  'access point, 1 port': {
    starts: 110,
    page: 40,
    reset: 'pin in the hole below the socket, ten seconds',
    light: 'slow blue blink: it waits for its settings',
    quirks: 'Takes its address before its port is ready; unplug it once more when it does not answer.',
  },
};

/** Says of each model of a site how one gets in, as far as somebody knows it. */
export function knownModels(site: DemoSite): void {
  const names = new Set([...site.plan.box.values()].map(({ model }) => model));
  for (const name of [...names].sort()) {
    const set = known[name];
    if (!set) continue;
    site.do('addModel', { name });
    const { id } = [...site.plan.model.values()].find((model) => model.name === name)!;
    site.edit('model', id, set);
  }
}
