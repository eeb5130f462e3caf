'use client';

import { interfacesNamed, namesOfInterfaces } from '@/core/model/hosts';
import { type Plan, type Vlan, gatewaysOf, subnetsOf } from '@/core/plan';
import { useSession } from '../../session/context';
import { Field } from '../../parts/field';
import { Property } from '../../parts/property';

/** The DHCP servers to which the router of a segment passes questions on; by host name. */
export function RelayLine({ plan, vlan }: { plan: Plan; vlan: Vlan }) {
  const session = useSession();
  const gateway = subnetsOf(plan, vlan.id).flatMap((subnet) => gatewaysOf(plan, subnet.id))[0];
  if (!gateway) return null;
  const servers = [...plan.relay.values()].find((relay) => relay.interface === gateway.interface)?.servers;
  return (
    <Property label="DHCP relay to">
      <Field
        mono
        label="DHCP relay to"
        value={namesOfInterfaces(plan, servers ?? [])}
        placeholder="none"
        onCommit={(text) =>
          session.perform({
            operation: 'setRelay',
            input: { interface: gateway.interface, servers: interfacesNamed(plan, text, vlan.id, servers) },
          })
        }
      />
    </Property>
  );
}
