'use client';

import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import { formatPrefix } from '@/core/address';
import { type Site, siteKinds } from '@/core/plan';
import { siteDefaults } from '@/core/edit';
import { routes } from '@/contract';
import { ask } from '../session/api';
import { FormChoice, FormLine } from '../parts/form';
import { schools } from '../stations/brief/schools';
import { AskDialog } from './ask-dialog';

const asked = schools.filter((school) => school.whenNew);
/** What is usual for a kind of site. */
const proposed = (kind: Site['kind'], field: string): string =>
  String(
    (siteDefaults[kind] as unknown as Record<string, unknown>)[field] ??
      schools.find((school) => school.field === field)!.options[0]!.value,
  );

const blank = {
  name: '',
  kind: 'office' as Site['kind'],
  space: '',
  ...Object.fromEntries(asked.map(({ field }) => [field, proposed('office', field)])),
};
type Typed = typeof blank & Record<string, string>;

/** A site from a few decisions; everything has the proposal of its kind until it is chosen. */
export function NewSiteDialog({ onClose }: { onClose: () => void }) {
  const router = useRouter();
  const create = async ({ name, kind, space, ...chosen }: Typed) => {
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
    const prefixes = space.split(/[,\s]+/).filter(Boolean);
    const input = { name, kind, ...(prefixes.length ? { space: prefixes } : {}), ...chosen, timeZone: zone };
    const { id } = await ask(routes.sites.create, { body: { create: input } });
    router.push(`/site/${id}/segments`);
  };
  return (
    <AskDialog<Typed> title="New site" act="Make it" initial={blank} onAct={create} onClose={onClose}>
      <Decisions />
    </AskDialog>
  );
}

function Decisions() {
  const { control, setValue, formState } = useFormContext<Typed>();
  const typed = useWatch({ control }) as Typed;
  const { kind } = typed;
  const { dirtyFields } = formState;
  // Another kind proposes anew what nobody chose.
  useEffect(() => {
    for (const { field } of asked) if (!dirtyFields[field]) setValue(field, proposed(kind, field));
  }, [kind, dirtyFields, setValue]);
  return (
    <>
      <FormLine autoFocus name="name" label="Name" placeholder="Row house 12" />
      <FormChoice name="kind" label="Kind" options={siteKinds.map((value) => ({ value, label: value }))} />
      <FormLine
        mono
        name="space"
        label="Address space"
        placeholder={siteDefaults[kind].space.map(formatPrefix).join(', ')}
      />
      {asked.map(({ field, question, options }) => (
        <FormChoice
          key={field}
          name={field}
          label={question}
          options={options}
          below={
            <span className="col-start-2 text-[14px] text-muted">
              {options.find(({ value }) => value === typed[field])?.cost}
            </span>
          }
        />
      ))}
    </>
  );
}
