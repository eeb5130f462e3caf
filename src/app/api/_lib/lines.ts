import type * as z from 'zod';
import { LINES, type Line, type sentFile } from '@/contract';
import type { Progress } from '@/core/plan';

type Hear = (progress: Progress) => void;

/** What a line can hold of an answer: JSON as it is, a file with its name. */
async function toldBy(response: Response): Promise<unknown> {
  const type = response.headers.get('content-type') ?? '';
  if (/\bjson\b/.test(type)) return response.json();
  const name = /filename="([^"]*)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'file';
  const base64 = Buffer.from(await response.arrayBuffer()).toString('base64');
  return { name, type, base64 } satisfies z.input<typeof sentFile>;
}

/**
 * An answer that takes long, as lines of JSON from the first progress on. What is answered before that is answered as ever,
 * with its own status.
 */
export function inLines(run: (hear: Hear) => Promise<Response>): Promise<Response> {
  let open: ReadableStreamDefaultController<Uint8Array> | null = null;
  let gone = false;
  const encoder = new TextEncoder();
  const say = (line: Line) => gone || open?.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
  return new Promise((resolve, reject) => {
    const begin = () => {
      const stream = new ReadableStream<Uint8Array>({
        start: (controller) => void (open = controller),
        cancel: () => void (gone = true),
      });
      const headers = { 'content-type': LINES, 'cache-control': 'no-store', 'x-accel-buffering': 'no' };
      resolve(new Response(stream, { headers }));
    };
    const hear = (progress: Progress) => {
      if (!open) begin();
      say({ progress });
    };
    run(hear).then(async (response) => {
      if (!open) return resolve(response);
      const told = await toldBy(response);
      say(response.ok ? { answer: told } : { problem: told as never });
      if (!gone) open.close();
    }, reject);
  });
}
