'use client';

import { formatAddress, formatPrefix } from '@/core/address';
import {
  type Address,
  type Device,
  type Plan,
  addressesOn,
  interfacesOf,
  subnetsOf,
  vlansOf,
} from '@/core/plan';
import { typedAddress } from '../../session/actions';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Form, FormChoice, FormLine, useTypedForm } from '../../parts/form';

/** The other addresses of a device, and one more: IPv6 beside IPv4, or a second network card in another segment. */
export function MoreAddresses({ plan, device, address }: { plan: Plan; device: Device; address: Address }) {
  const session = useSession();
  const select = useView((state) => state.select);
  const others = interfacesOf(plan, device.id)
    .flatMap((item) => addressesOn(plan, item.id))
    .filter(({ id }) => id !== address.id);
  const home = plan.subnet.get(address.subnet)!.vlan;
  // Its own segment first: a second family is what is mostly wanted.
  const choices = vlansOf(plan)
    .toSorted((a, b) => Number(b.id === home) - Number(a.id === home))
    .flatMap((vlan) =>
      subnetsOf(plan, vlan.id)
        .filter(({ id }) => id !== address.subnet)
        .map(({ id, prefix }) => ({ value: id, label: `${vlan.name} ${formatPrefix(prefix)}` })),
    );
  const form = useTypedForm(
    { subnet: choices[0]?.value ?? '', address: '' },
    ({ subnet, address: typed }) => {
      const wanted = typed.trim() === '' ? null : typedAddress(typed, plan.subnet.get(subnet));
      session.perform({ operation: 'addAddress', input: { device: device.id, subnet, address: wanted } });
    },
    { clear: ['address'] },
  );
  return (
    <section aria-label={`More addresses of ${device.name}`} className="pt-2 text-[14px]">
      <h3 className="font-bold">{others.length > 0 ? 'Has besides' : 'Has no other address'}</h3>
      <ul>
        {others.map((other) => (
          <li key={other.id} className="flex items-center justify-between gap-2 border-b border-rule">
            <button
              type="button"
              className="link mono"
              onClick={() => select(plan.subnet.get(other.subnet)!.vlan, other.id)}
            >
              {formatAddress(other.address)}
            </button>
            <span>{plan.vlan.get(plan.subnet.get(other.subnet)!.vlan)!.name}</span>
          </li>
        ))}
      </ul>
      {choices.length > 0 && (
        <Form form={form} label={`One more address for ${device.name}`}>
          <FormChoice name="subnet" label="In" options={choices} width={210} />
          <FormLine mono name="address" label="Address" placeholder="next free" />
          <button type="submit" className="button">
            Add it
          </button>
        </Form>
      )}
    </section>
  );
}
