import { deviceNamed, put } from '../testing/gear';
import { cardOf, uplinkNamed } from '../testing/internet';
import { done, without } from '../testing/plans';
import { soundPolicy } from '../testing/policy';
import { rankBetween } from '../plan';
import { askedBy, questionFields, questionText } from './questions/ask';
import { ask } from '../testing/asking';
import { suggestedEnds, typedSender, typedWanted } from './typed';

/** People who dial in by VPN ask like anybody else. */

const open = (() => {
  const sound = soundPolicy();
  return done(sound, 'takeWay', {
    way: 'vpn',
    uplink: uplinkNamed(sound, 'fibre').id,
    target: cardOf(sound, 'desk').id,
    protocol: 'tcp',
    port: 443,
  });
})();

test('who dials in reaches what was opened for it and nothing else', () => {
  const answer = ask(open, 'dial-in', 'desk', 'HTTPS');
  expect(answer.works).toBe(true);
  expect(answer.back.at(-1)!.left).toBe('tunnel dial-in');
  expect(ask(open, 'dial-in', 'till', 'HTTPS').works).toBe(false);
  expect(ask(open, 'dial-in', 'gateway', 'HTTPS').works).toBe(false);
});
test('by an address of theirs it is the same question', () => {
  const [tunnel] = [...open.tunnel.values()];
  const net = tunnel!.remote[0]!;
  const inside = [24, 16, 8, 0].map((bits) => ((net.address as number) >>> bits) & 255);
  expect(typedSender(open, `${inside.slice(0, 3).join('.')}.9`)).toEqual({ tunnel: tunnel!.id });
  expect(suggestedEnds(open, 'dial')).toContain('dial-in');
});
test('a segment in which nobody has an address yet is reached through a device as it would be leased', () => {
  const [segment] = [...open.vlan.values()].filter(({ purpose }) => purpose === 'staff');
  const nobody = [...open.address.values()]
    .filter(({ subnet, gateway }) => open.subnet.get(subnet)!.vlan === segment!.id && !gateway)
    .reduce((plan, { id }) => without(plan, { table: 'address', id }), open);
  const letIn = done(nobody, 'addRule', {
    from: [{ zone: [...nobody.zone.values()].find(({ tunnels }) => tunnels.length > 0)!.id }],
    to: [{ vlan: segment!.id }],
    action: 'allow',
  });
  const rules = [...letIn.rule.values()].sort((a, b) => (a.rank < b.rank ? -1 : 1));
  const first = done(letIn, 'moveRule', { rule: rules.at(-1)!.id, before: rules[0]!.id });
  const answer = ask(first, 'dial-in', segment!.name, 'HTTPS');
  expect(answer.summary).toMatch(/^Delivered/);
});
test('where nothing gets in on the uplink, nobody dials in', () => {
  const shut = put(open, 'uplink', uplinkNamed(open, 'fibre'), { outside: 'shared' });
  expect(ask(shut, 'dial-in', 'desk', 'HTTPS').summary).toMatch(
    /^Stopped at the tunnel dial-in: the other side opens it, and nothing gets in on fibre/,
  );
  const [tunnel] = [...open.tunnel.values()];
  expect(ask(put(open, 'tunnel', tunnel!, { enabled: false }), 'dial-in', 'desk', 'HTTPS').summary).toMatch(
    /it is switched off$/,
  );
});
test('it is kept as a question, which goes with the VPN', () => {
  const from = typedSender(open, 'dial-in');
  const fields = questionFields({
    from,
    to: { device: deviceNamed(open, 'desk').id },
    wanted: typedWanted(open, 'HTTPS'),
  });
  const kept = done(open, 'addQuestion', { ...fields, expected: 'delivered', why: 'home office' });
  const [question] = [...kept.question.values()];
  expect(questionText(kept, question!)).toBe('dial-in to desk, tcp 443');
  expect(askedBy(question!).from).toEqual(from);
  const [tunnel] = [...kept.tunnel.values()].map(({ id }) => id);
  expect(done(kept, 'removeTunnel', { tunnel }).question.size).toBe(0);
  expect(rankBetween(null, null)).toBe(question!.rank);
});
