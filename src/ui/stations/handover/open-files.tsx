import { routes } from '@/contract';
import { type OpenFile, madeFiles, openFiles } from '@/core/formats';
import { type Plan, groupBy } from '@/core/plan';
import { pathOf } from '../../session/api';

/** The files of a plan one by one: of the site, then box by box. */
export function OpenFiles({ plan, site }: { plan: Plan; site: string }) {
  const all = [...openFiles(plan), ...madeFiles(plan).map((file) => ({ ...file, device: null }))];
  return [...groupBy(all, (file) => titleOf(plan, file))].map(([title, files]) => (
    <section key={title} aria-label={`Files for ${title}`} className="pt-2">
      <h4 className="font-bold">{title}</h4>
      <ul>
        {files.map(({ path, title: what }) => (
          <li key={path} className="flex flex-wrap items-center gap-3 border-b border-rule py-1">
            <span className="min-w-[220px] flex-1">{what.charAt(0).toUpperCase() + what.slice(1)}</span>
            <span className="mono text-[13px] text-muted">{path}</span>
            <a
              className="button"
              href={pathOf(routes.files.open, { site, query: { path } })}
              aria-label={`Download ${path}`}
              download
            >
              Download
            </a>
          </li>
        ))}
      </ul>
    </section>
  ));
}

/** A box by its name; files of the site by what they are about. */
function titleOf(plan: Plan, { device, path }: Pick<OpenFile, 'device' | 'path'>): string {
  if (device !== null) return plan.device.get(device)!.name;
  if (path.endsWith('.svg')) return 'drawings';
  if (/\.(csv|xlsx)$/.test(path)) return 'spreadsheets';
  return path.startsWith('names/') ? 'names' : path.startsWith('radius/') ? 'a RADIUS server' : 'the site';
}
