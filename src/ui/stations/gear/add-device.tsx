'use client';

import { type FormEvent, useState } from 'react';
import { type Model, numberings, shelf } from '@/core/model/wiring';
import type { Device } from '@/core/plan';
import { attempt } from '../../session/attempt';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Dialog } from '../../parts/dialog';
import { Problem } from '../../parts/problem';

const kinds = [...new Set(shelf.map((model) => model.kind))];
const kindWords = (kind: Device['kind']) => kind.replaceAll('-', ' ');

const ownFields = {
  name: 'our own model',
  copper: '8',
  combo: '0',
  fibre: '0',
  speed: '1000',
  poeClass: '',
  poeBudget: '',
};

/** Adds a box from the shelf or of a model of one's own, or gives a device that has none its box. */
export function AddDevice({ equip, onClose }: { equip: Device | null; onClose: () => void }) {
  const session = useSession();
  const set = useView((state) => state.set);
  const [model, setModel] = useState<string>(
    (shelf.find((entry) => entry.kind === (equip?.kind ?? 'switch')) ?? shelf[0]!).id,
  );
  const [typed, setTyped] = useState({ name: '', location: '', mac: '' });
  const [own, setOwn] = useState(ownFields);
  const [ownKind, setOwnKind] = useState<Device['kind']>(equip?.kind ?? 'switch');
  const [numbering, setNumbering] = useState<'one' | (typeof numberings)[number]>('one');
  const [fromRight, setFromRight] = useState(false);
  const [aware, setAware] = useState(true);
  const [problem, setProblem] = useState('');

  const add = (event: FormEvent) => {
    event.preventDefault();
    const number = (text: string) => (text.trim() === '' ? null : Number(text));
    const wanted =
      model === 'own'
        ? {
            own: {
              name: own.name,
              kind: ownKind,
              copper: number(own.copper) ?? 0,
              combo: number(own.combo) ?? 0,
              fibre: number(own.fibre) ?? 0,
              rows: numbering === 'one' ? 1 : 2,
              numbering: numbering === 'one' ? 'odd-above' : numbering,
              fromRight,
              speed: number(own.speed),
              poeClass: number(own.poeClass),
              poeBudget: number(own.poeBudget),
              vlanAware: aware,
              layer3: ownKind === 'gateway' || ownKind === 'layer3-switch',
            },
          }
        : { shelf: model };
    const common = { model: wanted, location: typed.location };
    const input = equip
      ? { ...common, device: equip.id }
      : { ...common, name: typed.name.trim() || undefined, mac: typed.mac.trim() || null };
    const result = attempt(() =>
      session.perform({
        operation: equip ? 'equipDevice' : 'addDevice',
        input: JSON.parse(JSON.stringify(input)),
      }),
    );
    if ('refusal' in result) return setProblem(result.refusal.message);
    const box = result.value.steps.find((step) => step.table === 'box');
    set({ device: (box?.after as { device: string } | null)?.device ?? null, ports: [], asking: null });
    onClose();
  };
  const field = (label: string, value: string, change: (text: string) => void, placeholder = '') => (
    <label className="grid grid-cols-[9rem_1fr] items-center gap-2">
      <span>{label}</span>
      <input
        className="field field-line"
        value={value}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(event) => change(event.target.value)}
      />
    </label>
  );
  const ownField = (label: string, name: keyof typeof ownFields, placeholder = '') =>
    field(label, own[name], (text) => setOwn({ ...own, [name]: text }), placeholder);
  return (
    <Dialog title={equip ? `Model of ${equip.name}` : 'Add device'} open onClose={onClose}>
      <form onSubmit={add} className="grid gap-2">
        <label className="grid grid-cols-[9rem_1fr] items-center gap-2">
          <span>Model</span>
          <select
            className="field field-line"
            aria-label="Model"
            value={model}
            onChange={(event) => setModel(event.target.value)}
            autoFocus
          >
            {kinds.map((kind) => (
              <optgroup key={kind} label={kindWords(kind)}>
                {shelf
                  .filter((entry) => entry.kind === kind)
                  .map((entry: Model) => (
                    <option key={entry.id} value={entry.id} className="bg-sheet text-ink">
                      {entry.name}
                    </option>
                  ))}
              </optgroup>
            ))}
            <option value="own" className="bg-sheet text-ink">
              a model of your own…
            </option>
          </select>
        </label>
        {model === 'own' && (
          <fieldset className="grid gap-2 border-l-4 border-ink pl-3">
            <legend className="sr-only">A model of your own</legend>
            {ownField('Name of the model', 'name')}
            <label className="grid grid-cols-[9rem_1fr] items-center gap-2">
              <span>Kind</span>
              <select
                className="field field-line"
                value={ownKind}
                disabled={equip !== null}
                onChange={(event) => setOwnKind(event.target.value as Device['kind'])}
              >
                {kinds.map((kind) => (
                  <option key={kind} value={kind} className="bg-sheet text-ink">
                    {kindWords(kind)}
                  </option>
                ))}
              </select>
            </label>
            {ownField('Copper ports', 'copper')}
            {ownField('Combo ports', 'combo')}
            {ownField('Fibre ports', 'fibre')}
            <label className="grid grid-cols-[9rem_1fr] items-center gap-2">
              <span>Numbered</span>
              <select
                className="field field-line"
                value={numbering}
                onChange={(event) => setNumbering(event.target.value as typeof numbering)}
              >
                <option value="one">in one row</option>
                <option value="odd-above">in two rows, odd above even</option>
                <option value="even-above">in two rows, even above odd</option>
                <option value="by-row">in two rows, the upper row first</option>
              </select>
            </label>
            {ownField('Speed Mbit/s', 'speed')}
            {ownField('PoE class', 'poeClass', 'none')}
            {ownField('PoE budget W', 'poeBudget', 'none')}
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="size-4"
                checked={fromRight}
                onChange={(event) => setFromRight(event.target.checked)}
              />
              port 1 is at the right
            </label>
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="size-4"
                checked={aware}
                onChange={(event) => setAware(event.target.checked)}
              />
              understands VLANs
            </label>
          </fieldset>
        )}
        {!equip && field('Name', typed.name, (name) => setTyped({ ...typed, name }), 'the next free one')}
        {field('Location', typed.location, (location) => setTyped({ ...typed, location }), 'comms cupboard')}
        {!equip && field('MAC', typed.mac, (mac) => setTyped({ ...typed, mac }), 'when you have it')}
        <Problem text={problem} />
        <div className="pt-2">
          <button type="submit" className="button button-primary">
            {equip ? 'Take it' : 'Add it'} <span className="key">Enter</span>
          </button>
        </div>
      </form>
    </Dialog>
  );
}
