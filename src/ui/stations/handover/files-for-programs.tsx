import { routes } from '@/contract';
import { type Plan, byName, recordTitle } from '@/core/plan';
import { askingPorts } from '@/core/model/guards';
import { pathOf } from '../../session/api';
import { Fold } from '../../parts/fold';
import { Item } from './item';

/** Files that other programs read as they are: a RADIUS server, and boxes that run Linux. Secrets are put in there, never here. */
export function FilesForPrograms({ plan, site }: { plan: Plan; site: string }) {
  const { files } = routes;
  const asked = plan.radius.size > 0 || plan.identity.size > 0;
  const named = [
    ...[...plan.radio.values()].map((radio) => ({ id: radio.id, name: recordTitle(plan, 'radio', radio) })),
    ...askingPorts(plan).map(({ port }) => ({ id: port.id, name: recordTitle(plan, 'port', port) })),
  ].sort((a, b) => byName(a.name, b.name));
  return (
    <>
      {asked && (
        <>
          <Item
            what="Boxes that ask, for FreeRADIUS"
            about="a clients.conf; put the secret of each box where its placeholder stands"
          >
            <a className="button" href={pathOf(files.radiusClients, { site })} download>
              Download clients
            </a>
          </Item>
          <Item
            what="Devices that may be let in, for FreeRADIUS"
            about="a users file with the segment of each device and placeholders for passwords"
          >
            <a className="button" href={pathOf(files.radiusUsers, { site })} download>
              Download users
            </a>
          </Item>
        </>
      )}
      {plan.telephony.size > 0 && (
        <Item
          what="What telephones are told, for dnsmasq"
          about="the range of each voice segment with its boot server and where to register"
        >
          <a className="button" href={pathOf(files.telephones, { site })} download>
            Download options
          </a>
        </Item>
      )}
      {named.length > 0 && (
        <li className="border-b border-rule py-2">
          <Fold
            id="hostapd"
            title="For hostapd"
            told={`${named.length} files: radios with their networks, ports that ask who is there`}
          >
            <ul>
              {named.map(({ id, name }) => (
                <Item key={id} what={name} about="placeholders stand for keys and secrets">
                  <a className="button" href={pathOf(files.hostapd, { site, query: { of: id } })} download>
                    Download {name}
                  </a>
                </Item>
              ))}
            </ul>
          </Fold>
        </li>
      )}
    </>
  );
}
