import type * as z from 'zod';
import * as briefs from './brief/operations';
import { acceptFinding, withdrawAcceptance } from './findings/accept';
import { addAddress } from './hosts/add-address';
import { importHosts } from './hosts/import';
import * as bundles from './gear/bundles';
import * as carrying from './gear/carry';
import * as cables from './gear/cables';
import * as devices from './gear/devices';
import { arrangeMap, putOnMap } from './gear/on-map';
import { setPortFacts } from './gear/port-facts';
import { passThrough } from './gear/pass-through';
import * as inside from './gear/controller-siblings';
import { addressBox } from './gear/management';
import * as ports from './gear/ports';
import { takeForward } from './uplink/advise';
import { acceptAdvice } from './uplink/accept-advice';
import * as uplinks from './uplink/operations';
import * as profiles from './gear/profiles';
import { reuseAsAccessPoint } from './gear/reuse';
import * as accesses from './guards/access';
import { addModel, removeModel } from './commission/models';
import { setPresent } from './commission/present';
import { tickHardening } from './guards/hardening';
import * as telephones from './guards/telephones';
import * as guardPorts from './guards/ports';
import * as guards from './guards/segments';
import { letThrough, letZoneThrough, narrowRule } from './policy/let-through';
import * as policy from './policy/operations';
import { startPolicy } from './policy/start';
import * as hosts from './hosts/operations';
import * as ownFilters from './hosts/own-filter';
import {
  type Change,
  edit,
  type WireCall,
  type Operation,
  type Given,
  runOperation,
  type Plan,
  Refusal,
  takeSteps,
  acceptProposal,
  bringInRows,
} from '../plan';
import * as questions from './questions/operations';
import { balanceInstances } from './tree/balance';
import * as trees from './tree/operations';
import * as pools from './pools/operations';
import * as routing from './routing/operations';
import { several } from './several';
import { bringInPlan } from './site/bring-in';
import * as segments from './segments/operations';
import * as heard from './wireless/heard';
import * as networks from './wireless/networks';
import * as radios from './wireless/radios';
import * as repairs from './segments/repairs';
import * as sizes from './segments/resize';
import { splitSubnet } from './segments/split';

/** Every operation by name: what the journal records, what a client queues and what a remedy offers. */
const all = [
  edit,
  guards.setVlanGuards,
  guards.bindFixed,
  guards.switchOnGuards,
  guards.removeBinding,
  accesses.addAccess,
  accesses.addRadius,
  accesses.setIdentity,
  accesses.removeFromAccess,
  tickHardening,
  setPresent,
  addModel,
  removeModel,
  telephones.addTelephony,
  telephones.removeTelephony,
  telephones.setVoiceHop,
  guardPorts.setPortGuards,
  guardPorts.limitMacs,
  guardPorts.guardTree,
  takeSteps,
  acceptProposal,
  bringInRows,
  briefs.addPlace,
  briefs.addNeed,
  briefs.importNeeds,
  briefs.addLine,
  briefs.addStock,
  briefs.addWish,
  briefs.setWishServices,
  briefs.removeFromBrief,
  bringInPlan,
  acceptFinding,
  withdrawAcceptance,
  segments.addSegment,
  segments.removeSegment,
  segments.moveSegment,
  segments.addSubnet,
  segments.removeSubnet,
  segments.setGateway,
  sizes.setPrefix,
  sizes.moveToFreeBlock,
  splitSubnet,
  sizes.packSubnets,
  sizes.growToNeed,
  repairs.addManagement,
  repairs.freshVid,
  repairs.freshCode,
  repairs.moveVisitors,
  repairs.habitGateway,
  repairs.moveToNewSegment,
  pools.addPool,
  pools.setRelay,
  pools.addExclusion,
  pools.removeRange,
  pools.trimPool,
  pools.widenPool,
  pools.setLease,
  hosts.addHost,
  addAddress,
  hosts.moveHost,
  hosts.renameHost,
  hosts.renameByPattern,
  hosts.moveToFree,
  hosts.setAssignment,
  hosts.removeHosts,
  hosts.useSubnetSettings,
  hosts.moveToSubnet,
  hosts.moveHostsToSubnet,
  hosts.setKindOfHosts,
  ownFilters.setFirewallOfHosts,
  ownFilters.listOnHosts,
  importHosts,
  devices.addDevice,
  devices.equipDevice,
  devices.removeDevice,
  devices.setController,
  putOnMap,
  arrangeMap,
  trees.turnOnRstp,
  ports.assignPorts,
  ports.importPorts,
  ports.carryVlans,
  ports.mapPorts,
  ports.setNative,
  trees.setBridge,
  trees.placeRoots,
  trees.setInstance,
  trees.removeInstance,
  trees.likeRegionOf,
  balanceInstances,
  trees.setStpPort,
  questions.addQuestion,
  questions.removeQuestion,
  questions.moveQuestion,
  cables.connect,
  cables.disconnect,
  cables.movePlug,
  cables.plugDevice,
  bundles.bundlePorts,
  bundles.bundleLinks,
  bundles.unbundle,
  bundles.leaveBundle,
  setPortFacts,
  passThrough,
  carrying.carryNeeded,
  carrying.joinSegment,
  carrying.setVoice,
  carrying.pruneVlan,
  carrying.trunkWhatIsNeeded,
  profiles.saveProfile,
  profiles.applyProfile,
  profiles.renameProfile,
  profiles.removeProfile,
  profiles.detachProfile,
  inside.likeInside,
  networks.addSsid,
  networks.moveSsid,
  networks.takeOffAir,
  networks.nameEachBox,
  networks.joinNames,
  networks.removeFromAir,
  radios.addRadios,
  radios.setChannels,
  radios.planChannels,
  radios.setSpot,
  radios.addWall,
  radios.carryNetworks,
  heard.noteLevels,
  heard.noteScan,
  addressBox,
  uplinks.addUplink,
  uplinks.removeUplink,
  uplinks.setUplinkPort,
  uplinks.setUpdater,
  uplinks.endDoubleNat,
  uplinks.addForward,
  uplinks.removeForward,
  uplinks.renumberForward,
  uplinks.moveForward,
  uplinks.retargetForward,
  uplinks.addListener,
  uplinks.removeListener,
  takeForward,
  routing.addRoute,
  routing.removeRoute,
  routing.addTunnel,
  routing.removeTunnel,
  routing.bindTunnel,
  routing.addTranslation,
  routing.removeTranslation,
  routing.standBehind,
  routing.keepVoiceBox,
  routing.dropVoiceBox,
  routing.routeSegmentBy,
  reuseAsAccessPoint,
  acceptAdvice,
  policy.addZone,
  policy.removeZone,
  policy.putInZone,
  policy.ownZone,
  policy.decidePairs,
  policy.addRule,
  policy.removeRule,
  policy.moveRule,
  policy.setRuleDevice,
  policy.addService,
  policy.removeService,
  letThrough,
  letZoneThrough,
  narrowRule,
  startPolicy,
  several((name) => operations.get(name)),
] as const;
type Registered = (typeof all)[number];

type Inputs = { readonly [O in Registered as O['name']]: Given<z.input<O['input']>> };
declare module '../plan/operation' {
  // What a call and a remedy may say is read off the register.
  // eslint-disable-next-line @typescript-eslint/no-empty-object-type
  interface OperationInputs extends Inputs {}
}

export const operations: ReadonlyMap<string, Operation> = new Map(
  (all as readonly Operation[]).map((op) => [op.name, op]),
);

/** Operations and fields of their inputs as earlier versions called them; queues of clients may still hold some. */
const FORMER: Readonly<
  Record<string, { readonly operation: string; readonly field?: readonly [string, string] }>
> = {
  addOffer: { operation: 'addListener' },
  removeOffer: { operation: 'removeListener', field: ['offer', 'listener'] },
  setTreePort: { operation: 'setStpPort' },
  unbundle: { operation: 'unbundle', field: ['aggregate', 'lag'] },
};
/** A call with the names of today. */
function presentCall(call: WireCall): WireCall {
  const former = FORMER[call.operation];
  if (!former) return call;
  const [was, now] = former.field ?? ['', ''];
  const input = call.input as Readonly<Record<string, unknown>> | null;
  if (typeof input !== 'object' || input === null || !(was in input))
    return { ...call, operation: former.operation };
  const { [was]: value, ...rest } = input;
  return { operation: former.operation, input: { ...rest, [now]: value } };
}

/** Runs a named operation on a plan; see runOperation. An unknown name is a Refusal too. */
export function perform(plan: Plan, call: WireCall, seed: string): Change {
  const { operation: name, input } = presentCall(call);
  const op = operations.get(name);
  if (!op) throw new Refusal('bad-input', `There is no operation “${call.operation}”.`, [], ['operation']);
  return runOperation(op, plan, input, seed);
}
