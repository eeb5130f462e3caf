'use client';

import { useState } from 'react';
import { type Plan, type Vlan, gatewaysOf, hostOf, routersOf, subnetsOf } from '@/core/plan';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { Problem } from '../../parts/problem';
import { Property } from '../../parts/property';

/** Which router the gateway of a segment is; shown where there are several. */
export function RoutedBy({ plan, vlan }: { plan: Plan; vlan: Vlan }) {
  const session = useSession();
  const [problem, setProblem] = useState('');
  const routers = routersOf(plan);
  const gateway = subnetsOf(plan, vlan.id).flatMap((subnet) => gatewaysOf(plan, subnet.id))[0];
  if (routers.length < 2 || !gateway) return null;
  return (
    <Property label="Routed by">
      <Choice
        label="Routed by"
        value={hostOf(plan, gateway).device.id}
        options={routers.map(({ id, name }) => ({ value: id, label: name }))}
        onChoose={(device) =>
          setProblem(
            problemOf(() =>
              session.perform({ operation: 'routeSegmentBy', input: { vlan: vlan.id, device } }),
            ),
          )
        }
      />
      <Problem text={problem} className="text-[13px]" />
    </Property>
  );
}
