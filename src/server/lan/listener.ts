import type http from 'node:http';
import { type Paired, pairedBy, takeOffer } from '../../db/pairings';
import { database } from '../../db/connection';
import { ONLY, cookiesOf, heldIn, mayAsk, onlyText } from './limits';
import { askPage, refusedPage } from './pages';

/** Who comes by the local network: paired first, and then answered as far as a phone may ask. */

const OFFER = /^[\w-]{32}$/;
/** An offer and its name. */
const MOST = 200;

const GONE =
  'This code was used already or is older than ten minutes. Ask for a new one at the laptop: in the run, Pair a phone.';
const UNKNOWN = 'This phone is not paired. Scan the code at the laptop: in the run, Pair a phone.';

function say(response: http.ServerResponse, status: number, html: string): void {
  response.writeHead(status, { 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' });
  response.end(html);
}

async function bodyOf(request: http.IncomingMessage): Promise<string> {
  let text = '';
  for await (const part of request) {
    text += String(part);
    if (text.length > MOST) return '';
  }
  return text;
}

async function pair(
  request: http.IncomingMessage,
  response: http.ServerResponse,
  origins: readonly string[],
): Promise<void> {
  if (request.method === 'GET') {
    const offer = new URL(request.url!, 'https://phone.invalid').searchParams.get('offer') ?? '';
    return OFFER.test(offer) ? say(response, 200, askPage(offer)) : say(response, 404, refusedPage(GONE));
  }
  const { origin } = request.headers;
  if (request.method !== 'POST' || (origin !== undefined && !origins.includes(origin)))
    return say(response, 403, refusedPage('This was asked from another page.'));
  const offer = new URLSearchParams(await bodyOf(request)).get('offer') ?? '';
  const taken = OFFER.test(offer) ? await takeOffer(database(), offer, Date.now()) : null;
  if (!taken) return say(response, 410, refusedPage(GONE));
  response.writeHead(303, {
    location: `/site/${taken.site}/run?run=${taken.run}`,
    'set-cookie': cookiesOf(taken.secret),
    'cache-control': 'no-store',
  });
  response.end();
}

/**
 * Answers pairing itself and passes on what a paired phone may ask, marked with its run; refuses everything else. `pass` answers as for
 * anybody at this machine.
 */
export async function answerPhone(
  request: http.IncomingMessage,
  response: http.ServerResponse,
  origins: readonly string[],
  pass: () => void,
): Promise<void> {
  const url = request.url ?? '/';
  if (url.split('?')[0] === '/pair') return pair(request, response, origins);
  const held = heldIn(request.headers.cookie);
  const paired: Paired | null = held ? await pairedBy(database(), held, Date.now()) : null;
  if (!paired) return say(response, 403, refusedPage(UNKNOWN));
  if (!mayAsk(paired, request.method ?? '', url))
    return say(response, 403, refusedPage('A paired phone is shown its run and nothing else.'));
  request.headers[ONLY] = onlyText(paired);
  pass();
}
