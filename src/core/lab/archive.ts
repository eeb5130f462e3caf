import { formatAddress } from '../address';
import { dnsmasqConf, hostLabels } from '../formats';
import { type Plan, addressesOn, byName, interfacesOf, siteOf } from '../plan';
import { laidWithQuestions } from './lay';
import { HOST_SCRIPT, LAB_SCRIPT } from './script';
import { INTERNET, type LaidPlan, kernelSettings } from './site';
import { type LaidQuestions } from './questions';
import { ONE_WAY, unlaid } from './wires';

/** A plan as a running network: one folder with a script that builds it on any Linux machine, and the questions it answers there. */

export interface LabFile {
  readonly path: string;
  readonly text: string;
  readonly executable: boolean;
}
const file = (path: string, text: string, executable = false): LabFile => ({ path, text, executable });
/** A cell of a table whose columns are parted by tabs. */
const cell = (text: string): string => text.replace(/\s+/g, ' ');
const lines = (all: readonly string[]): string => all.map((line) => `${line}\n`).join('');
const yes = (value: boolean): string => (value ? 'yes' : 'no');

/** Namespaces are called as the devices are, told apart where two would be alike. */
function namesOf(plan: Plan, { hosts }: LaidPlan): ReadonlyMap<string, string> {
  const devices = hosts.flatMap(({ id }) => plan.device.get(id) ?? []);
  const labels = hostLabels(
    [...devices].sort((a, b) => byName(a.name, b.name) || (a.id < b.id ? -1 : 1)),
    hosts.map(({ id }) => id).concat('joined'),
  );
  return new Map(hosts.map(({ id }) => [id, labels.get(id) ?? id]));
}

const addressesOfHost = (plan: Plan, id: string): string =>
  interfacesOf(plan, id)
    .flatMap((card) => addressesOn(plan, card.id).map(({ address }) => formatAddress(address)))
    .join(' ');

function readme(plan: Plan, { asked, left }: LaidQuestions, why: string | null, partly: boolean): string {
  return lines([
    `${siteOf(plan).name} as a running network`,
    '',
    ...(why === null
      ? [
          'Each device is a network namespace, each segment on a cable a cable of its own, each box a bridge. Gateways filter and translate',
          'by their rulesets, lease by dnsmasq, and have an Internet behind them. Nothing of the network of this machine is touched.',
          '',
          '  sudo ./lab.sh up         builds it',
          '  sudo ./lab.sh ask        asks the kept questions of the plan',
          '  sudo ./lab.sh shell NAME a shell on a host',
          '  sudo ./lab.sh join VLAN  a guest that leases an address in a segment',
          '  sudo ./lab.sh down       takes it away',
          '',
          `${asked.length} questions are asked. Access by name, guards, trees and the air are not part of it.`,
          ...(partly ? [`Not laid, as no kernel does it: ${ONE_WAY}.`] : []),
          ...(left.length === 0
            ? []
            : ['', 'Not asked:', ...left.map(({ text, why: said }) => `  ${text}: ${said}`)]),
        ]
      : [`It cannot be built on a kernel as it is planned: ${why}.`]),
  ]);
}

/** The files of the archive. A plan that no kernel can be made of has one file that says why. */
export function labFiles(plan: Plan, today: string | null): LabFile[] {
  const why = unlaid(plan);
  const partly = why === ONE_WAY;
  if (why !== null && !partly) return [file('README.txt', readme(plan, { asked: [], left: [] }, why, false))];
  const laid = laidWithQuestions(plan, today);
  const names = namesOf(plan, laid);
  const named = (id: string): string => names.get(id)!;
  return [
    file('README.txt', readme(plan, laid, null, partly)),
    file('lab.sh', LAB_SCRIPT, true),
    file('host.py', HOST_SCRIPT),
    file(
      'hosts.tsv',
      lines(
        laid.hosts.map(({ id }) =>
          [
            named(id),
            cell(plan.device.get(id)?.name ?? (id === INTERNET ? 'the Internet' : 'a guest')),
            addressesOfHost(plan, id),
          ].join('\t'),
        ),
      ),
    ),
    file(
      'cables.tsv',
      lines(
        laid.cables.map(({ from, to }) => [named(from.host), from.name, named(to.host), to.name].join('\t')),
      ),
    ),
    file(
      'sockets.tsv',
      lines(laid.sockets.map(({ box, vid, wire }) => [named(box), String(vid), wire].join('\t'))),
    ),
    file(
      'questions.tsv',
      lines(
        laid.asked.map(({ from, to, protocol, port, answers, wanted, text }) =>
          [named(from), to, protocol, String(port), yes(answers), yes(wanted), cell(text)].join('\t'),
        ),
      ),
    ),
    ...laid.hosts.flatMap(({ id, forwards, links, routes, rules }) => {
      const folder = `hosts/${named(id)}`;
      const leases = plan.device.get(id) ? dnsmasqConf(laid.plan, id) : null;
      return [
        file(`${folder}/settings.sh`, lines(kernelSettings({ id, forwards }))),
        file(`${folder}/links`, lines(links)),
        file(`${folder}/routes`, lines(routes)),
        ...(rules === '' ? [] : [file(`${folder}/rules.nft`, rules)]),
        ...(leases === null ? [] : [file(`${folder}/dnsmasq.conf`, leases)]),
      ];
    }),
  ];
}
