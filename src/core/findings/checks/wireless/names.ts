import { ssidsOf } from '../../../model/wireless';
import type { Plan, Ssid } from '../../../plan';
import { airCheck, onSsid, setting } from './shared';

/** The names of networks: who finds them, and what they tell. */

/** Printable ASCII without what scripts and old clients stumble over. */
const ODD = /[^\x20-\x7e]|["'\\$`;]|^[!#]/;
const plainName = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^\x20-\x7e]|["'\\$`;]/g, '')
    .replace(/^[!#\s]+/, '')
    .trim();

const oddName = airCheck('network-name-odd', function* (plan) {
  for (const ssid of ssidsOf(plan)) {
    if (!ODD.test(ssid.name)) continue;
    const plain = plainName(ssid.name);
    yield {
      severity: 'note',
      on: onSsid(ssid),
      what: `The name ${ssid.name} may not be found by everybody`,
      because:
        'A name is 1 to 32 octets of any kind (IEEE 802.11-2020, 9.4.2.2), and old clients, printers and scripts take printable ASCII without quotes, backslash, $ and ; only.',
      remedies: plain === '' ? [] : [setting(`Call it ${plain}`, 'ssid', ssid.id, { name: plain })],
    };
  }
});

const ADDRESS = /\b\d{1,3}(\.\d{1,3}){3}\b|\b[0-9a-f]{2}([:-][0-9a-f]{2}){2,}\b/i;
/** What of the site a name gives away; null for nothing. */
function leak(plan: Plan, { name }: Ssid): string | null {
  if (ADDRESS.test(name)) return 'an address';
  const said = name.toLowerCase();
  for (const { device, model } of plan.box.values()) {
    const words = model.toLowerCase();
    if (words.length >= 4 && said.includes(words)) return `the model of ${plan.device.get(device)!.name}`;
  }
  return null;
}

const leakingName = airCheck('network-name-leaks', function* (plan) {
  for (const ssid of ssidsOf(plan)) {
    const what = leak(plan, ssid);
    const vlan = ssid.vlan === null ? undefined : plan.vlan.get(ssid.vlan);
    if (what === null) continue;
    const taken = ssidsOf(plan).some(({ name }) => name === vlan?.name);
    yield {
      severity: 'note',
      on: onSsid(ssid),
      what: `The name ${ssid.name} tells strangers too much`,
      because: `It holds ${what}, which anybody in the street reads and can look up.`,
      remedies:
        vlan && !taken && vlan.name.length <= 32 && leak(plan, { ...ssid, name: vlan.name }) === null
          ? [setting(`Call it ${vlan.name}`, 'ssid', ssid.id, { name: vlan.name })]
          : [],
    };
  }
});

const hiddenName = airCheck('network-hidden', function* (plan) {
  for (const ssid of ssidsOf(plan)) {
    if (!ssid.hidden) continue;
    yield {
      severity: 'note',
      on: onSsid(ssid),
      what: `Hiding ${ssid.name} hides nothing`,
      because:
        'Its clients ask for it by name wherever they go, and anybody who listens reads it; joining takes longer.',
      remedies: [setting('Send its name', 'ssid', ssid.id, { hidden: false })],
    };
  }
});

export const nameChecks = [oddName, leakingName, hiddenName];
