import { tickKey } from '@/core/log';
import { useSite } from '../session/context';
import { useLog, useLogBook } from '../session/log-context';
import type { Ticking } from '../schedule/settings-block';

/** What is ticked of the settings of a box, by everybody, in a run or beside one. */
export function useTicking(device: string, run: string | null = null): Ticking {
  const book = useLogBook();
  const revision = useSite((state) => state.revision);
  const ticks = useLog((state) => state.log.ticks);
  return {
    isDone: (page, line) => ticks.get(tickKey(device, page, line))?.body.done ?? false,
    onTick: (page, lines, done) => {
      if (lines.length > 0)
        book.add(
          { kind: 'tick', device, run, page, lines: lines.map(({ what, value }) => ({ what, value })), done },
          revision,
        );
    },
  };
}
