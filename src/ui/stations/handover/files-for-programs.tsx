import dynamic from 'next/dynamic';
import { routes } from '@/contract';
import type { Plan } from '@/core/plan';
import { pathOf } from '../../session/api';
import { Fold } from '../../parts/fold';
import { Item } from './item';

const LabelSheets = dynamic(() => import('./label-sheets').then((m) => m.LabelSheets));
const OpenFiles = dynamic(() => import('./open-files').then((m) => m.OpenFiles));

/** Files that other programs read as they are: servers, and boxes that run Linux. Secrets are put in there, never here. */
export function FilesForPrograms({ plan, site }: { plan: Plan; site: string }) {
  return (
    <>
      <Item
        what="Everything in one archive"
        about="all files with a manifest; placeholders stand for keys and secrets"
      >
        <a className="button" href={pathOf(routes.files.archive, { site })} download>
          Download archive
        </a>
      </Item>
      <li className="border-b border-rule py-2">
        <Fold
          id="label-sheets"
          title="Labels to stick"
          told="for ports, cables, boxes and outlets, with codes that open their records"
        >
          <LabelSheets plan={plan} site={site} />
        </Fold>
      </li>
      <li className="border-b border-rule py-2">
        <Fold
          id="open-files"
          title="One by one, for other programs"
          told="interfaces, rules, leases, names, radios, who is let in"
        >
          <OpenFiles plan={plan} site={site} />
        </Fold>
      </li>
    </>
  );
}
