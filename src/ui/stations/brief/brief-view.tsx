'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import {
  type Need,
  type Plan,
  type Stock,
  type Wish,
  placeSorts,
  siteOf,
  stockSorts,
  things,
  wishEnds,
} from '@/core/plan';
import { thingWords } from '@/core/edit';
import { useSession } from '../../session/context';
import { useView } from '../../session/view';
import { wholeNumber } from '../../session/actions';
import { Form, FormChoice, FormLine, useTypedForm } from '../../parts/form';
import { RecordField } from '../../parts/record-field';
import { BriefList } from './brief-list';
import { WishServices } from './wish-services';
import { decisionWords, endWord, inOrder, placeOptions, placeWords, powerWords, stockWords } from './words';

const PasteNeeds = dynamic(() => import('./paste-needs').then((m) => m.PasteNeeds));

const optionsOf = <T extends string>(values: readonly T[], word: (value: T) => string) =>
  values.map((value) => ({ value, label: word(value) }));

/** What the customer asks for, list by list. */
export function BriefView({ plan }: { plan: Plan }) {
  const set = useView((state) => state.set);
  return (
    <>
      <Needs plan={plan} />
      <Places plan={plan} />
      <InternetLines plan={plan} />
      <Wishes plan={plan} />
      <AtHand plan={plan} />
      <Schools plan={plan} />
      <p className="pb-4">
        <button
          type="button"
          className="button button-primary"
          disabled={plan.need.size === 0}
          onClick={() => set({ brief: 'proposal' })}
        >
          Go on to the proposal
        </button>
        {plan.need.size === 0 && <span className="pl-3 text-muted">Say first what has to be connected.</span>}
      </p>
    </>
  );
}

const num = (text: string, what: string, field: string) => (text === '' ? 1 : wholeNumber(text, what, field));

function Needs({ plan }: { plan: Plan }) {
  const session = useSession();
  const [pasting, setPasting] = useState(false);
  const form = useTypedForm(
    { count: '', thing: 'workstation' as Need['thing'], name: '', place: '', link: 'wired' as Need['link'] },
    ({ count, thing, name, place, link }) => {
      session.perform({
        operation: 'addNeed',
        input: {
          count: num(count, 'The number', 'count'),
          thing,
          name: name.trim(),
          place: place.trim(),
          link,
        },
      });
    },
    { clear: ['count', 'name'], focus: 'count' },
  );
  const places = inOrder(plan.place.values()).map(({ name }) => name);
  return (
    <BriefList
      title="What has to be connected"
      about="How many of each kind, and where. A table of devices can be pasted as it is."
      table="need"
      records={inOrder(plan.need.values())}
      columns={[
        { head: 'Number', field: 'count', width: 64 },
        { head: 'Kind', field: 'thing', words: thingWords, width: 176 },
        { head: 'Called', field: 'name' },
        { head: 'Place', field: 'place', options: placeOptions(plan), width: 150 },
        { head: 'Connected', field: 'link', width: 100 },
      ]}
      more={[
        { head: 'Growth, %', field: 'growth', placeholder: `${siteOf(plan).usualGrowth}, usual`, width: 92 },
        { head: 'Powered', field: 'power', words: powerWords, width: 100 },
        { head: 'Group of their own', field: 'apart', placeholder: 'with their kind', width: 150 },
      ]}
      isUsual={({ growth, power, apart }) => growth === null && power === 'usual' && apart === ''}
    >
      <Form form={form} label="New: what has to be connected">
        <FormLine mono numeric name="count" label="Number" placeholder="12" width={84} />
        <FormChoice
          name="thing"
          label="Kind"
          options={optionsOf(things, (thing) => thingWords[thing])}
          width={176}
        />
        <FormLine name="name" label="Called" placeholder="as the kind" width={150} />
        <FormLine name="place" label="Place" placeholder="main place" known={places} width={140} />
        <FormChoice
          name="link"
          label="Connected"
          options={[
            { value: 'wired', label: 'wired' },
            { value: 'wireless', label: 'wireless' },
          ]}
          width={110}
        />
        <button type="submit" className="button">
          Add
        </button>
        <button type="button" className="button" onClick={() => setPasting(true)}>
          Paste a table…
        </button>
      </Form>
      {pasting && <PasteNeeds onClose={() => setPasting(false)} />}
    </BriefList>
  );
}

function Places({ plan }: { plan: Plan }) {
  const session = useSession();
  const records = inOrder(plan.place.values());
  const form = useTypedForm(
    { name: '', sort: (records.length === 0 ? 'main' : 'same-building') as (typeof placeSorts)[number] },
    ({ name, sort }) => {
      session.perform({ operation: 'addPlace', input: { name, sort } });
    },
    { clear: ['name'], focus: 'name' },
  );
  return (
    <BriefList
      title="Places"
      about="Where things stand: rooms, cupboards, other buildings. The lines end at the main place."
      table="place"
      records={records}
      columns={[
        { head: 'Name', field: 'name' },
        { head: 'Where', field: 'sort', words: placeWords, width: 160 },
        { head: 'Cable, m', field: 'metres', placeholder: 'not measured', width: 112 },
        { head: 'Wireless, m²', field: 'area', placeholder: 'not asked', width: 106 },
        { head: 'Strangers', field: 'strangers', width: 76 },
      ]}
    >
      <Form form={form} label="New place">
        <FormLine name="name" label="Name" placeholder="Reading room" width={220} />
        <FormChoice
          name="sort"
          label="Where"
          options={optionsOf(placeSorts, (sort) => placeWords[sort])}
          width={160}
        />
        <button type="submit" className="button">
          Add place
        </button>
      </Form>
    </BriefList>
  );
}

function InternetLines({ plan }: { plan: Plan }) {
  const session = useSession();
  const form = useTypedForm(
    { name: '', outside: 'unknown' as 'public' | 'private' | 'shared' | 'unknown' },
    ({ name, outside }) => {
      session.perform({ operation: 'addLine', input: { name, outside } });
    },
    { clear: ['name'], focus: 'name' },
  );
  return (
    <BriefList
      title="Internet connections"
      about="What was ordered, and what the provider allows: remote help needs a public address."
      table="line"
      records={inOrder(plan.line.values())}
      columns={[
        { head: 'Name', field: 'name' },
        { head: 'Outside address', field: 'outside', width: 124 },
        { head: 'Upstream', field: 'upstream', width: 112 },
        { head: 'Mbit/s down', field: 'down', placeholder: '?', width: 96 },
        { head: 'up', field: 'up', placeholder: '?', width: 72 },
        { head: 'Stands by', field: 'standby', width: 76 },
      ]}
      more={[
        { head: 'Addressing', field: 'addressing', width: 100 },
        { head: 'Provider’s VLAN', field: 'providerVlan', width: 80 },
        { head: 'Pinged to see whether it works', field: 'monitor', placeholder: 'nothing', width: 130 },
        { head: 'Lets nothing in', field: 'noForwards', width: 40 },
        { head: 'IPv6 prefix', field: 'delegated', width: 170 },
      ]}
      isUsual={({ addressing, providerVlan, monitor, noForwards, delegated }) =>
        addressing === 'dhcp' &&
        providerVlan === null &&
        monitor === null &&
        !noForwards &&
        delegated === null
      }
    >
      <Form form={form} label="New Internet connection">
        <FormLine name="name" label="Name" placeholder="fibre" width={220} />
        <FormChoice
          name="outside"
          label="Outside address"
          options={['unknown', 'public', 'private', 'shared'].map((value) => ({ value, label: value }))}
          width={130}
        />
        <button type="submit" className="button">
          Add connection
        </button>
      </Form>
    </BriefList>
  );
}

function Wishes({ plan }: { plan: Plan }) {
  const session = useSession();
  const form = useTypedForm(
    {
      from: 'guest' as Wish['from'],
      decision: 'deny' as Wish['decision'],
      to: 'staff' as Wish['to'],
      why: '',
    },
    (input) => {
      session.perform({ operation: 'addWish', input });
    },
    { clear: ['why'] },
  );
  const ends = optionsOf(wishEnds, endWord);
  const words = Object.fromEntries(wishEnds.map((end) => [end, endWord(end)]));
  return (
    <BriefList
      title="Rules the customer gives"
      about="Who may reach whom, and who must not. What is not said is as usual for the kind of site."
      table="wish"
      records={inOrder(plan.wish.values())}
      columns={[
        { head: 'From', field: 'from', words, width: 138 },
        { head: 'May', field: 'decision', words: decisionWords, width: 84 },
        { head: 'Reach', field: 'to', words, width: 138 },
        { head: 'Why', field: 'why', placeholder: 'as the customer says it' },
      ]}
      beside={{ head: 'For', cell: (wish) => <WishServices plan={plan} wish={wish} /> }}
    >
      <Form form={form} label="New rule of the customer">
        <FormChoice name="from" label="From" options={ends} width={160} />
        <FormChoice
          name="decision"
          label="May"
          options={[
            { value: 'allow', label: 'may' },
            { value: 'deny', label: 'may not' },
          ]}
          width={100}
        />
        <FormChoice name="to" label="Reach" options={ends} width={160} />
        <FormLine name="why" label="Why" placeholder="cameras are nobody else’s business" width={260} />
        <button type="submit" className="button">
          Add rule
        </button>
      </Form>
    </BriefList>
  );
}

function AtHand({ plan }: { plan: Plan }) {
  const session = useSession();
  const form = useTypedForm(
    { sort: 'switch' as Stock['sort'], model: '', count: '', copper: '', fibre: '', poe: '' },
    ({ sort, model, count, copper, fibre, poe }) => {
      session.perform({
        operation: 'addStock',
        input: {
          sort,
          model,
          count: num(count, 'The number', 'count'),
          copper: wholeNumber(copper, 'The number of copper ports', 'copper'),
          fibre: fibre === '' ? 0 : wholeNumber(fibre, 'The number of fibre ports', 'fibre'),
          poeBudget: poe === '' ? null : wholeNumber(poe, 'The PoE budget', 'poe'),
        },
      });
    },
    { clear: ['model', 'count', 'copper', 'fibre', 'poe'], focus: 'model' },
  );
  return (
    <BriefList
      title="Boxes at hand"
      about="Boxes that are there already and should be used. They are placed before anything is bought."
      table="stock"
      records={inOrder(plan.stock.values())}
      columns={[
        { head: 'Sort', field: 'sort', words: stockWords, width: 128 },
        { head: 'Model', field: 'model' },
        { head: 'Number', field: 'count', width: 66 },
        { head: 'Copper', field: 'copper', width: 64 },
        { head: 'Fibre', field: 'fibre', width: 56 },
        { head: 'PoE, W', field: 'poeBudget', width: 66 },
      ]}
      more={[
        {
          head: 'Place',
          field: 'place',
          options: [{ value: '', label: 'wherever it fits' }, ...placeOptions(plan).slice(1)],
          width: 170,
        },
        { head: 'Understands VLANs', field: 'vlanAware', width: 40 },
      ]}
      isUsual={({ place, vlanAware }) => place === null && vlanAware}
    >
      <Form form={form} label="New box at hand">
        <FormChoice
          name="sort"
          label="Sort"
          options={optionsOf(stockSorts, (sort) => stockWords[sort])}
          width={140}
        />
        <FormLine name="model" label="Model" placeholder="as it stands on the case" width={210} />
        <FormLine mono numeric name="count" label="Number" placeholder="1" width={84} />
        <FormLine mono numeric name="copper" label="Copper ports" placeholder="24" width={104} />
        <FormLine mono numeric name="fibre" label="Fibre ports" placeholder="0" width={96} />
        <FormLine mono numeric name="poe" label="PoE, W" placeholder="none" width={84} />
        <button type="submit" className="button">
          Add box
        </button>
      </Form>
    </BriefList>
  );
}

const separationWords = {
  vlans: 'by VLANs and rules',
  flat: 'not at all, behind a firewall',
  separate: 'by boxes of their own',
};
const routedWords = {
  gateway: 'the gateway',
  'layer3-switch': 'a layer-3 switch, where nothing is filtered',
};
const backboneWords = { star: 'each place to the main one', ring: 'in a ring' };

/** What the proposal follows where practitioners differ; the rest of it is under Habits. */
function Schools({ plan }: { plan: Plan }) {
  const site = siteOf(plan);
  return (
    <section aria-label="How it is built" className="mb-6 max-w-[560px]">
      <h3 className="border-b-2 border-ink font-bold">How it is built</h3>
      <RecordField table="site" record={site} field="kind" />
      <RecordField table="site" record={site} field="separation" words={separationWords} />
      <RecordField table="site" record={site} field="routedBy" words={routedWords} />
      <RecordField table="site" record={site} field="backbone" words={backboneWords} />
      <RecordField table="site" record={site} field="usualGrowth" />
      <RecordField table="site" record={site} field="spare" />
    </section>
  );
}
