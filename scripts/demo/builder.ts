import { writePlanFile } from '../../src/core/formats';
import { operations, typedCable, newSitePlan } from '../../src/core/edit';
import {
  Draft,
  type Plan,
  SITE_ID,
  addressesOn,
  type Site,
  devicesNamed,
  interfacesOf,
  subnetOf,
  vlansOf,
  boxOf,
} from '../../src/core/plan';
import { portsIn, typedTagged, typedVlan, portsOf } from '../../src/core/model/wiring';

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

  device(name: string): string {
    return devicesNamed(this.plan, name)[0]!.id;
  }

  /** The first address of an end device. */
  addressOf(name: string) {
    return addressesOn(this.plan, this.card(name))[0]!;
  }

  /** The network card of an end device. */
  card(name: string): string {
    return interfacesOf(this.plan, this.device(name))[0]!.id;
  }

  /** Gives a device of the plan its box; one that is not there yet is added without an address. */
  box(name: string, model: string, location: string, fields: Record<string, unknown> = {}): void {
    const known = devicesNamed(this.plan, name)[0];
    if (known) this.do('equipDevice', { device: known.id, model: { shelf: model }, location });
    else this.do('addDevice', { name, model: { shelf: model }, location, managed: false });
    const box = boxOf(this.plan, this.device(name))!;
    this.edit('box', box.id, {
      firmware: '4.2.1',
      supportedUntil: '2031-12-31',
      loginChanged: '2026-09-14',
      loginKept: 'password safe of the office',
      ...fields,
    });
  }

  /** Ports as written: `sw-a 1-4,9`. */
  ports(text: string): string[] {
    const [, name, numbers] = /^(\S+)\s+(.+)$/.exec(text)!;
    const all = portsOf(this.plan, this.device(name!));
    return (numbers === 'inside' ? [all[0]!] : portsIn(numbers!, all)).map((port) => port.id);
  }

  cable(text: string, fields: Record<string, unknown> = {}): void {
    this.do('connect', { ...typedCable(this.plan, text), ...fields });
  }

  access(ports: string, vid: number): void {
    this.do('assignPorts', {
      ports: this.ports(ports),
      role: 'access',
      vlan: typedVlan(this.plan, `${vid}`).id,
    });
  }

  voice(ports: string, vid: number): void {
    this.do('assignPorts', {
      ports: this.ports(ports),
      role: 'voice',
      vlan: typedVlan(this.plan, `${vid}`).id,
    });
  }

  /** A trunk as typed: `10, 20`, `all but 30`; and the VLAN without a tag. */
  trunk(ports: string, tagged: string, untagged: number | null = null): void {
    const vlan = untagged === null ? null : typedVlan(this.plan, `${untagged}`).id;
    this.do('assignPorts', {
      ports: this.ports(ports),
      role: 'trunk',
      vlan,
      ...typedTagged(this.plan, tagged),
    });
  }

  /** One end device after the other into neighbouring ports. */
  plug(box: string, from: number, names: readonly string[]): void {
    names.forEach((name, i) => this.cable(`${box} ${from + i} = ${name}`));
  }

  /** Parks every port nobody decided. */
  parkRest(...boxes: string[]): void {
    for (const name of boxes) {
      const rest = portsOf(this.plan, this.device(name)).filter((port) => port.role === 'undecided');
      if (rest.length) this.do('assignPorts', { ports: rest.map((port) => port.id), role: 'parked' });
    }
  }

  /** The power an end device asks for. */
  powered(poeClass: number, ...names: string[]): void {
    for (const name of names) this.edit('port', portsOf(this.plan, this.device(name))[0]!.id, { poeClass });
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
