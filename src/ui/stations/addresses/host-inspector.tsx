'use client';

import { formatAddress, parseAddress, maskOf, parseMask } from '@/core/address';
import { dnsText } from '@/core/model/hosts';
import { ownSettings } from '@/core/model/hosts';
import { toWire, Refusal, domainOf, gatewaysOf, hostOf } from '@/core/plan';
import { ssidsOf } from '@/core/model/wireless';
import { typedAddress, useEdit } from '../../session/actions';
import { usePlan, useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Choice } from '../../parts/choice';
import { Field } from '../../parts/field';
import { Jacket } from '../../parts/jacket';
import { Property } from '../../parts/property';
import { RecordField } from '../../parts/record-field';
import { Listeners } from '../internet/listeners';
import { PluggedIn } from '../gear/plugged-in';
import { firewallWords } from './host-options';
import { MoreAddresses } from './more-addresses';
import { SegmentInspector } from '../segments/segment-inspector';

/** The selected host with the settings really on it, where they differ from its subnet's. */
export function HostInspector() {
  const plan = usePlan();
  const session = useSession();
  const edit = useEdit();
  const id = useView((state) => state.address);
  const address = id ? plan.address.get(id) : undefined;
  if (!address) return <SegmentInspector />;
  const subnet = plan.subnet.get(address.subnet)!;
  const vlan = plan.vlan.get(subnet.vlan)!;
  const { device, interface: item } = hostOf(plan, address);
  const wire = toWire('interface', item);
  const domain = domainOf(plan, subnet);
  // An empty line and “subnet” are the subnet’s; “none” is that there is none.
  const asSubnet = (text: string) => text === '' || /^subnet$/i.test(text);
  const none = (text: string) => /^none$/i.test(text);
  const noAddress = typeof address.address === 'number' ? '0.0.0.0' : '::';
  const own = ownSettings(item, address.address);
  const commitMask = (text: string) => {
    const length = asSubnet(text) ? null : parseMask(text);
    if (length === null && !asSubnet(text))
      throw new Refusal('bad-input', `“${text}” is not a mask; write /26, 26 or 255.255.255.192.`);
    edit('interface', item.id, 'ownLength', length, item.ownLength);
  };
  const commitDns = (text: string) => {
    const list = asSubnet(text)
      ? null
      : none(text)
        ? []
        : text
            .split(/[,\s]+/)
            .filter(Boolean)
            .map((entry) => typedAddress(entry, subnet));
    edit('interface', item.id, 'ownDns', list, wire.ownDns);
  };
  const mask =
    typeof subnet.prefix.address === 'number' ? maskOf(subnet.prefix.length) : `/${subnet.prefix.length}`;
  return (
    <section aria-label="Selected host" className="pb-4">
      <h2 className="flex flex-wrap items-center gap-2 pb-2 text-[16px] font-bold">
        <Jacket vlan={vlan} /> {device.name}
      </h2>
      <Property label="Full name">
        <span className="mono px-1 break-all">{domain ? `${device.name}.${domain}` : device.name}</span>
      </Property>
      <Property label="Address">
        <span className="mono px-1">{formatAddress(address.address)}</span>
      </Property>
      <PluggedIn plan={plan} device={device} />
      {plan.ssid.size > 0 && (
        <Property label="On the air">
          <Choice
            label="Wireless network it joins"
            value={item.joins ?? ''}
            options={[
              { value: '', label: 'none, it has a cable' },
              ...ssidsOf(plan).map((ssid) => ({ value: ssid.id, label: ssid.name })),
            ]}
            onChoose={(joins) => edit('interface', item.id, 'joins', joins || null)}
          />
        </Property>
      )}
      <Property label="Own mask">
        <Field
          mono
          label="Own mask"
          value={own.length === undefined ? '' : `/${own.length}`}
          placeholder={`as its subnet: ${mask}`}
          onCommit={commitMask}
        />
      </Property>
      <Property label="Own gateway">
        <Field
          mono
          label="Own gateway"
          value={own.gateway === undefined ? '' : own.gateway === null ? 'none' : formatAddress(own.gateway)}
          placeholder={
            gatewaysOf(plan, subnet.id)
              .map((gateway) => formatAddress(gateway.address))
              .join(', ') || 'none'
          }
          onCommit={(text) => {
            const typed = asSubnet(text) ? null : none(text) ? noAddress : typedAddress(text, subnet);
            if (typed !== null && parseAddress(typed) === null)
              throw new Refusal(
                'bad-input',
                `“${text}” is not an address; write .1, the whole address, or none where it has no gateway.`,
              );
            edit('interface', item.id, 'ownGateway', typed, wire.ownGateway);
          }}
        />
      </Property>
      <Property label="Own DNS">
        <Field
          mono
          label="Own DNS"
          value={item.ownDns === null ? '' : item.ownDns.map(formatAddress).join(', ') || 'none'}
          placeholder={dnsText(plan, subnet) || 'none'}
          onCommit={commitDns}
        />
      </Property>
      <MoreAddresses key={address.id} plan={plan} device={device} address={address} />
      <RecordField table="device" record={device} field="firewall" words={firewallWords} />
      <Listeners plan={plan} device={device} />
      <div className="flex flex-wrap gap-2 pt-3">
        {item.ownLength !== null || item.ownGateway !== null || item.ownDns !== null ? (
          <button
            type="button"
            className="button"
            onClick={() => session.perform({ operation: 'useSubnetSettings', input: { interface: item.id } })}
          >
            Use the subnet’s settings
          </button>
        ) : null}
        <button
          type="button"
          className="button"
          onClick={() => session.perform({ operation: 'moveToFree', input: { address: address.id } })}
        >
          Move to next free
        </button>
        <button
          type="button"
          className="button"
          onClick={() => session.perform({ operation: 'removeHosts', input: { addresses: [address.id] } })}
        >
          Remove
        </button>
      </div>
    </section>
  );
}
