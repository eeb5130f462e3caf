'use client';

import { useState } from 'react';
import { type Call, type Plan, Refusal } from '@/core/plan';
import { type Advice, type Visitor, adviseReach, visitors } from '@/core/edit';
import { cardNamed } from '@/core/model/uplink';
import { attempt } from '../../session/attempt';
import { wholeNumber } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { Form, FormLine, useTypedForm } from '../../parts/form';
import { Problem } from '../../parts/problem';
import { TypedLine } from '../../parts/typed-line';
import { useHostNames } from './host-names';
import { WorksMark } from '../../parts/works-mark';
import { worksWord } from './words';

const visitorOptions = visitors.map((value) => ({ value, label: value }));

/** Asks what is to be reached by whom, and ranks the ways with what each needs; recomputed as the plan changes. */
export function ReachAdviser({ plan }: { plan: Plan }) {
  const hosts = useHostNames(plan);
  const [host, setHost] = useState('');
  const [port, setPort] = useState('443');
  const [who, setWho] = useState<Visitor>('own people');
  const asked = host.trim() !== '';
  const answer = attempt(() => {
    const number = wholeNumber(port, 'The port');
    if (number < 1 || number > 65_535)
      throw new Refusal('bad-input', `The port is ${number}; write a number from 1 to 65535.`);
    const wish = { target: cardNamed(plan, host).id, protocol: 'tcp' as const, port: number, who };
    return { wish, advice: adviseReach(plan, wish) };
  });
  return (
    <section aria-label="Reach a device from outside">
      <h3 className="border-b-2 border-ink font-bold">Reach a device from outside</h3>
      <div className="flex flex-wrap items-end gap-2 py-1">
        <TypedLine
          label="Which device"
          mono={false}
          value={host}
          known={hosts}
          placeholder="host name"
          onType={setHost}
        />
        <TypedLine label="Its port" value={port} placeholder="443" width={104} onType={setPort} />
        <label className="w-[140px] text-[13px]">
          By whom
          <Choice lined label="By whom" value={who} options={visitorOptions} onChoose={setWho} />
        </label>
      </div>
      {!asked && (
        <p className="text-muted">Name the device; the ways to it are ranked, with what each needs.</p>
      )}
      {asked && 'refusal' in answer && <Problem text={answer.refusal.message} className="text-[14px]" />}
      {asked && 'value' in answer && (
        <ol aria-label="Ways in" className="max-w-[860px]">
          {answer.value.advice.map((item, i) => (
            <li key={item.way} className="border-b border-rule py-2">
              <p className="flex items-center gap-2">
                <WorksMark works={item.works} />
                <b>
                  {i + 1}. {item.name}
                </b>
                <span className="text-[14px] text-muted">{worksWord(item.works)}</span>
              </p>
              <p>{item.why}</p>
              <ul className="list-[square] pl-6 text-[14px]">
                {item.needs.map((need) => (
                  <li key={need}>{need}</li>
                ))}
              </ul>
              {offered(item) && <TakeWay plan={plan} advice={item} wish={answer.value.wish} />}
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}

const actions = {
  forward: (uplink: string) => `Make the forward on ${uplink}`,
  vpn: (uplink: string) => `Make the VPN on ${uplink}`,
  ipv6: () => 'Open it for IPv6',
  'calls-out': () => 'Let it call out',
} as const;

/** A device that may call out needs nothing more; the other ways are offered where they can work. */
const offered = ({ way, works, uplink }: Advice): boolean =>
  uplink !== null && (way === 'calls-out' ? works === false : works !== false);

/** Makes the records of a way in, and the name that follows the address where one is needed. */
function TakeWay({
  plan,
  advice,
  wish,
}: {
  plan: Plan;
  advice: Advice;
  wish: { target: string; protocol: 'tcp' | 'udp' | 'both'; port: number };
}) {
  const session = useSession();
  const set = useView((state) => state.set);
  const uplink = plan.uplink.get(advice.uplink!)!;
  const named = advice.way === 'forward' || advice.way === 'vpn';
  const wantsName = named && uplink.dynamicName === '' && uplink.addressing !== 'static';
  const callFor = (name: string): Call => {
    const { target, protocol, port } = wish;
    const input = { uplink: uplink.id, target, protocol, port, name };
    return advice.way === 'forward'
      ? { operation: 'takeForward', input }
      : { operation: 'takeWay', input: { ...input, way: advice.way } };
  };
  const form = useTypedForm({ name: '' }, ({ name }) => {
    const change = session.perform(callFor(name));
    const forward = change.steps.find(({ table }) => table === 'forward')?.id ?? null;
    set({ uplink: uplink.id, forward });
  });
  const preview = attempt(() => session.preview(callFor('')));
  if ('value' in preview && preview.value.steps.length === 0)
    return <p className="pt-1 font-bold">This is made already.</p>;
  return (
    <Form form={form}>
      {wantsName && (
        <FormLine
          mono
          name="name"
          label={`Dynamic name, kept by ${plan.device.get(uplink.device)!.name}`}
          placeholder="site.example.net"
          width={260}
        />
      )}
      <button type="submit" className="button">
        {actions[advice.way](uplink.name)}
      </button>
    </Form>
  );
}
