'use client';

import { consoleWords, modelInShort, wayWords } from '@/core/commission';
import { type Box, type BoxModel, type Plan, byName, modelNamed } from '@/core/plan';
import { useSession } from '../../session/context';
import { Field } from '../../parts/field';
import { Fold } from '../../parts/fold';
import { Property } from '../../parts/property';
import { RecordField } from '../../parts/record-field';
import { factoryAddress, factoryAddressText } from './factory-address';

/** How one gets into boxes of each model: said once, and taken for all of them. */
export function ModelList({ plan, boxes }: { plan: Plan; boxes: readonly Box[] }) {
  const session = useSession();
  const names = [...new Set(boxes.map(({ model }) => model))].sort(byName);
  if (names.length === 0) return null;
  return (
    <section aria-label="Models" className="max-w-[900px] pt-5">
      <h3 className="border-b-2 border-ink font-bold">How one gets in, by model</h3>
      {names.map((name) => {
        const known = modelNamed(plan, name);
        return known ? (
          <Model key={name} model={known} />
        ) : (
          <div key={name} className="flex min-h-9 flex-wrap items-center gap-2 border-b border-rule">
            <span className="font-bold">{name}</span>
            <span className="flex-1 text-[13px] text-muted">nothing is known of it</span>
            <button
              type="button"
              className="button"
              aria-label={`Say how one gets into ${name}`}
              onClick={() => void session.perform({ operation: 'addModel', input: { name } })}
            >
              Say how
            </button>
          </div>
        );
      })}
    </section>
  );
}

function Model({ model }: { model: BoxModel }) {
  const session = useSession();
  const { id, name } = model;
  const field = (of: keyof BoxModel & string, placeholder?: string) => (
    <RecordField
      table="model"
      record={model}
      field={of}
      of={name}
      {...(placeholder !== undefined && { placeholder })}
    />
  );
  return (
    <div data-record={id}>
      <Fold id={`model.${name}`} title={name} told={modelInShort(model)}>
        <div className="grid gap-x-6 pb-3 sm:grid-cols-2">
          <RecordField table="model" record={model} field="way" of={name} words={wayWords} />
          <Property label="Address">
            <Field
              label={`Address of ${name}`}
              mono
              placeholder="not looked up"
              value={factoryAddressText(model.address, model.length)}
              onCommit={(text) => {
                const set = factoryAddress(text);
                session.perform({ operation: 'edit', input: { table: 'model', id, set } });
              }}
            />
          </Property>
          {field('port', 'any')}
          <RecordField table="model" record={model} field="console" of={name} words={consoleWords} />
          {field('consoleSpeed', 'not known')}
          {field('starts', 'not measured')}
          {field('page', 'not measured')}
          {field('reset', 'not known')}
          {field('light', 'not known')}
          {field('quirks', 'none known')}
        </div>
        <button
          type="button"
          className="button mb-2"
          aria-label={`Forget what is known of ${name}`}
          onClick={() => void session.perform({ operation: 'removeModel', input: { model: id } })}
        >
          Forget it
        </button>
      </Fold>
    </div>
  );
}
