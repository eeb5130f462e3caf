import { acceptance } from './acceptance';
import { access } from './access';
import { address } from './address';
import { lag } from './lag';
import { line } from './line';
import { binding } from './binding';
import { box } from './box';
import { bridge } from './bridge';
import { cable } from './cable';
import { cell } from './cell';
import { device } from './device';
import { exclusion } from './exclusion';
import { forward } from './forward';
import { hardening } from './hardening';
import { mapPosition } from './map-position';
import { identity } from './identity';
import { instance } from './instance';
import { networkInterface } from './interface';
import { lan } from './lan';
import { foreignSsid } from './foreign-ssid';
import { level } from './level';
import { listener } from './listener';
import { model } from './model';
import { need } from './need';
import { place } from './place';
import { pool } from './pool';
import { port } from './port';
import { portGuard } from './port-guard';
import { profile } from './profile';
import { question } from './question';
import { radio } from './radio';
import { radius } from './radius';
import { relay } from './relay';
import { route } from './route';
import { rule } from './rule';
import { service } from './service';
import { site } from './site';
import { spot } from './spot';
import { stock } from './stock';
import { ssid } from './ssid';
import { present } from './present';
import { telephony } from './telephony';
import { subnet } from './subnet';
import { translation } from './translation';
import { stpPort } from './stp-port';
import { tunnel } from './tunnel';
import { uplink } from './uplink';
import { vlan } from './vlan';
import { vlanGuard } from './vlan-guard';
import { voiceBox } from './voice-box';
import { voiceHop } from './voice-hop';
import { wall } from './wall';
import { wish } from './wish';
import { zone } from './zone';

/**
 * The register of all kinds of records, parents before children: the order in which rows are written and files are listed.
 * Shape is enforced by each kind’s schema; a mistake a person can make in a plan (a VLAN id twice, an address twice) is a
 * finding and must pass. Canonical form: absent is null, growth in whole per cent, order as rank strings.
 */
export const kinds = {
  site,
  lan,
  vlan,
  device,
  ssid,
  interface: networkInterface,
  mapPosition,
  box,
  model,
  profile,
  lag,
  port,
  cable,
  bridge,
  instance,
  stpPort,
  radio,
  spot,
  wall,
  level,
  foreignSsid,
  subnet,
  pool,
  exclusion,
  relay,
  address,
  uplink,
  forward,
  listener,
  route,
  tunnel,
  translation,
  voiceBox,
  zone,
  service,
  cell,
  rule,
  access,
  vlanGuard,
  portGuard,
  binding,
  radius,
  identity,
  hardening,
  telephony,
  present,
  voiceHop,
  question,
  acceptance,
  place,
  need,
  line,
  stock,
  wish,
} as const;
