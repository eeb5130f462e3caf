import * as z from 'zod';
import { operation, badInput, namedSo, removeRecord, portTitle, requireOwnName } from '../../plan';
import { portList, together } from './ports';
import { portsTitle, carriedOf } from '../../model/wiring';

/** Keeps what a port carries under a name, or puts a kept one on ports; those stay linked until assigned by hand. */
export const saveProfile = operation(
  'saveProfile',
  z.strictObject({ name: z.string().trim(), port: z.string() }),
  (draft, { name, port: id }) => {
    const port = draft.need('port', id);
    const known = namedSo(draft.plan, 'profile', name);
    if (name === '') throw badInput('The profile has no name; write one like camera.', 'name');
    if (known) {
      draft.update('profile', known.id, carriedOf(port));
      for (const linked of [...draft.plan.port.values()])
        if (linked.profile === known.id) draft.update('port', linked.id, carriedOf(port));
      draft.update('port', id, { profile: known.id });
      return `Profile ${name} changed on all its ports`;
    }
    const profile = draft.insert('profile', { name, ...carriedOf(port) });
    draft.update('port', id, { profile: profile.id });
    return `Profile ${name} made from ${portTitle(draft.plan, port)}`;
  },
);

export const applyProfile = operation(
  'applyProfile',
  z.strictObject({ ports: portList, profile: z.string() }),
  (draft, { ports: ids, profile: id }) => {
    const profile = draft.need('profile', id);
    const ports = together(draft, ids);
    for (const port of ports) draft.update('port', port.id, { ...carriedOf(profile), profile: id });
    return `${portsTitle(draft.plan, ports)}: ${profile.name}`;
  },
);

/** Ports keep what they carry and no longer follow a profile. */
export const detachProfile = operation(
  'detachProfile',
  z.strictObject({ ports: portList }),
  (draft, { ports: ids }) => {
    const ports = together(draft, ids).filter((port) => port.profile !== null);
    if (ports.length === 0) throw badInput('None of these ports follows a profile.', 'ports');
    for (const port of ports) draft.update('port', port.id, { profile: null });
    return `${portsTitle(draft.plan, ports)}: follow no profile`;
  },
);

/** Drops a profile; its ports keep what they carry and are linked no more. */
export const removeProfile = operation(
  'removeProfile',
  z.strictObject({ profile: z.string() }),
  (draft, { profile: id }) => {
    const profile = draft.need('profile', id);
    removeRecord(draft, { table: 'profile', id });
    return `Profile ${profile.name} removed; its ports stay as they are`;
  },
);

export const renameProfile = operation(
  'renameProfile',
  z.strictObject({ profile: z.string(), name: z.string().trim() }),
  (draft, { profile: id, name }) => {
    const profile = draft.need('profile', id);
    if (name === '') throw badInput('The profile has no name; write one like camera.', 'name');
    requireOwnName(draft.plan, 'profile', name, id);
    draft.update('profile', id, { name });
    return `Profile ${profile.name} renamed ${name}`;
  },
);
