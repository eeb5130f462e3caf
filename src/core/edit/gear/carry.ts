import * as z from 'zod';
import { type Draft, operation, badInput, portTitle } from '../../plan';
import { missingPorts, neededBeyond, sparePorts } from '../../model/switching';
import {
  type WiredPort,
  portsTitle,
  adding,
  dropping,
  access,
  accessWithVoice,
  trunk,
} from '../../model/wiring';
import { portList, together } from './ports';

const change = (draft: Draft, ports: readonly WiredPort[], vlan: string, how: typeof adding) => {
  for (const port of ports) draft.update('port', port.id, { ...how(port, vlan), profile: null });
};

/** Puts a VLAN on every trunk between those who use it; returns the ports that did not carry it. */
export function carryEverywhere(draft: Draft, vlan: string): readonly WiredPort[] {
  const ports = missingPorts(draft.plan, vlan);
  change(draft, ports, vlan, adding);
  return ports;
}

/** Puts a VLAN on every trunk between those who use it, redundant ways included. */
export const carryNeeded = operation('carryNeeded', z.strictObject({ vlan: z.string() }), (draft, input) => {
  const vlan = draft.need('vlan', input.vlan);
  const ports = carryEverywhere(draft, vlan.id);
  if (ports.length === 0)
    throw badInput(`${vlan.vid} ${vlan.code} is carried everywhere it is needed already.`, 'vlan');
  return `${portsTitle(draft.plan, ports)}: carry ${vlan.vid} ${vlan.code}`;
});

/** Takes a VLAN off every trunk beyond which nobody uses it. */
export const pruneVlan = operation('pruneVlan', z.strictObject({ vlan: z.string() }), (draft, input) => {
  const vlan = draft.need('vlan', input.vlan);
  const ports = sparePorts(draft.plan, vlan.id);
  if (ports.length === 0)
    throw badInput(`No trunk carries ${vlan.vid} ${vlan.code} further than it is needed.`, 'vlan');
  change(draft, ports, vlan.id, dropping);
  return `${portsTitle(draft.plan, ports)}: no longer carry ${vlan.vid} ${vlan.code}`;
});

/** Makes ports trunks that carry what is needed beyond each of them, and no more. */
export const trunkWhatIsNeeded = operation(
  'trunkWhatIsNeeded',
  z.strictObject({ ports: portList, vlan: z.string().nullable() }),
  (draft, { ports: ids, vlan: untagged }) => {
    if (untagged !== null) draft.need('vlan', untagged);
    const needed = neededBeyond(draft.plan);
    const ports = together(draft, ids);
    for (const port of ports) {
      const vlans = needed.get(port.id);
      if (!vlans)
        throw badInput(
          `Beyond ${portTitle(draft.plan, port)} no box uses a segment; lay its cable first, or list the segments.`,
          'tagged',
        );
      draft.update('port', port.id, { ...trunk(vlans, untagged), profile: null });
    }
    return `${portsTitle(draft.plan, ports)}: trunk with what is needed beyond`;
  },
);

/** Announces the right VLAN to the telephones of a port, and carries it there. */
export const setVoice = operation(
  'setVoice',
  z.strictObject({ port: z.string(), voice: z.string() }),
  (draft, input) => {
    const port = draft.need('port', input.port);
    const voice = draft.need('vlan', input.voice);
    if (port.untagged === null) throw badInput(`${portTitle(draft.plan, port)} has no segment yet.`, 'port');
    draft.update('port', port.id, { ...accessWithVoice(port.untagged, voice.id), profile: null });
    change(draft, missingPorts(draft.plan, voice.id), voice.id, adding);
    return `${portTitle(draft.plan, port)}: voice ${voice.vid} ${voice.code}`;
  },
);

/** Puts a port into a segment and carries the segment to it, so that whoever is plugged in is really there. */
export const joinSegment = operation(
  'joinSegment',
  z.strictObject({ port: z.string(), vlan: z.string() }),
  (draft, input) => {
    const port = draft.need('port', input.port);
    const vlan = draft.need('vlan', input.vlan);
    draft.update('port', port.id, { ...access(vlan.id), profile: null });
    const carrying = missingPorts(draft.plan, vlan.id);
    change(draft, carrying, vlan.id, adding);
    const also = carrying.length ? `, carried on ${portsTitle(draft.plan, carrying)}` : '';
    return `${portTitle(draft.plan, port)}: access ${vlan.vid} ${vlan.code}${also}`;
  },
);
