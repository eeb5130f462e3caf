'use client';

import { useState } from 'react';
import { perform } from '@/core/edit';
import { SITE_ID, decodePlan, encodeStep } from '@/core/plan';
import { authorName } from '../session/author';
import { getJson, sendJson } from '../session/api';
import { newSeed } from '../session/session';
import { AskDialog, AskField } from './ask-dialog';
import type { SiteSummary } from './site-list';

interface Props {
  readonly site: SiteSummary;
  readonly onClose: () => void;
}

export function RenameDialog({ site, onClose }: Props) {
  const [name, setName] = useState(site.name);
  // The name is part of the plan: renaming is a change like any other and stands in the history.
  const rename = async () => {
    const { revision, plan } = await getJson<{ revision: number; plan: Parameters<typeof decodePlan>[0] }>(
      `/api/sites/${site.id}/plan`,
    );
    const seed = newSeed();
    const call = {
      operation: 'edit',
      input: { table: 'site', id: SITE_ID, set: { name }, seen: { name: site.name } },
    };
    const change = perform(decodePlan(plan), call, seed);
    if (change.steps.length === 0) return;
    const body = {
      base: revision,
      seed,
      label: change.label,
      ...call,
      author: authorName(),
      steps: change.steps.map(encodeStep),
    };
    await sendJson('POST', `/api/sites/${site.id}/changes`, body);
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
      onAct={() => sendJson('POST', '/api/sites', { duplicate: site.id, name })}
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
      onAct={() => sendJson('DELETE', `/api/sites/${site.id}`, { name })}
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
