import { formatAddress } from '../address';
import {
  type Plan,
  type Port,
  type Radio,
  type Security,
  type Ssid,
  addressesOn,
  interfacesOf,
} from '../plan';
import { accessAt, radiusOf, serversFor } from '../model/guards';
import { countryOf, isKnownCountry, namesOn, spanOf } from '../model/wireless';
import { plain } from './nft-match';
import { placeholder } from './radius';

/**
 * For boxes that run Linux: a radio with its networks, and a port that asks who is there, as hostapd reads them. Keys and secrets are
 * not in the plan; where one belongs a placeholder stands.
 */

/** The name as it is sent: as it reads where that is safe, else as octets. */
const nameLine = (name: string): string =>
  /^[\x21-\x7e]([\x20-\x7e]*[\x21-\x7e])?$/.test(name)
    ? `ssid=${name}`
    : `ssid2=${[...new TextEncoder().encode(name)].map((octet) => octet.toString(16).padStart(2, '0')).join('')}`;

/** Which handshakes a network takes (IEEE 802.11-2020 clause 12), and whether its management frames are protected. */
const handshakes: Readonly<Record<Security, readonly string[]>> = {
  open: [],
  owe: ['wpa=2', 'wpa_key_mgmt=OWE', 'rsn_pairwise=CCMP', 'ieee80211w=2'],
  'wpa-mixed': ['wpa=3', 'wpa_key_mgmt=WPA-PSK', 'wpa_pairwise=TKIP', 'rsn_pairwise=CCMP'],
  'wpa2-personal': ['wpa=2', 'wpa_key_mgmt=WPA-PSK', 'rsn_pairwise=CCMP', 'ieee80211w=1'],
  'wpa2-wpa3-personal': [
    'wpa=2',
    'wpa_key_mgmt=WPA-PSK SAE',
    'rsn_pairwise=CCMP',
    'ieee80211w=1',
    'sae_require_mfp=1',
  ],
  'wpa3-personal': ['wpa=2', 'wpa_key_mgmt=SAE', 'rsn_pairwise=CCMP', 'ieee80211w=2'],
  'wpa2-enterprise': ['wpa=2', 'wpa_key_mgmt=WPA-EAP', 'rsn_pairwise=CCMP', 'ieee80211w=1', 'ieee8021x=1'],
  'wpa2-wpa3-enterprise': [
    'wpa=2',
    'wpa_key_mgmt=WPA-EAP WPA-EAP-SHA256',
    'rsn_pairwise=CCMP',
    'ieee80211w=1',
    'ieee8021x=1',
  ],
  'wpa3-enterprise': [
    'wpa=2',
    'wpa_key_mgmt=WPA-EAP-SHA256',
    'rsn_pairwise=CCMP',
    'ieee80211w=2',
    'ieee8021x=1',
  ],
};
const hasKey = (security: Security): boolean => security === 'wpa-mixed' || security.endsWith('personal');

/** The servers that are asked, in order, with who asks. */
function serverLines(plan: Plan, device: string, servers = radiusOf(plan), accounting = true): string[] {
  const own = interfacesOf(plan, device).flatMap((card) => addressesOn(plan, card.id))[0];
  const { name } = plan.device.get(device)!;
  return [
    ...(own ? [`own_ip_addr=${formatAddress(own.address)}`] : []),
    `nas_identifier=${name}`,
    ...(servers.length === 0 ? ['# No server is recorded; hostapd does not start without one.'] : []),
    ...servers.flatMap(({ address, port, accounting: account, change }) => {
      const at = formatAddress(plan.address.get(address)!.address);
      const secret = placeholder('SECRET', name);
      return [
        `auth_server_addr=${at}`,
        `auth_server_port=${port}`,
        `auth_server_shared_secret=${secret}`,
        ...(accounting
          ? [`acct_server_addr=${at}`, `acct_server_port=${account}`, `acct_server_shared_secret=${secret}`]
          : []),
        ...(change === null ? [] : [`radius_das_port=${change}`, `radius_das_client=${at} ${secret}`]),
      ];
    }),
  ];
}

function networkLines(plan: Plan, { device }: Radio, ssid: Ssid): string[] {
  const vlan = ssid.vlan === null ? null : plan.vlan.get(ssid.vlan)!;
  return [
    nameLine(ssid.name),
    ...(vlan ? [`bridge=br${vlan.vid}`] : ['# It leads to no segment yet.']),
    `ignore_broadcast_ssid=${ssid.hidden ? 1 : 0}`,
    `ap_isolate=${ssid.isolated ? 1 : 0}`,
    ...(ssid.schedule === '' ? [] : [`# On the air: ${plain(ssid.schedule)}`]),
    'auth_algs=1',
    ...handshakes[ssid.security],
    ...(hasKey(ssid.security) ? [`wpa_passphrase=${placeholder('KEY', ssid.name).slice(0, 63)}`] : []),
    ...(ssid.security.endsWith('enterprise') ? serverLines(plan, device) : []),
  ];
}

/** The primary channel and how it is widened (IEEE 802.11-2020 clauses 19 and 21; 802.11ax clause 27). */
function channelLines({ band, channel, width: radioWidth }: Radio): string[] {
  const width = radioWidth === '320' ? '160' : radioWidth;
  const mode = [`hw_mode=${band === '2.4' ? 'g' : 'a'}`, `channel=${channel ?? 0}`];
  if (channel === null) return [...mode, '# It chooses its channel itself.'];
  if (band === '2.4')
    return [
      ...mode,
      'ieee80211n=1',
      ...(width === '40' ? [`ht_capab=[HT40${channel <= 7 ? '+' : '-'}]`] : []),
    ];
  const span = spanOf(band, channel, width);
  const base = band === '6' ? 5950 : 5000;
  const middle = span ? ((span.from + span.to) / 2 - base) / 5 : channel;
  if (band === '6') {
    const classes = { '20': 131, '40': 132, '80': 133, '160': 134 } as const;
    const oper = { '20': 0, '40': 0, '80': 1, '160': 2 } as const;
    return [
      ...mode,
      ...(radioWidth === '320' ? ['# 320 MHz is more than this file can say; 160 are set.'] : []),
      `op_class=${classes[width]}`,
      'ieee80211ax=1',
      `he_oper_chwidth=${oper[width]}`,
      `he_oper_centr_freq_seg0_idx=${middle}`,
    ];
  }
  const above = span !== null && (channel * 5 + 5000 - 10 - span.from) % 40 === 0;
  return [
    ...mode,
    'ieee80211n=1',
    'ieee80211ac=1',
    ...(width === '20' ? [] : [`ht_capab=[HT40${above ? '+' : '-'}]`]),
    ...(width === '80' || width === '160'
      ? [`vht_oper_chwidth=${width === '80' ? 1 : 2}`, `vht_oper_centr_freq_seg0_idx=${middle}`]
      : []),
  ];
}

/** A radio with the networks it sends. */
export function hostapdRadio(plan: Plan, radio: Radio): string {
  const { name } = plan.device.get(radio.device)!;
  const networks = namesOn(plan, radio);
  const at = `wl${radio.band.replace('.', '')}`;
  const country = countryOf(plan);
  return [
    `# ${name}, ${radio.band} GHz. Put a key in place of each SET-THE-…; the interface is called as on the box.`,
    `interface=${at}`,
    'driver=nl80211',
    ...(isKnownCountry(country)
      ? [`country_code=${country}`, 'ieee80211d=1', ...(radio.band === '5' ? ['ieee80211h=1'] : [])]
      : ['# The country is not recorded; the box needs its own setting.']),
    ...channelLines(radio),
    `beacon_int=${radio.interval}`,
    ...(radio.power === null ? [] : [`# Power: ${radio.power} dBm radiated, set with iw.`]),
    ...(networks.length === 0 ? ['# It sends no network.'] : []),
    ...networks.flatMap((ssid, i) => [
      '',
      ...(i === 0 ? [] : [`bss=${at}-${i}`]),
      ...networkLines(plan, radio, ssid),
    ]),
    '',
  ].join('\n');
}

/** A port that asks who is there; null where it asks nobody. */
export function hostapdPort(plan: Plan, port: Port): string | null {
  const access = accessAt(plan, port.id);
  if (!access) return null;
  const { name } = plan.device.get(port.device)!;
  return [
    `# ${name} ${port.number}, as ${plain(access.name)}. Put the secret in place of SET-THE-…`,
    `interface=${/^[A-Za-z0-9_.-]{1,15}$/.test(port.name) ? port.name : `eth${port.number}`}`,
    'driver=wired',
    'ieee8021x=1',
    'use_pae_group_addr=0',
    'eapol_version=2',
    `eap_reauth_period=${access.again ?? 0}`,
    ...(access.takesVlan
      ? ['# It opens the port; into the segment the server names the box has to put it.']
      : []),
    ...serverLines(plan, port.device, serversFor(plan, access), access.accounting),
    '',
  ].join('\n');
}
