import * as z from 'zod';
import { type IpAddress, familyOf, formatAddress, contains, formatPrefix } from '../../address';
import { moveToSubnet } from '../hosts/operations';
import {
  badInput,
  type Draft,
  operation,
  siteOf,
  purposes,
  type Purpose,
  type Subnet,
  type Vlan,
  Refusal,
  addressesOf,
  subnetOf,
  vlansOf,
} from '../../plan';
import { layoutOfSubnet, purposeDefaults, habitualGateway } from '../../model/segments';
import { addSegment, putGateway } from './operations';
import { proposeCode, proposeVid } from './propose';

/** Operations that findings offer: each mends one kind of mistake by the site's own habits. */

const one = z.strictObject({ vlan: z.string() });

export const freshVid = operation('freshVid', one, (draft, input) => {
  const vlan = draft.need('vlan', input.vlan);
  const vid = proposeVid(draft.plan, vlan.lan);
  if (vid === null) throw new Refusal('no-room', 'All VLAN ids of this LAN are in use.');
  draft.update('vlan', vlan.id, { vid });
  return `${vlan.name}: VLAN id ${vlan.vid} → ${vid}`;
});

export const freshCode = operation('freshCode', one, (draft, input) => {
  const vlan = draft.need('vlan', input.vlan);
  const code = proposeCode(draft.plan, vlan.lan, purposeDefaults[vlan.purpose].code, vlan.name);
  draft.update('vlan', vlan.id, { code });
  return `${vlan.name}: code ${vlan.code} → ${code}`;
});

/** A segment of a purpose: the first there is that fits, else a new one with everything proposed. */
function segmentFor(draft: Draft, purpose: Purpose, fits: (vlan: Vlan) => boolean = () => true): Vlan {
  const find = () => vlansOf(draft.plan).find((vlan) => vlan.purpose === purpose && fits(vlan));
  const known = find();
  if (known) return known;
  addSegment.run(draft, { purpose });
  const made = find();
  if (!made)
    throw badInput(
      `${purposeDefaults[purpose].label} has no subnet to move to; choose another purpose.`,
      'purpose',
    );
  return made;
}

export const addManagement = operation('addManagement', z.strictObject({}), (draft) =>
  addSegment.run(draft, { purpose: 'management' }),
);

/** Takes the people who come and go out of a segment and counts them in the guest segment, made when there is none. */
export const moveVisitors = operation('moveVisitors', one, (draft, input) => {
  const vlan = draft.need('vlan', input.vlan);
  if (!vlan.transient) throw new Refusal('changed', `${vlan.name} has no people who come and go any more.`);
  const guests = segmentFor(draft, 'guest');
  const have = guests.transient ?? { present: 0, arrivalsPerHour: 0, openHours: 1 };
  draft.update('vlan', vlan.id, { transient: null });
  draft.update('vlan', guests.id, {
    transient: {
      present: have.present + vlan.transient.present,
      arrivalsPerHour: have.arrivalsPerHour + vlan.transient.arrivalsPerHour,
      openHours: Math.max(have.openHours, vlan.transient.openHours),
    },
  });
  return `Visitors of ${vlan.name} counted in ${guests.name}`;
});

/** Where a gateway belongs: the habitual host number, else the first free address. */
export function gatewayPlace(draft: Draft, subnet: Subnet): IpAddress {
  const habit = habitualGateway(siteOf(draft.plan), subnet.prefix);
  const held = addressesOf(draft.plan, subnet.id).some(
    (address) => address.address === habit && !address.gateway,
  );
  const layout = layoutOfSubnet(draft.plan, subnet);
  const pooled = layout.runs.some((run) => run.use === 'pool' && habit >= run.start && habit <= run.end);
  if (!held && !pooled) return habit;
  const free = layout.runs.find((run) => run.use === 'free');
  if (!free)
    throw new Refusal('no-room', `${formatPrefix(subnet.prefix)} has no free address for a gateway.`);
  return free.start;
}

export const habitGateway = operation(
  'habitGateway',
  z.strictObject({ subnet: z.string() }),
  (draft, input) => {
    const subnet = draft.need('subnet', input.subnet);
    const place = gatewayPlace(draft, subnet);
    const gateways = addressesOf(draft.plan, subnet.id).filter((address) => address.gateway);
    const { first, last } = {
      first: subnet.prefix.address,
      last: habitualGateway({ gatewayHabit: 'last' }, subnet.prefix),
    };
    const wrong = gateways.find(
      (gateway) =>
        !contains(subnet.prefix, gateway.address) || gateway.address === first || gateway.address > last,
    );
    if (wrong) draft.update('address', wrong.id, { address: place });
    else putGateway(draft, subnet, place);
    return `${draft.need('vlan', subnet.vlan).name}: gateway ${formatAddress(place)}`;
  },
);

/** Moves a host into the segment made for its kind, adding that segment when there is none. */
export const moveToNewSegment = operation(
  'moveToNewSegment',
  z.strictObject({ address: z.string(), purpose: z.enum(purposes) }),
  (draft, { address: id, purpose }) => {
    const address = draft.need('address', id);
    const family = familyOf(address.address);
    const vlan = segmentFor(
      draft,
      purpose,
      ({ id }) => family === 6 || subnetOf(draft.plan, id, family) !== undefined,
    );
    const subnet = subnetOf(draft.plan, vlan.id, family);
    if (!subnet) throw new Refusal('missing', `${vlan.name} has no subnet of this address family.`);
    return moveToSubnet.run(draft, { address: id, subnet: subnet.id });
  },
);
