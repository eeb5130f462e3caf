'use client';

import { create } from 'zustand';
import type { Severity } from '@/core/findings';
import type { Call } from '@/core/plan';
import type { Fault } from '@/core/rehearse';
import type { Conflict, Intent } from './pending';
import { remember, remembered } from './stored';

/** A bulk change shown before it is accepted. */
export interface Review {
  readonly title: string;
  readonly call: Call;
  /** Where it is more than the call: the way back to a revision. */
  readonly intent?: Intent;
  /** The conflict that is decided by it. */
  readonly conflict?: Conflict;
  readonly accept: string;
}

/** A question as typed: it is read again at every change of the plan. */
export interface ProbeText {
  readonly from: string;
  readonly to: string;
  readonly service: string;
}

export type Rehearsal = 'ask' | 'dhcp' | 'what-if' | 'trees' | 'exercise';

export type BriefView = 'brief' | 'proposal' | 'habits';
export type CommissionView = 'order' | 'settings' | 'kit' | 'boxes' | 'tests' | 'found' | 'practice' | 'log';

export type AirView = 'networks' | 'air' | 'floor';

export interface ViewState {
  readonly vlan: string | null;
  readonly address: string | null;
  /** The device and the ports chosen under Gear & ports. */
  readonly device: string | null;
  readonly ports: readonly string[];
  /** The VLAN whose way is shown on faces and map. */
  readonly followed: string | null;
  /** A role chosen by key, waiting for its segment. */
  readonly asking: 'access' | 'trunk' | 'voice' | null;
  /** What is shown under Wireless, and the network or the access point chosen there. */
  readonly air: AirView;
  readonly ssid: string | null;
  readonly accessPoint: string | null;
  /** The uplink or the forward chosen under Internet side. */
  readonly uplink: string | null;
  readonly forward: string | null;
  /** The zone, the pairs of zones or the rule chosen under Who may talk. */
  readonly zone: string | null;
  readonly pairs: readonly { readonly from: string; readonly to: string }[];
  readonly rule: string | null;
  /** The question of the probe as typed, and whether its hops are shown. */
  readonly probe: ProbeText;
  readonly probeOpen: boolean;
  /** What is tried out of order under What if, also on the map. */
  readonly faults: readonly Fault[];
  /** The view chosen under Brief. */
  readonly brief: BriefView;
  /** The view chosen under Commission. */
  readonly commission: CommissionView;
  /** The view chosen under Rehearse. */
  readonly rehearsal: Rehearsal;
  readonly finding: string | null;
  readonly review: Review | null;
  readonly panelOpen: boolean;
  readonly panelFolded: boolean;
  readonly panelWidth: number;
  readonly severities: ReadonlySet<Severity>;
  readonly singleKeys: boolean;
  readonly set: (fields: Partial<Omit<ViewState, 'set'>>) => void;
  readonly select: (vlan: string | null, address?: string | null) => void;
}

const WIDTH = 'dianome.panel';
const KEYS = 'dianome.keys';
/** What this window shows: selection, panel, filter. Never part of the plan. */
export const useView = create<ViewState>((set) => ({
  vlan: null,
  address: null,
  device: null,
  ports: [],
  followed: null,
  asking: null,
  air: 'networks',
  ssid: null,
  accessPoint: null,
  uplink: null,
  forward: null,
  zone: null,
  pairs: [],
  rule: null,
  probe: { from: '', to: '', service: 'ping' },
  probeOpen: false,
  faults: [],
  brief: 'brief',
  commission: 'order',
  rehearsal: 'ask',
  finding: null,
  review: null,
  panelOpen: false,
  panelFolded: false,
  panelWidth: Number(remembered(WIDTH)) || 312,
  severities: new Set<Severity>(['stop', 'fix', 'note']),
  singleKeys: remembered(KEYS) !== 'off',
  set: (fields) => {
    if (fields.panelWidth !== undefined) remember(WIDTH, String(fields.panelWidth));
    if (fields.singleKeys !== undefined) remember(KEYS, fields.singleKeys ? 'on' : 'off');
    set(fields);
  },
  select: (vlan, address = null) => set({ vlan, address, finding: null }),
}));
