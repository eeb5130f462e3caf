import { writePlanFile } from '../../src/core/formats/plan-file';
import { operations } from '../../src/core/operations';
import { Draft } from '../../src/core/plan/draft';
import type { Plan } from '../../src/core/plan/plan';
import { SITE_ID, type Site } from '../../src/core/plan/records';
import { subnetOf, vlansOf } from '../../src/core/plan/view';
import { newSitePlan } from '../../src/core/site/create';

/** Builds a demo site with the very operations a user has, so that the files stay true to the program. */
export class DemoSite {
  private readonly draft: Draft;
  private mac = 0;

  constructor(seed: string, name: string, kind: Site['kind'], fields: Partial<Site>) {
    this.draft = new Draft(newSitePlan({ name, kind }, `${seed}site`), seed);
    this.draft.update('site', SITE_ID, fields);
  }

  get plan(): Plan {
    return this.draft.plan;
  }

  /** Performs an operation with wire input. */
  do(name: string, input: unknown): void {
    const op = operations.get(name);
    if (!op) throw new Error(`no operation ${name}`);
    op.run(this.draft, op.input.decode(input as never));
  }

  segment(input: Record<string, unknown>): string {
    this.do('addSegment', input);
    return vlansOf(this.plan).at(-1)!.id;
  }

  edit(table: string, id: string, set: Record<string, unknown>): void {
    this.do('edit', { table, id, set });
  }

  subnet(vlan: string, family: 4 | 6 = 4) {
    return subnetOf(this.plan, vlan, family)!;
  }

  /** The next documentation MAC address (00:00:5E:00:53:xx). */
  nextMac(): string {
    return `00:00:5E:00:53:${(this.mac++).toString(16).padStart(2, '0').toUpperCase()}`;
  }

  /** Adds hosts at the next free addresses. An entry is `name kind` with an optional `| note`. */
  hosts(vlan: string, entries: readonly string[], fields: Record<string, unknown> = {}): void {
    for (const entry of entries) {
      const [head, note = ''] = entry.split('|').map((part) => part.trim());
      const [name, kind] = head!.split(' ');
      this.host(vlan, { name, kind, note, ...fields });
    }
  }

  host(vlan: string, fields: Record<string, unknown>): string {
    const input = { subnet: this.subnet(vlan).id, mac: this.nextMac(), ...fields };
    this.do('addHost', input);
    return [...this.plan.address.group(this.subnet(vlan).id).keys()].at(-1)!;
  }

  pool(vlan: string, start: string, end: string, lease = 43200): void {
    this.do('addPool', { subnet: this.subnet(vlan).id, start, end, lease });
  }

  file(): string {
    return writePlanFile(this.plan);
  }
}

export const numbered = (count: number, name: string, kind: string, note = ''): string[] =>
  Array.from(
    { length: count },
    (_, i) => `${name}-${String(i + 1).padStart(2, '0')} ${kind}${note ? ` | ${note} ${i + 1}` : ''}`,
  );
