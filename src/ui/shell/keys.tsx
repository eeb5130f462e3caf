'use client';

import { useEffect } from 'react';
import { Dialog } from '../parts/dialog';
import { useSession } from '../session/context';
import { useView } from '../session/view';
import { stations } from './stations';

export type KeyMap = Readonly<Record<string, () => void>>;

/** A tick box takes no letters, so commands go on while it has the focus. */
const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable || target.matches('textarea, select, input:not([type=checkbox])'));

/** Single-key commands; silent while somebody types, behind a dialog, with a modifier, or when switched off. */
export function useKeys(keys: KeyMap): void {
  const on = useView((state) => state.singleKeys);
  useEffect(() => {
    if (!on) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented || typing(event.target))
        return;
      if (document.querySelector('[role="dialog"]')) return;
      const command = keys[event.key];
      if (!command) return;
      event.preventDefault();
      command();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [keys, on]);
}

/** Undo and redo as everywhere; in a field they are the field's own. */
export function useUndoKeys(): void {
  const session = useSession();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey || typing(event.target)) return;
      if (document.querySelector('[role="dialog"]')) return;
      const key = event.key.toLowerCase();
      if (key !== 'z' && key !== 'y') return;
      event.preventDefault();
      void session.undo(key === 'y' || event.shiftKey ? 'redo' : 'undo');
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [session]);
}

const list: readonly (readonly [string, string])[] = [
  ['/', 'find an address, name, VLAN, MAC'],
  ['q', 'ask the probe: who reaches whom'],
  ['n', 'next finding'],
  [`1 … ${stations.length}`, 'go to a station'],
  ['u, Ctrl Z', 'undo your latest change'],
  ['U, Ctrl Y', 'redo'],
  [
    '+',
    'add a segment (Segments), a fixed address (Addresses), a device (Gear & ports), an uplink (Internet side) or a rule (Who may talk)',
  ],
  ['f', 'Fit: re-pack the subnets (Segments)'],
  ['p', 'paste rows from a spreadsheet (Addresses, the table of Gear & ports)'],
  ['Alt ↑ ↓', 'move the segment of this row up or down'],
  ['← →', 'on the strip: move the segment to the next free block; on a pool edge: one address'],
  ['a t v x', 'on chosen ports: access, trunk, access + voice, park; then type the segment and Enter'],
  ['arrows', 'on a face: go to the next port; with Shift choose as you go, with the space bar one by one'],
  ['a d s r', 'on cells of the matrix: allow, deny, only services, as usual (Who may talk)'],
  ['c', 'type a cable (Gear & ports)'],
  ['#', 'choose ports by typing their numbers (Gear & ports)'],
  ['Enter', 'commit what was typed'],
  ['Esc', 'give up what was typed, close'],
  ['?', 'this list'],
];

export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { singleKeys, set } = useView();
  return (
    <Dialog title="Keys" open={open} onClose={onClose}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        {list.map(([key, what]) => (
          <div key={key} className="contents">
            <dt>
              <span className="key">{key}</span>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
      <label className="flex items-center gap-2 pt-4">
        <input
          type="checkbox"
          checked={singleKeys}
          onChange={(event) => set({ singleKeys: event.target.checked })}
        />
        Single keys act as commands
      </label>
    </Dialog>
  );
}
