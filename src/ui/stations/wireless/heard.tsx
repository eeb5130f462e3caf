'use client';

import { useState } from 'react';
import type { Band, Plan } from '@/core/plan';
import { accessPoints } from '@/core/model/wireless';
import { problemOf } from '../../session/attempt';
import { useSession } from '../../session/context';
import { Choice } from '../../parts/choice';
import { ColumnHeads } from '../../parts/column-heads';
import { Problem } from '../../parts/problem';

/** What was measured: levels between access points, and networks of others. Pasted as tools print it. */
export function Heard({ plan, band }: { plan: Plan; band: Band }) {
  return (
    <div className="grid gap-6 pt-6 min-[1000px]:grid-cols-2">
      <Levels plan={plan} band={band} />
      <Foreign plan={plan} band={band} />
    </div>
  );
}

function Paste({
  label,
  placeholder,
  button,
  onTake,
}: {
  label: string;
  placeholder: string;
  button: string;
  onTake: (text: string) => void;
}) {
  const [text, setText] = useState('');
  const [problem, setProblem] = useState('');
  return (
    <form
      className="grid gap-1 pt-2"
      onSubmit={(event) => {
        event.preventDefault();
        const found = problemOf(() => onTake(text));
        setProblem(found);
        if (!found) setText('');
      }}
    >
      <textarea
        rows={3}
        className="field field-line mono text-[13px]"
        aria-label={label}
        placeholder={placeholder}
        value={text}
        spellCheck={false}
        onChange={(event) => setText(event.target.value)}
      />
      <div>
        <button type="submit" className="button" disabled={text.trim() === ''}>
          {button}
        </button>
      </div>
      <Problem text={problem} />
    </form>
  );
}

function Levels({ plan, band }: { plan: Plan; band: Band }) {
  const session = useSession();
  const levels = [...plan.level.values()]
    .filter((one) => one.band === band)
    .sort((a, b) => b.dbm - a.dbm || (a.id < b.id ? -1 : 1));
  const name = (id: string) => plan.device.get(id)!.name;
  return (
    <section aria-label={`Measured levels at ${band} GHz`}>
      <h3 className="border-b-2 border-ink font-bold">
        Measured between access points{' '}
        <span className="font-normal text-muted">at {band} GHz; what is not measured is estimated</span>
      </h3>
      {levels.length > 0 && (
        <table className="schedule text-[14px]" aria-label="Measured levels">
          <ColumnHeads columns={['Heard at', 'From', 'Level', '']} />
          <tbody>
            {levels.slice(0, 60).map(({ id, at, of, dbm }) => (
              <tr key={id}>
                <td className="mono">{name(at)}</td>
                <td className="mono">{name(of)}</td>
                <td className="mono">{dbm} dBm</td>
                <td className="text-right">
                  <button
                    type="button"
                    className="link"
                    aria-label={`remove the level of ${name(of)} at ${name(at)}`}
                    onClick={() =>
                      session.perform({ operation: 'removeFromAir', input: { table: 'level', ids: [id] } })
                    }
                  >
                    remove
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Paste
        label="Levels, one to a line"
        placeholder={`ap-1 ap-2 ${band} -67`}
        button="Note levels"
        onTake={(text) => session.perform({ operation: 'noteLevels', input: { text } })}
      />
      <p className="pt-1 text-[13px] text-muted">
        Estimated: 20 log f + N log d + floors − 28 dB (ITU-R P.1238, office: N 30 at 2.4 GHz, 31 above), and
        what is given for each wall. Measured counts before it.
      </p>
    </section>
  );
}

function Foreign({ plan, band }: { plan: Plan; band: Band }) {
  const session = useSession();
  const [at, setAt] = useState('');
  const networks = [...plan.foreignSsid.values()]
    .filter((one) => one.band === band)
    .sort((a, b) => b.dbm - a.dbm || (a.id < b.id ? -1 : 1));
  return (
    <section aria-label={`Networks of others at ${band} GHz`}>
      <h3 className="border-b-2 border-ink font-bold">
        Networks of others <span className="font-normal text-muted">heard at {band} GHz</span>
      </h3>
      {networks.length > 0 && (
        <table className="schedule text-[14px]" aria-label="Networks of others">
          <ColumnHeads columns={['Name', 'Channel', 'Level', 'Heard at', '']} />
          <tbody>
            {networks.slice(0, 60).map((one) => (
              <tr key={one.id}>
                <td className="break-all">{one.name || <span className="text-muted">no name</span>}</td>
                <td className="mono">
                  {one.channel}, {one.width} MHz
                </td>
                <td className="mono">{one.dbm} dBm</td>
                <td className="mono">{one.at === null ? 'all over' : plan.device.get(one.at)!.name}</td>
                <td className="text-right">
                  <button
                    type="button"
                    className="link"
                    aria-label={`remove ${one.name || 'the network without a name'}`}
                    onClick={() =>
                      session.perform({
                        operation: 'removeFromAir',
                        input: { table: 'foreignSsid', ids: [one.id] },
                      })
                    }
                  >
                    remove
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className="flex items-center gap-2 pt-2 text-[14px]">
        <span>Scanned at</span>
        <div className="w-[170px] border-b border-rule">
          <Choice
            label="Scanned at"
            value={at}
            options={[
              { value: '', label: 'all over the site' },
              ...accessPoints(plan).map(({ id, name }) => ({ value: id, label: name })),
            ]}
            onChoose={setAt}
          />
        </div>
      </div>
      <Paste
        label="A scan as a tool printed it"
        placeholder={'name;channel;level\nNeighbour;6;-71'}
        button="Note networks"
        onTake={(text) => session.perform({ operation: 'noteScan', input: { at: at || null, text } })}
      />
      <p className="pt-1 text-[13px] text-muted">
        A table with a head (name, channel or frequency, level, width), or what{' '}
        <span className="mono">iw dev scan</span> prints. What was scanned at the same place before is
        replaced; your own names are left out.
      </p>
    </section>
  );
}
