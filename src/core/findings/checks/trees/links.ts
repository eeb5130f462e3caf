import { vidsById, portsTitle, carries, fabricOf, flood, stateKey } from '../../../model/wiring';
import { withRecord, plainVlansOf, portTitle } from '../../../plan';
import { missingPorts, neededBeyond, hasLoop } from '../../../model/switching';
import { treesOf, stpPortRecordsOf } from '../../../model/tree';
import { carryRemedy } from '../../../rehearse';
import { cutIslands } from '../gear/ways';
import { onPort } from '../refs';
import { commonOf, treeCheck } from './shared';

/** What trees make of the VLANs on links. */

const redundantUseless = treeCheck('tree-spare-useless', function* (plan) {
  const grown = commonOf(plan);
  if (!grown) return;
  for (const [end, { ports }] of grown.ports.entries()) {
    if (grown.tree.roles[end] !== 'alternate') continue;
    const port = plan.port.get(ports[0]!)!;
    const needed = neededBeyond(plan).get(port.id) ?? [];
    if (needed.length === 0 || needed.some((vlan) => carries(port, vlan))) continue;
    const vids = vidsById(plan);
    const vlans = needed.map((id) => ({ id, vid: vids.get(id)! })).sort((a, b) => a.vid - b.vid);
    const title = portTitle(plan, port);
    const first = plan.vlan.get(vlans[0]!.id)!;
    yield {
      severity: 'fix',
      on: onPort(port.id),
      what: `The spare link at ${title} would save nobody`,
      because: `It is blocked and takes over when another link fails, but carries none of the VLANs needed beyond it: ${vlans.map(({ vid }) => vid).join(', ')}.`,
      remedies: [carryRemedy(`Carry ${first.vid} ${first.code} where it is needed`, first)],
    };
  }
});

const treeCuts = treeCheck('tree-cuts-vlan', function* (plan) {
  const { blocked, shut, rings, aside } = treesOf(plan);
  if (blocked.size === 0) return;
  for (const vlan of plainVlansOf(plan)) {
    if (missingPorts(plan, vlan.id).length > 0) continue;
    const islands = cutIslands(plan, vlan.id);
    if (islands.length < 2) continue;
    // Would it be whole if nothing were blocked? Else something other than the tree cuts it.
    const { came } = flood(fabricOf(plan), { state: islands[0]!.users[0]!.state }, 'boxes');
    if (!islands.slice(1).some(({ users }) => came.has(stateKey(users[0]!.state)))) continue;
    const parts = islands.map((island) => portTitle(plan, island.users[0]!.port)).slice(0, 3);
    const stopping = [...blocked].flatMap(([id, set]) => (set.has(vlan.vid) ? [plan.port.get(id)!] : []));
    // What stands aside in its bundle is a finding of its own, and comes first.
    if (stopping.some(({ id }) => aside.has(id))) continue;
    const guarded = stopping.filter(({ id }) =>
      stpPortRecordsOf(plan, id).some(({ instance, guard }) => instance === 0 && guard === 'root'),
    );
    // Where something is deaf, the guard may be all that opens a loop.
    const without = guarded.reduce((next, { id }) => {
      const record = stpPortRecordsOf(plan, id).find(({ instance }) => instance === 0)!;
      return withRecord(next, 'stpPort', record.id, { ...record, guard: 'none' });
    }, plan);
    yield {
      severity: 'stop',
      on: { table: 'vlan', id: vlan.id },
      also: stopping.map(({ id }) => onPort(id)),
      what: `A blocked port cuts ${plan.vlan.get(vlan.id)!.name}`,
      because: `VLAN ${vlan.vid} is in ${islands.length} pieces (at ${parts.join(', ')}) although every link carries it: it does not pass at ${portsTitle(plan, stopping)}.`,
      remedies:
        // What a BPDU guard switched off or two managers of a ring shut are findings of their own, and come first.
        guarded.length > 0 && shut.size === 0 && rings.length === 0 && !hasLoop(without)
          ? [
              {
                label: `No root guard at ${portsTitle(plan, guarded)}`,
                operation: 'setStpPort',
                input: { ports: guarded.map(({ id }) => id), set: { guard: 'none' } },
              },
            ]
          : [],
    };
  }
});

export const linkChecks = [redundantUseless, treeCuts];
