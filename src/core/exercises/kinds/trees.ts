import { boxOf, portTitle } from '../../plan';
import { fabric } from '../../model/switching';
import { setBridgeFields, setStpPortFields } from '../../edit';
import { settingsOf, stpPortOf } from '../../model/tree';
import type { FaultKind } from '../kind';
import { linkPorts, nearPort } from '../places';

/** Faults of spanning trees and rings. */

const since = 'since the loop protection was set up anew';

const guardAt = (
  id: string,
  guard: 'bpdu' | 'root' | 'filter',
  level: FaultKind['level'],
  what: string,
): FaultKind => ({
  id,
  level,
  station: 'rehearse',
  since,
  spots: (plan) =>
    linkPorts(plan).flatMap((port) =>
      stpPortOf(plan, port.id, 0).guard === guard
        ? []
        : [
            {
              told: `${portTitle(plan, port)} ${what}`,
              near: nearPort(plan, port),
              edit: (draft) => setStpPortFields(draft, port.id, 0, { guard }),
            },
          ],
    ),
});

const bpduGuard = guardAt(
  'bpdu-guard',
  'bpdu',
  2,
  'has a BPDU guard and a switch behind it: it shuts down at the first message of the tree.',
);
const rootGuard = guardAt(
  'root-guard',
  'root',
  3,
  'has a root guard, and the root is behind it: it forwards nothing.',
);
const bpduFilter = guardAt(
  'bpdu-filter',
  'filter',
  3,
  'filters the messages of the tree: the loop is not seen, and nothing opens it.',
);

const treeOff: FaultKind = {
  id: 'tree-off',
  level: 2,
  station: 'rehearse',
  since: 'since a switch was replaced',
  spots: (plan) =>
    fabric(plan).bridges.flatMap(({ device, box, ports }) =>
      settingsOf(plan, box).mode === 'none' || settingsOf(plan, box).mode === 'ring'
        ? []
        : [
            {
              told: `${plan.device.get(device)!.name} runs no spanning tree any more and lets none of its messages pass.`,
              near: ports.flatMap((port) => nearPort(plan, port)).slice(0, 6),
              edit: (draft) => {
                setBridgeFields(draft, device, { mode: 'none' });
                draft.update('box', boxOf(plan, device)!.id, {
                  passes: box.passes.filter((frame) => frame !== 'bpdu'),
                });
              },
            },
          ],
    ),
};

const managerGone: FaultKind = {
  id: 'ring-manager-gone',
  level: 2,
  station: 'rehearse',
  since: 'since a switch was replaced',
  spots: (plan) =>
    fabric(plan).bridges.flatMap(({ device, box, ports }) =>
      settingsOf(plan, box).ringManager
        ? [
            {
              told: `${plan.device.get(device)!.name} is no longer the manager of its ring, and nobody else opens it.`,
              near: ports.flatMap((port) => nearPort(plan, port)).slice(0, 6),
              edit: (draft) => setBridgeFields(draft, device, { ringManager: false }),
            },
          ]
        : [],
    ),
};

export const treeKinds: readonly FaultKind[] = [bpduGuard, rootGuard, bpduFilter, treeOff, managerGone];
