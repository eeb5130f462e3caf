'use client';

import { type SiteSummary, routes } from '@/contract';
import { formatPrefix, parsePrefix } from '@/core/address';
import { type Call, SITE_ID, badInput, digestOf } from '@/core/plan';
import { ask } from '../session/api';
import { authorName, browserId, newSeed } from '../session/author';
import { FormLine } from '../parts/form';
import { AskDialog } from './ask-dialog';

interface Named {
  readonly name: string;
}
interface Copied extends Named {
  readonly space: string;
  readonly domain: string;
  /** What in device names is replaced, and what stands in its place. */
  readonly from: string;
  readonly to: string;
}
interface Props {
  readonly site: SiteSummary;
  readonly onClose: () => void;
}

export function RenameDialog({ site, onClose }: Props) {
  // The name is part of the plan: renaming is a change like any other and stands in the history.
  const rename = async ({ name }: Named) => {
    const call = {
      operation: 'edit',
      input: { table: 'site', id: SITE_ID, set: { name }, seen: { name: site.name } },
    } satisfies Call;
    const nobody = { digest: digestOf([]), reviewed: false };
    const body = { kind: 'change' as const, base: site.revision, seed: newSeed(), ...nobody, ...call };
    await ask(routes.journal.commit, {
      site: site.id,
      body: { ...body, author: authorName(), browser: browserId() },
    });
  };
  return (
    <AskDialog title="Rename" act="Rename it" initial={{ name: site.name }} onAct={rename} onClose={onClose}>
      <FormLine autoFocus name="name" label="Name" />
    </AskDialog>
  );
}

/** A prefix as typed; nothing leaves the addresses as they are. Throws a Refusal. */
function spaceTyped(text: string): string | undefined {
  if (text.trim() === '') return undefined;
  const parsed = parsePrefix(text.trim());
  if (!parsed)
    throw badInput(`“${text.trim()}” is no address space; write one like 10.30.0.0/16, or nothing.`, 'space');
  return formatPrefix(parsed.prefix);
}

export function DuplicateDialog({ site, onClose }: Props) {
  return (
    <AskDialog
      title="Duplicate"
      act="Duplicate it"
      initial={{ name: `${site.name} copy`, space: '', domain: '', from: '', to: '' }}
      onAct={async ({ name, space, domain, from, to }: Copied) => {
        const own = spaceTyped(space);
        await ask(routes.sites.create, {
          body: {
            duplicate: site.id,
            name,
            ...(own === undefined ? {} : { space: own }),
            ...(domain.trim() === '' ? {} : { domain: domain.trim() }),
            ...(from === '' ? {} : { names: { from, to } }),
          },
        });
      }}
      onClose={onClose}
    >
      <FormLine autoFocus name="name" label="Name of the copy" />
      <FormLine name="space" label="Its IPv4 space" placeholder="the same, or one like 10.30.0.0/16" />
      <FormLine name="domain" label="Its domain" placeholder="the same" />
      <FormLine name="from" label="In device names, instead of" placeholder="nothing is replaced" />
      <FormLine name="to" label="put" />
    </AskDialog>
  );
}

export function DeleteDialog({ site, onClose }: Props) {
  return (
    <AskDialog
      title="Delete"
      act="Delete it for good"
      initial={{ name: '' }}
      onAct={async ({ name }: Named) =>
        void (await ask(routes.sites.remove, { site: site.id, body: { name } }))
      }
      onClose={onClose}
    >
      <p>
        This deletes <b>{site.name}</b> with {site.segments} segments, {site.fixed} fixed addresses and its
        whole history. It cannot be undone; archiving can.
      </p>
      <FormLine autoFocus name="name" label="Type the name of the site" />
    </AskDialog>
  );
}
