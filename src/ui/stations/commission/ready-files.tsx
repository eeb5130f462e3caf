import { routes } from '@/contract';
import { askingPorts } from '@/core/model/guards';
import { filterOf } from '@/core/model/policy';
import { radiosOf } from '@/core/model/wireless';
import { type Plan, recordTitle, routersOf } from '@/core/plan';
import { pathOf } from '../../session/api';
import { Fold } from '../../parts/fold';

/** Files that a box reads as they are, should it run Linux. */
export function ReadyFiles({ plan, site, device }: { plan: Plan; site: string; device: string }) {
  const { files } = routes;
  const filters = routersOf(plan).some((one) => one.id === device && filterOf(plan, one) === 'stateful');
  const hostapd = [
    ...radiosOf(plan, device).map((radio) => ({ id: radio.id, name: recordTitle(plan, 'radio', radio) })),
    ...askingPorts(plan)
      .filter(({ port }) => port.device === device)
      .map(({ port }) => ({ id: port.id, name: recordTitle(plan, 'port', port) })),
  ];
  const all = [
    ...(filters
      ? [{ name: 'ruleset for nft', href: pathOf(files.ruleset, { site, query: { device } }) }]
      : []),
    ...hostapd.map(({ id, name }) => ({
      name: `${name} for hostapd`,
      href: pathOf(files.hostapd, { site, query: { of: id } }),
    })),
  ];
  if (all.length === 0) return null;
  return (
    <div className="no-print pt-2">
      <Fold
        id="ready-files"
        title="Ready files, should it run Linux"
        told={all.map(({ name }) => name).join(', ')}
      >
        <p className="flex flex-wrap gap-2 py-2">
          {all.map(({ name, href }) => (
            <a key={href} className="button" href={href} download>
              Download {name}
            </a>
          ))}
        </p>
      </Fold>
    </div>
  );
}
