'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { formatPrefix } from '@/core/address';
import { type Site, siteKinds } from '@/core/plan';
import { siteDefaults } from '@/core/edit';
import { routes } from '@/contract';
import { ask } from '../session/api';
import { Choice } from '../parts/field';
import { schools } from '../stations/brief/schools';
import { AskDialog, AskField } from './ask-dialog';

/** A site from a few decisions; everything has the proposal of its kind until it is chosen. */
export function NewSiteDialog({ onClose }: { onClose: () => void }) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [kind, setKind] = useState<Site['kind']>('office');
  const [space, setSpace] = useState('');
  const [chosen, setChosen] = useState<Readonly<Record<string, string>>>({});
  const defaults = siteDefaults[kind];
  const proposed = (field: string) =>
    String(
      (defaults as unknown as Record<string, unknown>)[field] ??
        schools.find((school) => school.field === field)!.options[0]!.value,
    );
  const create = async () => {
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
    const prefixes = space.split(/[,\s]+/).filter(Boolean);
    const input = { name, kind, ...(prefixes.length ? { space: prefixes } : {}), ...chosen, timeZone: zone };
    const { id } = await ask(routes.sites.create, { body: { create: input } });
    router.push(`/site/${id}/segments`);
  };
  return (
    <AskDialog title="New site" act="Make it" onAct={create} onClose={onClose}>
      <AskField autoFocus label="Name" value={name} onChange={setName} placeholder="Row house 12" />
      <label className="block py-1">
        Kind
        <Choice
          lined
          label="Kind"
          value={kind}
          options={siteKinds.map((value) => ({ value, label: value }))}
          onChoose={setKind}
        />
      </label>
      <AskField
        label="Address space"
        value={space}
        onChange={setSpace}
        placeholder={defaults.space.map(formatPrefix).join(', ')}
      />
      {schools
        .filter((school) => school.whenNew)
        .map((school) => {
          const value = chosen[school.field] ?? proposed(school.field);
          return (
            <label key={school.field} className="block py-1">
              {school.question}
              <Choice
                lined
                label={school.question}
                value={value}
                options={school.options}
                onChoose={(next) => setChosen({ ...chosen, [school.field]: next })}
              />
              <span className="block text-[14px] text-muted">
                {school.options.find((option) => option.value === value)?.cost}
              </span>
            </label>
          );
        })}
    </AskDialog>
  );
}
