import { groupBy } from '../../../plan';
import {
  type BoxWay,
  type ServerWay,
  helpfulRemedies,
  pingPasses,
  waysToServers,
  wrongPort,
} from '../../../rehearse';
import { boxesAsking, serversFor } from '../../../model/guards';
import type { Severity } from '../../finding';
import { onDevice } from '../refs';
import { keepsOut, nameOf, onAccess } from './asking';
import { guardCheck, someOf } from './shared';

/** Whom boxes ask who may come in: that there is somebody, and that question and answer get through. */

const nobodyToAsk = guardCheck('access-no-server', function* (plan) {
  for (const [access] of boxesAsking(plan)) {
    if (serversFor(plan, access).length > 0) continue;
    yield {
      severity: keepsOut(access) ? 'stop' : 'fix',
      on: onAccess(access),
      what: `${access.name} has nobody to ask`,
      because: `No server ${access.group === '' ? 'is recorded' : `of group ${access.group} is recorded`}, so every port that asks like this ends where no server answers.`,
    };
  }
});

/** Ways between boxes and servers on which nothing comes through; one finding for each box. */
const unreachedCheck = (
  id: string,
  purpose: ServerWay['purpose'],
  severity: Severity,
  what: (box: string, servers: string) => string,
) =>
  guardCheck(id, function* (plan, today) {
    const failing = groupBy(
      waysToServers(plan, today).filter((way) => way.purpose === purpose && way.why !== null),
      ({ box }) => box,
    );
    for (const [box, ways] of failing) {
      const servers = new Map(ways.map((way) => [way.server.id, way]));
      const [first] = [...servers.values()] as [BoxWay];
      yield {
        severity,
        on: onDevice(box),
        also: [...servers.keys()].map((server) => ({ table: 'radius' as const, id: server })),
        what: what(nameOf(plan, box), someOf([...servers.values()].map(({ name }) => name))),
        because: `UDP ${first.port}: ${first.why}.${pingPasses(plan, first, today) ? ' A ping passes, so nobody suspects it.' : ''}`,
        remedies: servers.size === 1 ? helpfulRemedies(plan, first.question, first.answer, today) : [],
      };
    }
  });
const unreached = unreachedCheck(
  'access-server-unreached',
  'asking',
  'stop',
  (box, servers) => `${box} does not get through to ${servers}`,
);
const accountingUnreached = unreachedCheck(
  'access-accounting-unreached',
  'accounting',
  'fix',
  (box, servers) => `${box} cannot tell ${servers} who was let in`,
);
const changeUnreached = unreachedCheck(
  'access-change-unreached',
  'change',
  'fix',
  (box, servers) => `${servers} cannot take back what was allowed at ${box}`,
);

const otherPort = guardCheck('access-other-port', function* (plan) {
  for (const server of plan.radius.values()) {
    const listens = wrongPort(plan, server);
    if (listens === null) continue;
    yield {
      severity: 'stop',
      on: { table: 'radius', id: server.id },
      what: `Boxes ask at UDP ${server.port}, and the server listens on UDP ${listens}`,
      because:
        'Old gear has 1645 and 1646, what came after RFC 2865 has 1812 and 1813; both ends need the same.',
      remedies: [
        {
          label: `Ask at UDP ${listens}`,
          operation: 'edit',
          input: { table: 'radius', id: server.id, set: { port: listens, accounting: listens + 1 } },
        },
      ],
    };
  }
});

const noCritical = guardCheck('access-no-critical', function* (plan) {
  for (const [access] of boxesAsking(plan)) {
    if (access.mode !== 'closed' || access.critical !== null) continue;
    yield {
      severity: 'fix',
      on: onAccess(access),
      what: `With its servers ${access.name} goes down too`,
      because:
        'While no server answers, everybody who is plugged in anew is kept out: set the segment for that time.',
    };
  }
});

export const serverChecks = [
  nobodyToAsk,
  unreached,
  accountingUnreached,
  changeUnreached,
  otherPort,
  noCritical,
];
