import { type SheetSeat, lentText, socketTitle } from '@/core/commission';
import type { Plan } from '@/core/plan';
import { useAdapterNote } from './adapter-note';
import { Card } from './card';
import { PortPicture } from '../parts/port-picture';
import { WayInto } from '../parts/way-in';

/** Where to sit down next, and what to set on the laptop there. */
export function SitCard({
  plan,
  seat,
  busy,
  onSit,
}: {
  plan: Plan;
  seat: SheetSeat;
  busy: boolean;
  onSit: () => void;
}) {
  const { text, note } = useAdapterNote();
  const [address, mask] = seat.laptop?.split(' ') ?? [];
  return (
    <Card title={seat.air ? 'Join' : 'Sit down at'} name={socketTitle(plan, seat.socket!)}>
      {!seat.air && <PortPicture plan={plan} device={seat.device} marked={[seat.socket!]} />}
      {seat.lent !== null && <p>{lentText(plan, seat.lent)}</p>}
      {seat.parachute && (
        <p>This is the socket you gave yourself. It goes when the boxes are reached another way.</p>
      )}
      <dl className="grid grid-cols-[auto_1fr] gap-x-4">
        {address ? (
          <>
            <dt className="text-muted">Address</dt>
            <dd className="mono text-[18px] font-bold">{address}</dd>
            <dt className="text-muted">Mask</dt>
            <dd className="mono text-[18px] font-bold">{mask}</dd>
            <dt className="text-muted">Gateway</dt>
            <dd>none: both are in one segment</dd>
          </>
        ) : seat.given ? (
          <>
            <dt className="text-muted">Address</dt>
            <dd>the one that everybody gets there, with its gateway</dd>
          </>
        ) : (
          <>
            <dt className="text-muted">Address</dt>
            <dd>one in the subnet the box comes with; look at its label</dd>
          </>
        )}
      </dl>
      <label className="text-[14px]">
        Your adapter has set now, to be put back at the end
        <input
          className="field field-line"
          placeholder="automatic, or address, mask, gateway, DNS"
          maxLength={200}
          value={text}
          onChange={(event) => note(event.target.value)}
        />
      </label>
      <ul className="list-disc pl-5 text-[14px]">
        {seat.air ? (
          <li>Wired adapters off meanwhile, so that you talk to this network and no other.</li>
        ) : (
          <>
            <li>Wireless off meanwhile, so that you talk to this network and no other.</li>
            <li>
              Not sure which adapter it is? Unplug the lead and see which one goes. Virtual ones have no lead:
              leave them alone.
            </li>
          </>
        )}
      </ul>
      <WayInto plan={plan} device={seat.steps[0]?.device ?? seat.device} />
      <button
        type="button"
        className="button button-primary min-h-14 w-full justify-center text-[18px]"
        disabled={busy}
        onClick={onSit}
      >
        I sit there
      </button>
    </Card>
  );
}
