'use client';

import { useState } from 'react';
import { type Body, type Log, type SignRole, signRoles } from '@/core/log';
import { today } from '@/today';
import { dayText } from '../parts/dates';
import { SinceBuilt } from './since-built';
import { SignaturePad } from './signature-pad';

/** Who stands for what was built, and for which revision. */
export function SignOffs({
  log,
  revision,
  onSay,
}: {
  log: Log;
  revision: number;
  onSay: (body: Body) => void;
}) {
  const [role, setRole] = useState<SignRole | null>(null);
  const { asBuilt, signOffs } = log;
  const open = log.defects.filter(({ state }) => state === 'open').length;
  return (
    <section aria-labelledby="log-signed">
      <h2 id="log-signed" className="flex flex-wrap items-center gap-3 pt-5 pb-1 font-bold">
        Sign-off
        {signRoles.map((one) => (
          <button key={one} type="button" className="button" onClick={() => setRole(one)}>
            Sign as {one}
          </button>
        ))}
      </h2>
      <p className="pb-1">
        {asBuilt === null
          ? 'Not signed by both yet.'
          : asBuilt === revision
            ? `Change ${asBuilt} is as built: both signed it.`
            : `Change ${asBuilt} is as built; the plan has gone on to change ${revision} since.`}
      </p>
      {asBuilt !== null && asBuilt !== revision && <SinceBuilt asBuilt={asBuilt} />}
      {role && (
        <SignForm
          key={role}
          role={role}
          open={open}
          onBack={() => setRole(null)}
          onSay={(body) => {
            onSay(body);
            setRole(null);
          }}
        />
      )}
      {signOffs.length > 0 && (
        <ul className="flex flex-wrap gap-3">
          {signOffs.toReversed().map(({ id, body, revision: signed }) => (
            <li key={id} className="border border-ink p-2">
              <svg
                viewBox="0 0 400 150"
                className="h-[75px] w-[200px]"
                role="img"
                aria-label={`Signature of ${body.name}`}
              >
                <path
                  d={body.signature}
                  fill="none"
                  stroke="currentColor"
                  strokeWidth={2.5}
                  strokeLinecap="round"
                />
              </svg>
              <span className="block border-t border-rule">
                {body.name}, {body.role}
              </span>
              <span className="block text-[13px] text-muted">
                {dayText(body.day)}, change {signed}
              </span>
              {body.note && <span className="block max-w-[200px] text-[13px]">{body.note}</span>}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function SignForm({
  role,
  open,
  onBack,
  onSay,
}: {
  role: SignRole;
  open: number;
  onBack: () => void;
  onSay: (body: Body) => void;
}) {
  const [name, setName] = useState('');
  const [day, setDay] = useState(today());
  const [note, setNote] = useState('');
  const [signature, setSignature] = useState('');
  const [told, setTold] = useState('');
  return (
    <form
      aria-label={`Sign as ${role}`}
      className="mb-3 flex max-w-[460px] flex-col gap-2 border-2 border-ink p-3"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() === '') return setTold('The name is empty; write the name of who signs.');
        if (!/^\d{4}-\d{2}-\d{2}$/.test(day)) return setTold('The date is empty; choose the day.');
        if (signature === '') return setTold('The signature is empty; draw it with a finger or the mouse.');
        onSay({ kind: 'signOff', role, name: name.trim(), day, signature, note: note.trim() });
      }}
    >
      {open > 0 && (
        <p role="note" className="bg-chosen px-2 py-1">
          {open} {open === 1 ? 'defect is' : 'defects are'} still open. Say in the note who mends what until
          when.
        </p>
      )}
      <label>
        Name
        <input
          autoFocus
          className="field field-line min-h-touch"
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <label>
        Date
        <input
          type="date"
          className="field field-line min-h-touch"
          value={day}
          onChange={(event) => setDay(event.target.value)}
        />
      </label>
      <label>
        Note
        <input
          className="field field-line min-h-touch"
          maxLength={2000}
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
      </label>
      <SignaturePad onDrawn={setSignature} />
      {told && (
        <p role="alert" className="border-l-4 border-stop px-2">
          {told}
        </p>
      )}
      <span className="flex gap-2">
        <button type="submit" className="button button-primary min-h-touch">
          Sign
        </button>
        <button type="button" className="button min-h-touch" onClick={onBack}>
          Back
        </button>
      </span>
    </form>
  );
}
