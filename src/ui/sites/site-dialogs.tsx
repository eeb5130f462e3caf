'use client';

import { useState } from 'react';
import { type SiteSummary, routes } from '@/contract';
import { type Call, SITE_ID, digestOf } from '@/core/plan';
import { ask } from '../session/api';
import { authorName, browserId, newSeed } from '../session/author';
import { AskDialog, AskField } from './ask-dialog';

interface Props {
  readonly site: SiteSummary;
  readonly onClose: () => void;
}

export function RenameDialog({ site, onClose }: Props) {
  const [name, setName] = useState(site.name);
  // The name is part of the plan: renaming is a change like any other and stands in the history.
  const rename = async () => {
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
    <AskDialog title="Rename" act="Rename it" onAct={rename} onClose={onClose}>
      <AskField autoFocus label="Name" value={name} onChange={setName} />
    </AskDialog>
  );
}

export function DuplicateDialog({ site, onClose }: Props) {
  const [name, setName] = useState(`${site.name} copy`);
  return (
    <AskDialog
      title="Duplicate"
      act="Duplicate it"
      onAct={async () => void (await ask(routes.sites.create, { body: { duplicate: site.id, name } }))}
      onClose={onClose}
    >
      <AskField autoFocus label="Name of the copy" value={name} onChange={setName} />
    </AskDialog>
  );
}

export function DeleteDialog({ site, onClose }: Props) {
  const [name, setName] = useState('');
  return (
    <AskDialog
      title="Delete"
      act="Delete it for good"
      onAct={async () => void (await ask(routes.sites.remove, { site: site.id, body: { name } }))}
      onClose={onClose}
    >
      <p>
        This deletes <b>{site.name}</b> with {site.segments} segments, {site.fixed} fixed addresses and its
        whole history. It cannot be undone; archiving can.
      </p>
      <AskField autoFocus label="Type the name of the site" value={name} onChange={setName} />
    </AskDialog>
  );
}
