'use client';

import { Toast } from 'radix-ui';
import { type ReactNode, useEffect } from 'react';
import { isTold } from '../session/attempt';
import { useSession, useSite } from '../session/context';
import { type Notice, useNotices } from '../session/notices';
import { useChangedMark } from './changed-mark';

/** How long what was done stays, in milliseconds; not while it is pointed at or has the focus. */
const SHORT = 6000;

/**
 * The one place for outcomes, and for refusals that no field shows: whatever is thrown and caught by nobody comes here too, so
 * that nothing a user does ends in silence. Outcomes go by themselves, refusals stay until they are put away.
 */
export function Toasts() {
  const { notices, tell } = useNotices();
  useUncaught(tell);
  useChangedMark();
  return (
    <Toast.Provider label="Told" swipeDirection="down">
      {notices.map((notice) => (
        <Refused key={notice.id} notice={notice} />
      ))}
      <Done />
      <Toast.Viewport
        label="Told, {hotkey}"
        className="no-print fixed bottom-[56px] left-1/2 z-50 flex w-[min(560px,calc(100vw-24px))] -translate-x-1/2 flex-col gap-1 outline-none max-[699px]:bottom-[62px]"
      />
    </Toast.Provider>
  );
}

function Done() {
  const session = useSession();
  const { outcome, lastChange } = useSite((state) => state);
  if (!outcome) return null;
  const { number, back } = outcome;
  return (
    <Told key={number} type="background" duration={SHORT} border="border-ink" text={lastChange}>
      {back && (
        <Toast.Action
          altText={`${back}: key ${back === 'undo' ? 'u' : 'U'}`}
          className="button"
          onClick={() => void session.undo(back)}
        >
          {back}
        </Toast.Action>
      )}
    </Told>
  );
}

function Refused({ notice: { id, text, severe } }: { notice: Notice }) {
  const dismiss = useNotices((state) => state.dismiss);
  return (
    <Told
      type="foreground"
      duration={Infinity}
      border={severe ? 'border-stop' : 'border-fix'}
      text={text}
      label="Refused"
      onClosed={() => dismiss(id)}
    >
      {severe && (
        <button type="button" className="button" onClick={() => window.location.reload()}>
          Load again
        </button>
      )}
    </Told>
  );
}

function Told({
  type,
  duration,
  border,
  text,
  label,
  onClosed,
  children,
}: {
  type: 'foreground' | 'background';
  duration: number;
  border: string;
  text: string;
  label?: string;
  onClosed?: () => void;
  children: ReactNode;
}) {
  return (
    <Toast.Root
      type={type}
      duration={duration}
      aria-label={label}
      onOpenChange={(open) => !open && onClosed?.()}
      className={`flex items-center gap-2 border-2 border-l-8 bg-sheet py-1 pr-2 pl-3 shadow-[0_0_0_2px_var(--paper)] ${border}`}
    >
      <Toast.Description className="line-clamp-3 min-w-0 flex-1">{text}</Toast.Description>
      {children}
      <Toast.Close className="link">dismiss</Toast.Close>
    </Toast.Root>
  );
}

function useUncaught(tell: (text: string, severe?: boolean) => void): void {
  useEffect(() => {
    const hear = (error: unknown, event: Event) => {
      if (isTold(error)) {
        event.preventDefault();
        tell(error.message);
      } else if (error instanceof Error && error.name !== 'AbortError')
        tell(
          `This page made a mistake of its own (${error.name}). What you typed is kept; load the page again.`,
          true,
        );
    };
    const onError = (event: ErrorEvent) => hear(event.error, event);
    const onRejection = (event: PromiseRejectionEvent) => hear(event.reason, event);
    window.addEventListener('error', onError);
    window.addEventListener('unhandledrejection', onRejection);
    return () => {
      window.removeEventListener('error', onError);
      window.removeEventListener('unhandledrejection', onRejection);
    };
  }, [tell]);
}
