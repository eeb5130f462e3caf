'use client';

import { useMemo, useState } from 'react';
import { formatAddress, maskOf, parseMac } from '@/core/address';
import { badInput, type Plan, portTitle } from '@/core/plan';
import { type Hearing, discover, typedBoxPort, typedEntry } from '@/core/rehearse';
import { fabric } from '@/core/model/switching';
import { today } from '@/today';
import { attempt } from '../../session/attempt';
import { useView } from '../../session/view';
import { Problem } from '../../parts/problem';
import { WorksMark } from '../../parts/works-mark';
import { Remedies } from '../../shell/remedies';
import { EndLine } from './ends';
import { TypedLine } from '../../parts/typed-line';

const hours = (seconds: number) =>
  seconds % 3600 === 0 ? `${seconds / 3600} h` : `${Math.round(seconds / 60)} min`;

/** Plugs a laptop into any port and shows what DHCP makes of it. */
export function PlugInPanel({ plan }: { plan: Plan }) {
  const chosen = useView((state) => state.ports[0]);
  const first = useMemo(() => firstPort(plan, chosen), [plan, chosen]);
  const [typed, setTyped] = useState<string | null>(null);
  const [mac, setMac] = useState('');
  const [rogue, setRogue] = useState('');
  const port = typed ?? first;
  const found = useMemo(
    () =>
      port.trim() === ''
        ? null
        : attempt(() => {
            const known = mac.trim() === '' ? null : parseMac(mac);
            if (mac.trim() !== '' && known === null)
              throw badInput(
                `“${mac.trim()}” is no MAC address; write twelve hexadecimal digits like 00:00:5E:00:53:01.`,
                'mac',
              );
            return discover(
              plan,
              {
                at: typedEntry(plan, port),
                mac: known,
                rogueAt: rogue.trim() === '' ? null : typedBoxPort(plan, rogue),
              },
              today(),
            );
          }),
    [plan, port, mac, rogue],
  );
  return (
    <section aria-label="DHCP" className="mb-5 max-w-[980px]">
      <form className="flex flex-wrap items-end gap-3 pb-2" onSubmit={(event) => event.preventDefault()}>
        <EndLine
          plan={plan}
          label="Plug a laptop into, or join"
          value={port}
          placeholder="sw-a 7"
          onType={setTyped}
        />
        <TypedLine label="with the MAC address" value={mac} placeholder="any" width={190} onType={setMac} />
        <EndLine
          plan={plan}
          label="while a stray router is in"
          value={rogue}
          placeholder="no port"
          onType={setRogue}
        />
      </form>
      {!found && <p className="text-muted">Name a port: the laptop asks for an address from there.</p>}
      {found && 'refusal' in found && <Problem text={found.refusal.message} />}
      {found && 'value' in found && (
        <>
          <p
            className="flex items-start gap-2 border-2 border-ink bg-sheet px-2 py-1.5 text-[16px]"
            role="status"
          >
            <span className="pt-1">
              <WorksMark works={found.value.taken !== null && !found.value.taken.rogue} />
            </span>
            <span>
              {found.value.vlan && (
                <b>
                  {found.value.vlan.vid} {found.value.vlan.code} {found.value.vlan.name}:{' '}
                </b>
              )}
              {found.value.summary}
            </span>
          </p>
          {found.value.remedies.length > 0 && <Remedies remedies={found.value.remedies} />}
          <ol className="py-2" aria-label="The conversation">
            <Spoken
              who="laptop"
              what="DISCOVER"
              detail={`a broadcast from ${port.trim()}, without an address`}
            />
            {found.value.hearings.map((hearing, i) => (
              <Answer key={i} hearing={hearing} />
            ))}
            {found.value.taken && (
              <>
                <Spoken
                  who="laptop"
                  what="REQUEST"
                  detail={`${formatAddress(found.value.taken.offer!.address)} from ${found.value.taken.name}`}
                />
                <Spoken
                  who={found.value.taken.name}
                  what="ACK"
                  detail={`for ${hours(found.value.taken.offer!.seconds)}`}
                />
              </>
            )}
            {found.value.hearings.length === 0 && (
              <Spoken
                who="nobody"
                what="hears it"
                detail="the laptop asks again after 4, 8 and 16 seconds, and gives itself an address of 169.254.0.0/16"
              />
            )}
          </ol>
        </>
      )}
    </section>
  );
}

function Spoken({
  who,
  what,
  detail,
  stop = false,
}: {
  who: string;
  what: string;
  detail: string;
  stop?: boolean;
}) {
  return (
    <li
      className={`grid grid-cols-[minmax(90px,220px)_92px_1fr] max-[699px]:grid-cols-1 gap-x-3 border-b border-l-4 border-rule py-1 pl-2 ${stop ? 'border-l-stop' : 'border-l-ink'}`}
    >
      <b className="mono truncate">{who}</b>
      <span className="mono">{what}</span>
      <span>{detail}</span>
    </li>
  );
}

function Answer({ hearing: { name, by, offer, why, rogue } }: { hearing: Hearing }) {
  const relayed = by === null ? '' : `, by the relay of ${by}`;
  if (!offer) return <Spoken who={name} what="no offer" detail={`${why}${relayed}`} stop />;
  const parts = [
    `${formatAddress(offer.address)} mask ${maskOf(offer.length)}`,
    offer.gateway === null ? 'no gateway' : `gateway ${formatAddress(offer.gateway)}`,
    offer.dns.length > 0 ? `DNS ${offer.dns.join(', ')}` : 'no DNS server',
    `lease ${hours(offer.seconds)}`,
  ];
  return <Spoken who={name} what="OFFER" detail={`${parts.join(', ')}: ${why}${relayed}`} stop={rogue} />;
}

/** The port chosen on a face, else the first access port there is. */
function firstPort(plan: Plan, chosen: string | undefined): string {
  const known = chosen === undefined ? undefined : plan.port.get(chosen);
  if (known && fabric(plan).seats.has(known.id) && known.number > 0) return portTitle(plan, known);
  for (const bridge of fabric(plan).bridges)
    for (const port of bridge.ports)
      if (port.role === 'access' && port.number > 0) return portTitle(plan, port);
  return '';
}
