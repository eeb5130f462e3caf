'use client';

import { type Device, type Plan, type Spot, badInput } from '@/core/plan';
import { spotOf } from '@/core/model/wireless';
import { useSession } from '../../session/context';
import { ColumnHeads } from '../../parts/column-heads';
import { Field } from '../../parts/field';
import { Form, FormLine, useTypedForm } from '../../parts/form';
import { metres } from './words';

/** A length in metres as it is typed, 12.4 or 12,4, in centimetres. */
function centimetres(text: string, what: string): number {
  const value = Number(text.trim().replace(/\s*m$/i, '').replace(',', '.'));
  if (text.trim() === '' || !Number.isFinite(value))
    throw badInput(`${what} “${text}” is no length; write metres like 12.4.`, 'x');
  return Math.round(value * 100);
}
/** A floor as it is typed; 0 is the one at the ground. */
function floorOf(text: string): number {
  if (!/^-?\d+$/.test(text.trim()))
    throw badInput(`The floor “${text}” is no whole number; the ground floor is 0.`, 'floor');
  return Number(text);
}

/** The places in figures. */
export function Places({ plan, all }: { plan: Plan; all: readonly Device[] }) {
  const session = useSession();
  const put = (device: Device, fields: Partial<Pick<Spot, 'floor' | 'x' | 'y' | 'outdoors'>>) => {
    const spot = spotOf(plan, device.id);
    const { floor = 0, x = 0, y = 0, outdoors = false } = { ...spot, ...fields };
    session.perform({ operation: 'setSpot', input: { device: device.id, floor, x, y, outdoors } });
  };
  if (all.length === 0) return null;
  return (
    <section aria-label="Places" className="max-w-[760px] pt-4">
      <h3 className="border-b-2 border-ink font-bold">Places</h3>
      <table className="schedule text-[14px]" aria-label="Places of access points">
        <ColumnHeads columns={['Access point', 'Room', 'Floor', 'Right, m', 'Down, m', 'Outdoors']} />
        <tbody>
          {all.map((device) => {
            const spot = spotOf(plan, device.id);
            const box = plan.box.by('device', device.id)[0];
            return (
              <tr key={device.id}>
                <th scope="row" className="mono text-left">
                  {device.name}
                </th>
                <td>{box?.location ?? ''}</td>
                <td>
                  <Field
                    mono
                    label={`Floor of ${device.name}`}
                    value={spot ? String(spot.floor) : ''}
                    placeholder="none"
                    onCommit={(text) => put(device, { floor: floorOf(text) })}
                  />
                </td>
                <td>
                  <Field
                    mono
                    label={`${device.name} right, m`}
                    value={spot ? metres(spot.x) : ''}
                    placeholder="none"
                    onCommit={(text) => put(device, { x: centimetres(text, `${device.name} right`) })}
                  />
                </td>
                <td>
                  <Field
                    mono
                    label={`${device.name} down, m`}
                    value={spot ? metres(spot.y) : ''}
                    placeholder="none"
                    onCommit={(text) => put(device, { y: centimetres(text, `${device.name} down`) })}
                  />
                </td>
                <td>
                  {spot && (
                    <button
                      type="button"
                      className="link"
                      aria-label={`${device.name} is ${spot.outdoors ? 'outdoors' : 'indoors'}; change`}
                      onClick={() => put(device, { outdoors: !spot.outdoors })}
                    >
                      {spot.outdoors ? 'outdoors' : 'indoors'}
                    </button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

/** What usual walls take. */
const USUAL_LOSS = 'plasterboard 3, brick 8, concrete 12, metal 20';

export function Walls({ plan, floor }: { plan: Plan; floor: number }) {
  const session = useSession();
  const walls = [...plan.wall.values()].filter((wall) => wall.floor === floor);
  const point = (text: string, what: string) => {
    const [x, y, more] = text.trim().split(/[\s;/]+/);
    if (x === undefined || y === undefined || more !== undefined)
      throw badInput(`${what} “${text}” is no place; write metres right and down, like 12.5 3.`, what);
    return [centimetres(x, what), centimetres(y, what)] as const;
  };
  const form = useTypedForm(
    { from: '', to: '', loss: '' },
    ({ from, to, loss }) => {
      const [fromX, fromY] = point(from, 'from');
      const [toX, toY] = point(to, 'to');
      if (!/^\d+$/.test(loss.trim()))
        throw badInput(`The loss “${loss}” is no whole number of dB; usual are ${USUAL_LOSS}.`, 'loss');
      session.perform({ operation: 'addWall', input: { floor, fromX, fromY, toX, toY, loss: Number(loss) } });
    },
    { clear: ['from', 'to'] },
  );
  return (
    <section aria-label="Walls" className="max-w-[760px] pt-4">
      <h3 className="border-b-2 border-ink font-bold">
        Walls <span className="font-normal text-muted">{USUAL_LOSS} dB</span>
      </h3>
      <ul className="text-[14px]">
        {walls.map(({ id, fromX, fromY, toX, toY, loss }) => {
          const text = `${metres(fromX)} ${metres(fromY)} to ${metres(toX)} ${metres(toY)}`;
          return (
            <li key={id} className="flex justify-between gap-2 border-b border-rule py-0.5">
              <span className="mono">
                {text}, {loss} dB
              </span>
              <button
                type="button"
                className="link"
                aria-label={`remove the wall ${text}`}
                onClick={() =>
                  session.perform({ operation: 'removeFromAir', input: { table: 'wall', ids: [id] } })
                }
              >
                remove
              </button>
            </li>
          );
        })}
      </ul>
      <Form form={form} label="New wall">
        <FormLine mono name="from" label="From, m right and down" placeholder="10 0" width={170} />
        <FormLine mono name="to" label="To" placeholder="10 8.5" width={130} />
        <FormLine mono numeric name="loss" label="Takes, dB" placeholder="8" width={90} />
        <button type="submit" className="button">
          Draw wall
        </button>
      </Form>
    </section>
  );
}
