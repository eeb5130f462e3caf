import type * as z from 'zod';
import { kinds } from './kinds';

/** Records by kind, their types, and what is said of all kinds at once; the kinds themselves are in kinds/. */
export { kinds } from './kinds';
export { SITE_ID, siteKinds } from './kinds/site';
export { type Purpose, purposes } from './kinds/vlan';
export { type DeviceKind, deviceKinds } from './kinds/device';
export { controlFrames, factoryStates, filters, spanningTrees } from './kinds/box';
export { type Carried, taggedModes } from './kinds/carried';
export {
  type Band,
  NAME_OCTETS,
  type Security,
  TOO_LONG,
  bands,
  minimumRates,
  octetsOf,
  securities,
} from './kinds/ssid';
export { type Width, widths } from './kinds/radio';
export { portMedia, selfRoles } from './kinds/port';
export { cableMedia, cableSides } from './kinds/cable';
export { guards } from './kinds/stp-port';
export { accessMethods, accessModes, hostModes } from './kinds/access';
export { hardeningItems } from './kinds/hardening';
export { presentStates } from './kinds/present';
export { consoleSockets, waysIn } from './kinds/model';
export { bootOptions } from './kinds/telephony';
export { identities } from './kinds/identity';
export { overLimit } from './kinds/port-guard';
export { addressings, outsides, passings, protocols, upstreams } from './kinds/uplink';
export { matchSchema } from './kinds/service';
export { type Party, partySchema } from './kinds/rule';
export { expectations } from './kinds/question';
export { links, powers, things } from './kinds/need';
export { placeSorts } from './kinds/place';
export { stockSorts } from './kinds/stock';
export { wishDecisions, wishEnds } from './kinds/wish';

export type TableName = keyof typeof kinds;
export type RecordOf<T extends TableName> = Readonly<z.output<(typeof kinds)[T]['schema']>>;
export type AnyRecord = { [T in TableName]: RecordOf<T> }[TableName];
export const tableNames = Object.keys(kinds) as TableName[];

export type Site = RecordOf<'site'>;
export type Lan = RecordOf<'lan'>;
export type Vlan = RecordOf<'vlan'>;
export type Device = RecordOf<'device'>;
export type Interface = RecordOf<'interface'>;
export type Box = RecordOf<'box'>;
export type BoxModel = RecordOf<'model'>;
export type Profile = RecordOf<'profile'>;
export type Lag = RecordOf<'lag'>;
export type Port = RecordOf<'port'>;
export type Cable = RecordOf<'cable'>;
export type BridgeRecord = RecordOf<'bridge'>;
export type Instance = RecordOf<'instance'>;
export type StpPort = RecordOf<'stpPort'>;
export type Place = RecordOf<'place'>;
export type Need = RecordOf<'need'>;
export type Line = RecordOf<'line'>;
export type Stock = RecordOf<'stock'>;
export type Wish = RecordOf<'wish'>;
export type Question = RecordOf<'question'>;
export type Subnet = RecordOf<'subnet'>;
export type Pool = RecordOf<'pool'>;
export type Exclusion = RecordOf<'exclusion'>;
export type Relay = RecordOf<'relay'>;
export type Address = RecordOf<'address'>;
export type Uplink = RecordOf<'uplink'>;
export type Forward = RecordOf<'forward'>;
export type Ssid = RecordOf<'ssid'>;
export type Radio = RecordOf<'radio'>;
export type Spot = RecordOf<'spot'>;
export type Wall = RecordOf<'wall'>;
export type Level = RecordOf<'level'>;
export type ForeignSsid = RecordOf<'foreignSsid'>;
export type Listener = RecordOf<'listener'>;
export type Route = RecordOf<'route'>;
export type Tunnel = RecordOf<'tunnel'>;
export type Translation = RecordOf<'translation'>;
export type VoiceBox = RecordOf<'voiceBox'>;
export type Zone = RecordOf<'zone'>;
export type Service = RecordOf<'service'>;
export type Cell = RecordOf<'cell'>;
export type Rule = RecordOf<'rule'>;
export type VlanGuard = RecordOf<'vlanGuard'>;
export type PortGuard = RecordOf<'portGuard'>;
export type Binding = RecordOf<'binding'>;
export type Access = RecordOf<'access'>;
export type RadiusServer = RecordOf<'radius'>;
export type Hardening = RecordOf<'hardening'>;
export type HardeningItem = Hardening['item'];
export type Present = RecordOf<'present'>;
export type Telephony = RecordOf<'telephony'>;
export type VoiceHop = RecordOf<'voiceHop'>;
export type Identity = RecordOf<'identity'>;
export type Acceptance = RecordOf<'acceptance'>;
export type DnsServer = Subnet['dns'][number];
export type Transient = NonNullable<Vlan['transient']>;
