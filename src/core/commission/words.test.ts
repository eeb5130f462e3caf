import { VidSet } from '../model/wiring';
import { commissionSite, plainDrawing } from '../testing/commission';
import { presentState } from './present';
import { plannedState } from './state';
import { settingsOf } from './steps';
import { factsText, sayingOf } from './words';

const facts = {
  pvid: 20,
  untagged: 20,
  tagged: new VidSet(false, new Set([30, 10])),
  accepts: 'all' as const,
  ingressFilter: true,
  blocked: null,
};

test.each([
  [facts, 'untagged VLAN 20, tagged 10, 30'],
  [{ ...facts, pvid: 10 }, 'untagged VLAN 20, PVID 10, tagged 10, 30'],
  [{ ...facts, tagged: new VidSet(true, new Set()) }, 'untagged VLAN 20, every VLAN tagged'],
  [{ ...facts, tagged: new VidSet(true, new Set([7])) }, 'untagged VLAN 20, every VLAN tagged but 7'],
  [
    { ...facts, pvid: null, untagged: null, accepts: 'tagged' as const },
    'nothing untagged, tagged 10, 30, takes tagged frames only',
  ],
])('what a port carries is said: %#', (port, text) => {
  expect(factsText(port)).toBe(text);
});

test('a switch as it comes is told page by page', () => {
  const { plan, comes } = commissionSite(plainDrawing);
  const steps = settingsOf(presentState(plan, comes), plannedState(plan));
  const first = steps.filter(({ device }) => device === 'b0').map((step) => sayingOf(plan, step).does);
  expect(first.slice(0, 3)).toEqual([
    'Make VLAN 10, 20, 30',
    'Port 1: untagged VLAN 1, tagged 10, 20, 30; nothing is taken away yet',
    'Port 1: nothing untagged, tagged 10, 20, 30, takes tagged frames only',
  ]);
  expect(first).toContain('Port 3: off');
  expect(first.slice(-4)).toEqual([
    'Management address 10.20.10.10, mask 255.255.255.0, in VLAN 10',
    'Set its other pages: Identity, Time',
    'Save, so that it outlives a restart',
    'Restart it, and look whether it is as it was set',
  ]);
});
