import { memo, type Plan, withRecord, type Port, type RecordRef, portTitle, recordTitle } from '../plan';
import { bridgeAt } from '../model/switching';
import { isPassive, linksOf, portsOf } from '../model/wiring';

/** What can fail or be tried out, and the plan as the network is then. */

/** Something that goes wrong, or is tried out. */
export type Fault =
  | { readonly kind: 'cable'; readonly cable: string }
  | { readonly kind: 'box'; readonly device: string }
  | { readonly kind: 'uplink'; readonly uplink: string }
  /** A box or device in the hands of somebody else, who keeps to nothing that is set on it. */
  | { readonly kind: 'taken'; readonly device: string }
  /** The plug at one end of a cable goes into another port, which stays as it is. */
  | { readonly kind: 'plug'; readonly cable: string; readonly from: string; readonly to: string };

const endsByCable = memo((all: ReturnType<typeof linksOf>) => {
  const found = new Map<string, Set<string>>();
  for (const links of all.values())
    for (const { cables, from, to } of links)
      for (const cable of cables) {
        const ends = found.get(cable);
        if (ends) ends.add(from).add(to);
        else found.set(cable, new Set([from, to]));
      }
  return found;
});
/** The ports of boxes and devices at the ends of the links that a cable is part of. */
export const endsOfCable = (plan: Plan, cable: string): string[] => [
  ...(endsByCable(linksOf(plan)).get(cable) ?? []),
];

const off = (plan: Plan, port: Port | undefined): Plan =>
  port ? withRecord(plan, 'port', port.id, { ...port, enabled: false }) : plan;

/**
 * The plan as the network is with a fault. A pulled cable is two ports that are off and a box without power one whose
 * ports are all off: so the wiring stays as it is, and what is known of it need not be found again.
 */
export function withFault(plan: Plan, fault: Fault): Plan {
  switch (fault.kind) {
    case 'cable': {
      const ends = endsOfCable(plan, fault.cable);
      if (ends.length === 0) return withRecord(plan, 'cable', fault.cable, null);
      return ends.reduce((next, id) => off(next, next.port.get(id)), plan);
    }
    case 'box': {
      const down = portsOf(plan, fault.device).reduce(
        // A panel needs no power, but it can be taken out.
        (next, port) => off(next, next.port.get(port.id)),
        plan,
      );
      if (!isPassive(plan.device.get(fault.device)!.kind)) return down;
      const own = new Set(portsOf(plan, fault.device).map(({ id }) => id));
      return [...plan.cable.values()].reduce(
        (next, { id, from, to }) =>
          own.has(from) || own.has(to) ? withRecord(next, 'cable', id, null) : next,
        down,
      );
    }
    case 'uplink': {
      const uplink = plan.uplink.get(fault.uplink);
      return uplink ? withRecord(plan, 'uplink', uplink.id, { ...uplink, enabled: false }) : plan;
    }
    case 'taken':
      // Who has taken it over lets it work as before, so that nobody notices.
      return plan;
    case 'plug': {
      const cable = plan.cable.get(fault.cable);
      if (!cable) return plan;
      const end = cable.from === fault.from ? 'from' : 'to';
      return withRecord(plan, 'cable', cable.id, { ...cable, [end]: fault.to, [`${end}Side`]: 'front' });
    }
  }
}

export const withFaults = (plan: Plan, faults: readonly Fault[]): Plan => faults.reduce(withFault, plan);

export function faultTitle(plan: Plan, fault: Fault): string {
  const title = (id: string) => {
    const port = plan.port.get(id);
    return port ? portTitle(plan, port) : 'a port';
  };
  switch (fault.kind) {
    case 'cable': {
      const cable = plan.cable.get(fault.cable);
      return cable ? `${recordTitle(plan, 'cable', cable)} pulled` : 'a cable pulled';
    }
    case 'box':
      return `${plan.device.get(fault.device)?.name ?? 'a box'} off`;
    case 'uplink':
      return `uplink ${plan.uplink.get(fault.uplink)?.name ?? ''} down`;
    case 'taken':
      return `${plan.device.get(fault.device)?.name ?? 'a device'} taken over`;
    case 'plug':
      return `the plug in ${title(fault.from)} moved to ${title(fault.to)}`;
  }
}

export const faultOn = (fault: Fault): RecordRef => {
  switch (fault.kind) {
    case 'cable':
    case 'plug':
      return { table: 'cable', id: fault.cable };
    case 'box':
    case 'taken':
      return { table: 'device', id: fault.device };
    case 'uplink':
      return { table: 'uplink', id: fault.uplink };
  }
};

export const faultKey = (fault: Fault): string => JSON.stringify(fault);

/** Everything that can fail alone: each link between boxes, each box and panel with a cable, each uplink in use. */
export function singleFaultsOf(plan: Plan): Fault[] {
  const faults: Fault[] = [];
  const seen = new Set<string>();
  const cabled = new Set<string>();
  for (const links of linksOf(plan).values())
    for (const link of links) {
      const [a, b] = [plan.port.get(link.from)!, plan.port.get(link.to)!];
      cabled.add(a.device);
      cabled.add(b.device);
      for (const id of link.through) cabled.add(plan.port.get(id)!.device);
      const between = bridgeAt(plan, a.device) >= 0 && bridgeAt(plan, b.device) >= 0;
      const cable = link.cables[0]!;
      if (!between || seen.has(cable)) continue;
      for (const id of link.cables) seen.add(id);
      faults.push({ kind: 'cable', cable });
    }
  for (const box of plan.box.values())
    if (cabled.has(box.device)) faults.push({ kind: 'box', device: box.device });
  for (const uplink of plan.uplink.values())
    if (uplink.enabled) faults.push({ kind: 'uplink', uplink: uplink.id });
  return faults;
}
