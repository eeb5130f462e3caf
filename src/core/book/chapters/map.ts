import { mapDrawing } from '../../formats';
import { drawn, text } from '../blocks';
import type { ChapterKind } from '../chapter';

export const map: ChapterKind = {
  id: 'map',
  title: 'Map',
  write: ({ plan, map: arranged }) => {
    const drawing = arranged && mapDrawing(plan, arranged);
    return drawing
      ? [
          text(
            'Boxes by the place they stand at, from the Internet inwards. Numbers are sockets as printed on the case; below each box, how many devices are plugged in, by segment.',
          ),
          ...drawn(drawing, true),
        ]
      : [];
  },
};
