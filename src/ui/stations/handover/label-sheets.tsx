'use client';

import { useState } from 'react';
import { routes } from '@/contract';
import { labelGrids, labelKinds, labelsOf } from '@/core/formats';
import { boxesInOrder } from '@/core/model/switching';
import { type Plan, badInput } from '@/core/plan';
import { pathOf } from '../../session/api';
import { Choice } from '../../parts/choice';
import { counted } from '../../parts/counted';
import { Field } from '../../parts/field';

const optionsOf = (words: readonly string[]) => words.map((value) => ({ value, label: value }));

/** How many labels of the first sheet are gone. Throws a Refusal. */
function goneTyped(text: string, most: number): number {
  const typed = text.trim();
  const gone = typed === '' ? 0 : /^\d{1,4}$/.test(typed) ? Number(typed) : null;
  if (gone === null || gone >= most)
    throw badInput(
      `“${typed}” is not a number of labels; a sheet has ${most}. Write one below that, or nothing.`,
      'skip',
    );
  return gone;
}

/** Where the codes lead to. Throws a Refusal. */
function baseTyped(text: string): string {
  const typed = text.trim().replace(/\/+$/, '');
  if (!/^https?:\/\/[^\s/]+$/.test(typed))
    throw badInput(
      `“${typed}” is no address of this program; write one like http://192.0.2.10:4380.`,
      'base',
    );
  return typed;
}

/** Sheets of labels for ports, cables, boxes and outlets. */
export function LabelSheets({ plan, site }: { plan: Plan; site: string }) {
  const [what, setWhat] = useState<(typeof labelKinds)[number]>('ports');
  const [id, setId] = useState(labelGrids[0]!.id);
  const [device, setDevice] = useState('');
  const [skip, setSkip] = useState(0);
  const [base, setBase] = useState(() => window.location.origin);
  const grid = labelGrids.find((one) => one.id === id)!;
  const places = grid.columns * grid.rows;
  const boxes = boxesInOrder(plan).map((box) => plan.device.get(box.device)!);
  const count = labelsOf(plan, what, device || null).length;
  const sheets = Math.ceil((count + skip) / places);
  return (
    <div className="grid max-w-[620px] grid-cols-[auto_1fr] items-end gap-x-4 gap-y-2 py-2">
      <span>For</span>
      <span className="border-b border-ink">
        <Choice
          label="Labels for"
          value={what}
          options={optionsOf(labelKinds)}
          onChoose={(one) => setWhat(one as typeof what)}
        />
      </span>
      <span>Of</span>
      <span className="border-b border-ink">
        <Choice
          label="Labels of"
          value={device}
          options={[
            { value: '', label: 'every box' },
            ...boxes.map((box) => ({ value: box.id, label: box.name })),
          ]}
          onChoose={setDevice}
        />
      </span>
      <span>Sheet</span>
      <span className="border-b border-ink">
        <Choice
          label="Sheet of labels"
          value={id}
          options={labelGrids.map((one) => ({ value: one.id, label: one.title }))}
          onChoose={(one) => {
            setId(one);
            setSkip(0);
          }}
        />
      </span>
      <span>Gone from the first sheet</span>
      <span className="border-b border-ink">
        <Field
          label="Labels gone from the first sheet"
          mono
          value={String(skip)}
          onCommit={(text) => setSkip(goneTyped(text, places))}
        />
      </span>
      <span>Codes lead to</span>
      <span className="border-b border-ink">
        <Field
          label="Where the codes lead to"
          mono
          value={base}
          onCommit={(text) => setBase(baseTyped(text))}
        />
      </span>
      <span />
      {count === 0 ? (
        <p role="status">There are no {what} to label.</p>
      ) : (
        <p className="flex flex-wrap items-center gap-3">
          <a
            className="button"
            href={pathOf(routes.files.labels, {
              site,
              query: { what, grid: id, device: device || undefined, skip, base },
            })}
            download
          >
            Download labels
          </a>
          <span role="status" className="text-[14px] text-muted">
            {counted(count, 'label')} on {counted(sheets, 'sheet')}
          </span>
        </p>
      )}
    </div>
  );
}
