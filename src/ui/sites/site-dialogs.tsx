'use client';

import { type SiteSummary, routes } from '@/contract';
import { type Call, SITE_ID, digestOf } from '@/core/plan';
import { ask } from '../session/api';
import { authorName, browserId, newSeed } from '../session/author';
import { FormLine } from '../parts/form';
import { AskDialog } from './ask-dialog';

interface Named {
  readonly name: string;
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

export function DuplicateDialog({ site, onClose }: Props) {
  return (
    <AskDialog
      title="Duplicate"
      act="Duplicate it"
      initial={{ name: `${site.name} copy` }}
      onAct={async ({ name }: Named) =>
        void (await ask(routes.sites.create, { body: { duplicate: site.id, name } }))
      }
      onClose={onClose}
    >
      <FormLine autoFocus name="name" label="Name of the copy" />
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
