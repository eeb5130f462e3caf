import * as z from 'zod';
import { badInput, boxOf, operation, portTitle } from '../../plan';
import { access, blankBox, blankPort, linksOf, portsOf, trunk } from '../../model/wiring';

/**
 * A telephone with a second socket, by which a computer is plugged in behind it: a small switch that lives in the VLAN of voice and
 * passes the untagged one on. Both are those of the port it is plugged into, as it would be told by LLDP-MED (TIA-1057).
 */
export const passThrough = operation(
  'passThrough',
  z.strictObject({ device: z.string() }),
  (draft, input) => {
    const device = draft.need('device', input.device);
    if (device.kind !== 'phone')
      throw badInput(
        `${device.name} is no telephone; give it ports of its own under Gear & ports.`,
        'device',
      );
    if (boxOf(draft.plan, device.id))
      throw badInput(`${device.name} has its second socket already.`, 'device');
    const [socket] = portsOf(draft.plan, device.id);
    const [link] = socket ? (linksOf(draft.plan).get(socket.id) ?? []) : [];
    const at = link && draft.need('port', link.to);
    if (!socket || !at)
      throw badInput(
        `${device.name} is not plugged in, so nobody knows what a computer behind it gets; plug it in first.`,
        'device',
      );
    const { voice, untagged } = at;
    if (untagged === null)
      throw badInput(
        `${portTitle(draft.plan, at)} sends nothing without a tag, so a computer behind ${device.name} gets nothing; give the port a segment first.`,
        'device',
      );
    draft.insert('box', {
      ...blankBox,
      device: device.id,
      model: 'telephone with a socket for a computer',
      vlanAware: true,
      vlanLimit: 2,
      mixesTags: true,
      passes: ['bpdu', 'eapol'],
      layer3: false,
      filter: 'none',
      spanningTree: 'none',
      snooping: false,
      dot1x: false,
      factory: 'by-neighbour',
      poeBudget: null,
      powerFeeds: 1,
      location: '',
    });
    const tagged = voice === null ? [] : [voice];
    draft.update('port', socket.id, tagged.length > 0 ? trunk(tagged, untagged) : access(untagged));
    const port = { ...blankPort, device: device.id };
    draft.insert('port', { ...port, ...access(voice ?? untagged), number: 0, media: 'inner' });
    draft.insert('port', { ...port, ...access(untagged), number: 2, column: 1 });
    return `${device.name}: a second socket, for a computer in ${draft.need('vlan', untagged).name}`;
  },
);
