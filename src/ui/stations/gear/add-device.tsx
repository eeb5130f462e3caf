'use client';

import { useWatch } from 'react-hook-form';
import { type numberings, shelf } from '@/core/model/wiring';
import type { Device } from '@/core/plan';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { Dialog } from '../../parts/dialog';
import { Form, FormChoice, FormLine, FormTick, useTypedForm } from '../../parts/form';

const kinds = [...new Set(shelf.map((model) => model.kind))];
const kindWords = (kind: Device['kind']) => kind.replaceAll('-', ' ');

type Numbering = 'one' | (typeof numberings)[number];
const numberingOptions: readonly { readonly value: Numbering; readonly label: string }[] = [
  { value: 'one', label: 'in one row' },
  { value: 'odd-above', label: 'in two rows, odd above even' },
  { value: 'even-above', label: 'in two rows, even above odd' },
  { value: 'by-row', label: 'in two rows, the upper row first' },
];
const modelOptions = [
  ...kinds.map((kind) => ({
    label: kindWords(kind),
    options: shelf.filter((entry) => entry.kind === kind).map(({ id, name }) => ({ value: id, label: name })),
  })),
  { value: 'own', label: 'a model of your own…' },
];

const start = (equip: Device | null) => ({
  model: (shelf.find((entry) => entry.kind === (equip?.kind ?? 'switch')) ?? shelf[0]!).id,
  name: '',
  location: '',
  mac: '',
  ownName: 'our own model',
  kind: (equip?.kind ?? 'switch') as Device['kind'],
  copper: '8',
  combo: '0',
  fibre: '0',
  numbering: 'one' as Numbering,
  speed: '1000',
  poeClass: '',
  poeBudget: '',
  fromRight: false,
  vlanAware: true,
});
type Typed = ReturnType<typeof start>;

const numberOr = <T,>(text: string, none: T) => (text.trim() === '' ? none : Number(text));

/** The model as an operation takes it. */
const wantedOf = ({ model, ownName, kind, numbering, fromRight, vlanAware, ...typed }: Typed) =>
  model === 'own'
    ? {
        own: {
          name: ownName,
          kind,
          copper: numberOr(typed.copper, 0),
          combo: numberOr(typed.combo, 0),
          fibre: numberOr(typed.fibre, 0),
          rows: numbering === 'one' ? 1 : 2,
          numbering: numbering === 'one' ? 'odd-above' : numbering,
          fromRight,
          speed: numberOr(typed.speed, null),
          poeClass: numberOr(typed.poeClass, null),
          poeBudget: numberOr(typed.poeBudget, null),
          vlanAware,
          layer3: kind === 'gateway' || kind === 'layer3-switch',
        },
      }
    : { shelf: model };

/** Adds a box from the shelf or of a model of one's own, or gives a device that has none its box. */
export function AddDevice({ equip, onClose }: { equip: Device | null; onClose: () => void }) {
  const session = useSession();
  const set = useView((state) => state.set);
  const form = useTypedForm<Typed>(start(equip), (typed) => {
    const common = { model: wantedOf(typed), location: typed.location };
    const input = equip
      ? { ...common, device: equip.id }
      : { ...common, name: typed.name.trim() || undefined, mac: typed.mac.trim() || null };
    const change = session.perform({
      operation: equip ? 'equipDevice' : 'addDevice',
      input: JSON.parse(JSON.stringify(input)),
    });
    const box = change.steps.find((step) => step.table === 'box');
    set({ device: (box?.after as { device: string } | null)?.device ?? null, ports: [], asking: null });
    onClose();
  });
  const model = useWatch({ control: form.form.control, name: 'model' });
  return (
    <Dialog title={equip ? `Model of ${equip.name}` : 'Add device'} open onClose={onClose}>
      <Form form={form} layout="sheet">
        <FormChoice autoFocus name="model" label="Model" options={modelOptions} />
        {model === 'own' && (
          <fieldset className="grid gap-2 border-l-4 border-ink pl-3">
            <legend className="sr-only">A model of your own</legend>
            <FormLine name="ownName" label="Name of the model" />
            <FormChoice
              name="kind"
              label="Kind"
              disabled={equip !== null}
              options={kinds.map((kind) => ({ value: kind, label: kindWords(kind) }))}
            />
            <FormLine numeric name="copper" label="Copper ports" />
            <FormLine numeric name="combo" label="Combo ports" />
            <FormLine numeric name="fibre" label="Fibre ports" />
            <FormChoice name="numbering" label="Numbered" options={numberingOptions} />
            <FormLine numeric name="speed" label="Speed Mbit/s" />
            <FormLine numeric name="poeClass" label="PoE class" placeholder="none" />
            <FormLine numeric name="poeBudget" label="PoE budget W" placeholder="none" />
            <FormTick name="fromRight" label="port 1 is at the right" />
            <FormTick name="vlanAware" label="understands VLANs" />
          </fieldset>
        )}
        {!equip && <FormLine name="name" label="Name" placeholder="the next free one" />}
        <FormLine name="location" label="Location" placeholder="comms cupboard" />
        {!equip && <FormLine mono name="mac" label="MAC" placeholder="when you have it" />}
        <div className="pt-2">
          <button type="submit" className="button button-primary">
            {equip ? 'Take it' : 'Add it'} <span className="key">Enter</span>
          </button>
        </div>
      </Form>
    </Dialog>
  );
}
