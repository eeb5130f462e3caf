'use client';

import { Toggle } from '../parts/tick';
import { Dialog } from '../parts/dialog';
import { useView } from '../session/view';
import { type Command, useOfferedCommands } from './commands';

/** Keys that are the same in every field and dialog. */
const everywhere: readonly Command[] = [
  { key: 'Ctrl Z', name: 'undo your latest change', run: null },
  { key: 'Ctrl Y', name: 'redo', run: null },
  { key: 'Ctrl K', name: 'find, and everything that can be done here', run: null },
  { key: 'Enter', name: 'commit what was typed', run: null },
  { key: 'Esc', name: 'give up what was typed, close', run: null },
];

/** What keys do on this page: read off the commands that are offered. */
export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { singleKeys, set } = useView();
  const offered = useOfferedCommands();
  return (
    <Dialog title="Keys of this page" open={open} onClose={onClose}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        {[...offered, ...everywhere].map(({ key, name }) => (
          <div key={`${key} ${name}`} className="contents">
            <dt>
              <span className="key">{key === 'Escape' ? 'Esc' : key}</span>
            </dt>
            <dd>{name}</dd>
          </div>
        ))}
      </dl>
      <div className="pt-4">
        <Toggle
          label="Single keys act as commands"
          checked={singleKeys}
          onChange={(on) => set({ singleKeys: on })}
        />
      </div>
    </Dialog>
  );
}
