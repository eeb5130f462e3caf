import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { newSitePlan, perform } from '../src/core/edit';
import { VERSION } from '../src/core/formats';
import { portsOf } from '../src/core/model/wiring';
import { type Call, type Plan, applySteps, encodePlan, encodeStep } from '../src/core/plan';

/**
 * Writes the journal of a small site as this version writes it, for the test that reads journals of every version. Run it once
 * when the version of the plan file goes up, and commit the file; those of earlier versions are never written again.
 */
let plan: Plan = newSitePlan({ name: `Yard ${VERSION}`, kind: 'office' }, 'y');
const first = plan;
const journal: object[] = [];

function go(call: Call): void {
  const seed = `v${VERSION}seed${journal.length}`;
  const { label, steps } = perform(plan, call, seed);
  const applied = applySteps(plan, steps);
  if (!applied.ok) throw new Error(`${call.operation} does not apply`);
  plan = applied.plan;
  journal.push({
    revision: journal.length + 1,
    seed,
    kind: 'change',
    label,
    operation: call.operation,
    author: 'Ada',
    at: '2026-05-04T10:20:30.456Z',
    undoes: null,
    steps: steps.map(encodeStep),
  });
}
const deviceNamed = (name: string) => [...plan.device.values()].find((device) => device.name === name)!.id;
const portsOn = (name: string) => portsOf(plan, deviceNamed(name)).filter(({ number }) => number > 0);

go({ operation: 'addSegment', input: { purpose: 'staff' } });
go({ operation: 'addSegment', input: { purpose: 'cameras' } });
const vlan = [...plan.vlan.values()][0]!.id;
go({ operation: 'addHost', input: { subnet: [...plan.subnet.values()][0]!.id, name: 'desk-1' } });
go({ operation: 'edit', input: { table: 'vlan', id: vlan, set: { name: 'Crew', devices: 12 } } });
for (const name of ['sw-1', 'sw-2'])
  go({ operation: 'addDevice', input: { name, model: { shelf: 'switch-8' } } });
const ports = portsOn('sw-1');
go({ operation: 'assignPorts', input: { ports: [ports[2]!.id], role: 'access', vlan } });
go({ operation: 'bundlePorts', input: { ports: [ports[4]!.id, ports[5]!.id] } });
go({ operation: 'addListener', input: { device: deviceNamed('desk-1'), port: 443 } });
go({ operation: 'addZone', input: { name: 'Crew' } });
go({
  operation: 'addRule',
  input: { action: 'deny', from: [{ vlan }], to: [{ prefix: '198.51.100.0/24' }] },
});
go({ operation: 'addRoute', input: { prefix: '10.60.0.0/16', via: '10.20.10.77' } });
go({
  operation: 'setStpPort',
  input: { ports: [portsOn('sw-2')[0]!.id], set: { edge: true, guard: 'bpdu' } },
});
go({
  operation: 'tickHardening',
  input: { devices: [deviceNamed('sw-1')], items: ['name', 'saved'], done: '2026-05-04', by: 'Ada' },
});
go({ operation: 'addTelephony', input: { vlan } });
go({
  operation: 'setVoiceHop',
  input: { devices: [deviceNamed('sw-2')], set: { announces: 'yes', marks: 'cleared' } },
});
go({
  operation: 'edit',
  input: { table: 'site', id: 'site', set: { notes: `as version ${VERSION} wrote it` } },
});

const file = path.join('src', 'server', 'fixtures', `journal-v${VERSION}.json`);
writeFileSync(file, `${JSON.stringify({ version: VERSION, plan: encodePlan(first), journal }, null, 1)}\n`);
console.log(file);
