import * as z from 'zod';
import { insertHost } from '../hosts/operations';
import { nameMessage, nameProblem } from '../../model/hosts';
import {
  macCodec,
  whole,
  type Draft,
  operation,
  type Plan,
  type Box,
  type Device,
  type Port,
  kinds,
  Refusal,
  badInput,
  removeRecord,
  addressesOn,
  devicesNamed,
  interfacesOf,
  vlansOf,
  boxOf,
} from '../../plan';
import {
  homesOf,
  isPassive,
  blankBox,
  blankPort,
  type Carried,
  access,
  trunk,
  undecided,
  uplinkRole,
  type Model,
  type PortBlock,
  modelById,
  numberings,
  placesOf,
  portsOf,
} from '../../model/wiring';
import { managementSubnet } from './management';

/** A model of the installer's own: ports in up to three blocks, and what the box can do. */
export const ownModelSchema = z.strictObject({
  name: kinds.box.fields.model,
  kind: kinds.device.fields.kind,
  copper: whole('number of copper ports', 0, 400),
  combo: whole('number of combo ports', 0, 400).default(0),
  fibre: whole('number of fibre ports', 0, 400),
  rows: z.union([z.literal(1), z.literal(2)]),
  numbering: z.enum(numberings).default('odd-above'),
  fromRight: z.boolean().default(false),
  speed: kinds.port.fields.speed,
  poeClass: kinds.port.fields.poeClass,
  poeBudget: kinds.box.fields.poeBudget,
  vlanAware: z.boolean(),
  layer3: z.boolean(),
});

function ownModel(own: z.output<typeof ownModelSchema>): Model {
  const total = own.copper + own.combo + own.fibre;
  if (total === 0)
    throw badInput('A box with no ports has nothing to assign; give it at least one.', 'copper');
  if (total > 400) throw badInput(`${total} ports are more than one case has; write at most 400.`, 'copper');
  const block = (count: number, media: PortBlock['media']): PortBlock[] =>
    count === 0
      ? []
      : [
          {
            count,
            media,
            speed: own.speed,
            rows: own.rows,
            numbering: own.numbering,
            fromRight: own.fromRight,
            poeClass: media === 'copper' ? own.poeClass : null,
          },
        ];
  const base = modelById.get(own.vlanAware ? 'switch-24' : 'plain-8')!;
  return {
    ...base,
    id: 'own',
    name: own.name,
    kind: own.kind,
    blocks: [...block(own.copper, 'copper'), ...block(own.combo, 'combo'), ...block(own.fibre, 'fibre')],
    poeBudget: own.poeBudget,
    layer3: own.layer3,
    filter: own.layer3 ? 'stateless' : 'none',
  };
}

const modelInput = z.union([z.strictObject({ shelf: z.string() }), z.strictObject({ own: ownModelSchema })]);

function modelFrom(input: z.output<typeof modelInput>): Model {
  if ('own' in input) return ownModel(input.own);
  const found = modelById.get(input.shelf);
  if (!found) throw badInput(`There is no model “${input.shelf}” on the shelf.`, 'model');
  return found;
}

/**
 * Writes the box of a device with all its ports, and the inner port where the box itself lives. A plug that the device had is the
 * port of its number, with the cable in it.
 */
export function insertBox(
  draft: Draft,
  device: Device,
  model: Model,
  location: string,
  plugs: readonly Port[] = [],
): Box {
  const { id: _id, name, kind: _kind, blocks, uplinks, ...capabilities } = model;
  const box = draft.insert('box', {
    ...capabilities,
    ...blankBox,
    passes: [...capabilities.passes],
    device: device.id,
    model: name,
    location,
  });
  const port = { ...blankPort, device: device.id };
  if (!isPassive(device.kind))
    draft.insert('port', { ...port, ...innerCarried(draft.plan, device), number: 0, media: 'inner' });
  for (const { number, row, column, block } of placesOf(blocks)) {
    const { media, speed, poeClass } = block;
    const plug = plugs.find((port) => port.number === number);
    if (plug) {
      draft.update('port', plug.id, { row, column, media, speed, poeClass: poeClass ?? plug.poeClass });
      continue;
    }
    const carried = uplinks.includes(number) ? uplinkRole : undecided;
    draft.insert('port', { ...port, ...carried, number, row, column, media, speed, poeClass });
  }
  return box;
}

/**
 * A routing box is inside every VLAN it has an interface or an address in; any other lives untagged where its address is, else in
 * the management segment.
 */
function innerCarried(plan: Plan, device: Device): Carried {
  const routed = interfacesOf(plan, device.id).flatMap((item) => item.vlan ?? []);
  const homes = homesOf(plan, device.id);
  if (routed.length > 0 || device.kind === 'gateway' || device.kind === 'layer3-switch')
    return trunk([...new Set([...routed, ...homes.map(({ id }) => id)])].sort());
  const home = homes[0] ?? vlansOf(plan).find((vlan) => vlan.purpose === 'management');
  return home ? access(home.id) : undecided;
}

export const addDevice = operation(
  'addDevice',
  z.strictObject({
    model: modelInput,
    name: z.string().trim().optional(),
    location: kinds.box.fields.location.default(''),
    mac: macCodec.nullable().default(null),
    /** Give it an address in the management segment. */
    managed: z.boolean().default(true),
  }),
  (draft, input) => {
    const model = modelFrom(input.model);
    if (input.name) {
      const problem = nameProblem(input.name);
      if (problem) throw badInput(nameMessage(problem), 'name');
    }
    const subnet = managementSubnet(draft.plan);
    const addressed =
      input.managed && subnet && model.vlanAware && model.kind !== 'gateway' && !isPassive(model.kind);
    let device: Device;
    if (addressed) {
      const made = insertHost(draft, {
        subnet: subnet.id,
        kind: model.kind,
        name: input.name,
        mac: input.mac,
        assignment: 'static',
        note: '',
      });
      device = draft.need('device', draft.need('interface', made.interface).device);
    } else
      device = draft.insert('device', {
        name: input.name || freeName(draft.plan, model.kind),
        kind: model.kind,
        firewall: 'unknown',
      });
    const box = insertBox(draft, device, model, input.location);
    if (input.mac) draft.update('box', box.id, { baseMac: input.mac });
    return `${device.name} added, ${model.name}`;
  },
);

const short: Partial<Record<Device['kind'], string>> = {
  gateway: 'gw',
  switch: 'sw',
  'layer3-switch': 'sw',
  'unmanaged-switch': 'hub',
  'access-point': 'ap',
  'patch-panel': 'panel',
  'provider-box': 'isp',
};

/** The next name of its sort that no device has: sw-3. */
function freeName(plan: Plan, kind: Device['kind']): string {
  for (let n = 1; ; n++) {
    const name = `${short[kind] ?? kind}-${n}`;
    if (devicesNamed(plan, name).length === 0) return name;
  }
}

/** Gives a device that stands in the plan already its box and ports. */
export const equipDevice = operation(
  'equipDevice',
  z.strictObject({ device: z.string(), model: modelInput, location: kinds.box.fields.location.default('') }),
  (draft, input) => {
    const device = draft.need('device', input.device);
    if (boxOf(draft.plan, device.id)) throw badInput(`${device.name} has a box already.`, 'device');
    const model = modelFrom(input.model);
    insertBox(draft, device, model, input.location, portsOf(draft.plan, device.id));
    return `${device.name} is a ${model.name}`;
  },
);

export const removeDevice = operation(
  'removeDevice',
  z.strictObject({ device: z.string() }),
  (draft, input) => {
    const device = draft.need('device', input.device);
    const items = interfacesOf(draft.plan, device.id);
    const addresses = items.flatMap((item) => addressesOn(draft.plan, item.id));
    const gateway = addresses.find((address) => address.gateway);
    if (gateway)
      throw new Refusal(
        'in-use',
        `${device.name} is the gateway of a segment; give the segment another gateway first.`,
        [{ table: 'address', id: gateway.id }],
      );
    removeRecord(draft, { table: 'device', id: device.id });
    return `${device.name} removed with its ports and cables`;
  },
);

/** Says which device configures a box: one change there reaches all of its boxes. */
export const setController = operation(
  'setController',
  z.strictObject({ box: z.string(), controller: z.string().nullable() }),
  (draft, { box: id, controller }) => {
    const box = draft.need('box', id);
    const device = draft.need('device', box.device);
    if (controller === device.id)
      throw badInput(`${device.name} cannot be its own controller.`, 'controller');
    const by = controller === null ? 'itself' : draft.need('device', controller).name;
    draft.update('box', id, { controller });
    return `${device.name}: configured by ${by}`;
  },
);
