import { EF, collisions, isPinned } from '../../../model/uplink';
import { internetCheck } from './shared';

/** The provider's boxes kept behind the gateway for the telephones. */

const voiceBox = internetCheck('voice-box', function* (plan) {
  for (const box of plan.voiceBox.values()) {
    const { name } = plan.device.get(box.device)!;
    const uplink = plan.uplink.get(box.uplink)!;
    const collides = collisions(plan, box);
    const set: Record<string, unknown> = {};
    const parts: string[] = [];
    if (!isPinned(plan, box))
      parts.push(
        'it has no address of its own here, fixed or bound to its MAC, so nothing can be kept for it',
      );
    if (collides.length > 0) parts.push(`its own network collides with ${collides.join(', ')}`);
    if (box.needsTag && !box.tagRepeated) {
      parts.push(
        `it looks for the provider’s tag${uplink.providerVlan === null ? '' : ` ${uplink.providerVlan}`}, and the inside port does not repeat it`,
      );
      set.tagRepeated = true;
    }
    if (box.dscp !== EF) {
      parts.push(`its voice is marked ${box.dscp} instead of EF ${EF} (RFC 3246)`);
      set.dscp = EF;
    }
    if (!box.firstInQueue) {
      parts.push('other traffic is not kept behind it in the queue');
      set.firstInQueue = true;
    }
    if (parts.length === 0) continue;
    const silent = collides.length > 0 || set.tagRepeated !== undefined;
    const mendable = isPinned(plan, box) && collides.length === 0;
    yield {
      severity: silent ? 'stop' : 'fix',
      on: { table: 'voiceBox', id: box.id },
      also: [{ table: 'device', id: box.device }],
      what: `Telephones at ${name} ${silent ? 'stay silent' : 'may stutter or be lost'}`,
      because: `Kept behind the gateway for the telephones, but ${parts.join('; ')}.`,
      remedies: mendable
        ? [
            {
              label: 'Set tag, marking and queue as it needs them',
              operation: 'edit',
              input: { table: 'voiceBox', id: box.id, set },
            },
          ]
        : [],
    };
  }
});

const unpowered = internetCheck('voice-box-power', function* (plan) {
  for (const box of plan.voiceBox.values()) {
    if (box.backedUp) continue;
    yield {
      severity: 'note',
      on: { table: 'voiceBox', id: box.id },
      also: [{ table: 'device', id: box.device }],
      what: `No call gets out of ${plan.device.get(box.device)!.name} when the mains fail`,
      because:
        'Gateway and box are on the mains alone: emergency calls and alarm lines are lost with them. Keep another way to call.',
    };
  }
});

const telephoneLost = internetCheck('failover-loses-telephone', function* (plan) {
  for (const box of plan.voiceBox.values()) {
    const uplink = plan.uplink.get(box.uplink)!;
    const others = [...plan.uplink.values()].filter(({ id, enabled }) => enabled && id !== uplink.id);
    if (others.length === 0) continue;
    yield {
      severity: 'note',
      on: { table: 'voiceBox', id: box.id },
      also: [{ table: 'uplink', id: uplink.id }],
      what: `The telephones do not follow to ${others[0]!.name}`,
      because: `${plan.device.get(box.device)!.name} registers only over ${uplink.name}. When that fails, everything else goes on over ${others.map(({ name }) => name).join(' or ')}, and no call does, emergency calls included.`,
    };
  }
});

export const voiceBoxChecks = [voiceBox, unpowered, telephoneLost];
