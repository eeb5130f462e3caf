import { routes } from '@/contract';
import { openFiles } from '@/core/formats';
import type { Plan } from '@/core/plan';
import { pathOf } from '../../session/api';
import { Fold } from '../../parts/fold';

/** Files that a box reads as they are, should it run Linux. */
export function ReadyFiles({ plan, site, device }: { plan: Plan; site: string; device: string }) {
  const all = openFiles(plan).filter((file) => file.device === device);
  if (all.length === 0) return null;
  return (
    <div className="no-print pt-2">
      <Fold
        id="ready-files"
        title="Ready files, should it run Linux"
        told={all.map(({ title }) => title).join(', ')}
      >
        <p className="flex flex-wrap gap-2 py-2">
          {all.map(({ path, title }) => (
            <a
              key={path}
              className="button"
              href={pathOf(routes.files.open, { site, query: { path } })}
              download
            >
              Download {title}
            </a>
          ))}
        </p>
      </Fold>
    </div>
  );
}
