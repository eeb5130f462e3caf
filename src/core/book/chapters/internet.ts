import { formatAddress, formatPrefix } from '../../address';
import {
  addressingWords,
  forwardsOf,
  mtuOf,
  switchingOf,
  targetOf,
  upstreamWords,
  uplinksOf,
} from '../../model/uplink';
import { type Plan, type Uplink, byName, portTitle, portsText } from '../../plan';
import { type Block, column, facts, heading, table } from '../blocks';
import { type ChapterKind, joined } from '../chapter';

/** How the site reaches the Internet, what is let in, and the ways to other sites. */

function uplinkBlocks(plan: Plan, uplink: Uplink): Block[] {
  const port = uplink.port === null ? undefined : plan.port.get(uplink.port);
  const { away, back } = switchingOf(uplink);
  const speed =
    uplink.down === null && uplink.up === null
      ? ''
      : `${uplink.down ?? '?'} Mbit/s down, ${uplink.up ?? '?'} up`;
  return [
    heading(`${uplink.name}${uplink.enabled ? '' : ', switched off'}`),
    facts([
      ['at', port ? portTitle(plan, port) : plan.device.get(uplink.device)!.name],
      ['upstream', upstreamWords[uplink.upstream]],
      [
        'address',
        uplink.address === null ? addressingWords[uplink.addressing] : formatAddress(uplink.address),
      ],
      ['IPv6 prefix', uplink.delegated ? formatPrefix(uplink.delegated) : ''],
      ['provider’s VLAN', uplink.providerVlan === null ? '' : String(uplink.providerVlan)],
      ['speed', speed],
      ['data a month', uplink.cap === null ? '' : `${uplink.cap} GB`],
      ['largest packet', `${mtuOf(uplink)} bytes`],
      ['used', `tier ${uplink.tier}, weight ${uplink.weight}`],
      [
        'watched by',
        uplink.monitor === null
          ? ''
          : `ping to ${formatAddress(uplink.monitor)}; given up after ${away} s at most, back after ${back} s`,
      ],
      ['name outside', uplink.dynamicName],
    ]),
  ];
}

const forwardRows = (plan: Plan): string[][] =>
  uplinksOf(plan).flatMap((uplink) =>
    forwardsOf(plan, uplink.id).map((forward) => [
      uplink.name,
      portsText(forward.protocol, forward.from, forward.to),
      `${targetOf(plan, forward).name} ${portsText(forward.protocol, forward.inside, forward.inside + forward.to - forward.from)}`,
      forward.sources.map(formatPrefix).join(', ') || 'anybody',
      joined([forward.enabled ? '' : 'switched off', forward.note]),
    ]),
  );

export const internet: ChapterKind = {
  id: 'internet',
  title: 'Internet side',
  write: ({ plan }) => {
    const forwards = table(
      'Let in from outside',
      [
        column('Uplink', 0.9),
        column('Outside', 1.1, true),
        column('Leads to', 1.7, true),
        column('From', 1.2, true),
        column('Note', 1.4),
      ],
      forwardRows(plan),
    );
    const tunnels = table(
      'Tunnels',
      [
        column('Tunnel', 1),
        column('At', 1, true),
        column('Other end', 1.4, true),
        column('Networks there', 1.6, true),
      ],
      [...plan.tunnel.values()]
        .sort((a, b) => byName(a.name, b.name))
        .map((tunnel) => [
          `${tunnel.name}${tunnel.enabled ? '' : ', off'}`,
          plan.device.get(tunnel.device)!.name,
          tunnel.peer,
          tunnel.remote.map(formatPrefix).join(', '),
        ]),
    );
    const routes = table(
      'Routes',
      [column('At', 1, true), column('To', 1.2, true), column('By', 1.2, true), column('Note', 1.6)],
      [...plan.route.values()].map((route) => [
        plan.device.get(route.device)!.name,
        formatPrefix(route.prefix),
        formatAddress(route.via),
        route.note,
      ]),
    );
    return [
      ...uplinksOf(plan).flatMap((uplink) => uplinkBlocks(plan, uplink)),
      ...(forwards.length === 0 ? [] : [heading('Let in from outside'), ...forwards]),
      ...(tunnels.length === 0 ? [] : [heading('Tunnels and ways to dial in'), ...tunnels]),
      ...(routes.length === 0 ? [] : [heading('Routes'), ...routes]),
    ];
  },
};
