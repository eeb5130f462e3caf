'use client';

import { Dialog as Radix } from 'radix-ui';
import { type ReactNode, useLayoutEffect, useRef } from 'react';
import { focusStation, isFocusLost } from './focus';

interface DialogProps {
  readonly title: string;
  readonly open: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
  readonly wide?: boolean;
  readonly describe?: string;
}

/** A sheet over the page; Esc and the button close it, and the focus goes back to where it came from. */
export function Dialog({ title, open, onClose, children, wide, describe }: DialogProps) {
  const opener = useRef<Element>(null);
  useLayoutEffect(() => {
    if (open) opener.current = document.activeElement;
  }, [open]);
  return (
    <Radix.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <Radix.Content
          onCloseAutoFocus={(event) => {
            // It comes a moment after closing: what a next key has put the focus on by then keeps it.
            const taken = !isFocusLost();
            // Opened by a key there is nobody to give the focus back to.
            const openedByKey = isFocusLost(opener.current);
            if (taken || openedByKey) event.preventDefault();
            if (!taken && openedByKey) focusStation();
          }}
          onKeyDown={(event) => {
            // A toast that came up later takes the key for itself, and hides it from the sheet below.
            if (event.key === 'Escape' && !event.defaultPrevented) onClose();
          }}
          {...(describe ? {} : { 'aria-describedby': undefined })}
          className={`fixed top-1/2 left-1/2 z-50 flex max-h-[92vh] w-[calc(100vw-24px)] -translate-x-1/2 -translate-y-1/2 flex-col border-[3px] border-ink bg-paper ${wide ? 'max-w-[900px]' : 'max-w-[560px]'}`}
        >
          <div className="flex items-center justify-between gap-4 border-b-2 border-ink px-4 py-2">
            <Radix.Title className="tape text-[15px]">{title}</Radix.Title>
            <Radix.Close className="button">
              Close <span className="key">Esc</span>
            </Radix.Close>
          </div>
          {describe && <Radix.Description className="px-4 pt-2 text-muted">{describe}</Radix.Description>}
          <div className="overflow-auto px-4 py-3">{children}</div>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
