import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import http from 'node:http';
import https from 'node:https';
import path from 'node:path';
import next from 'next';
import { type Allowed, type Asked, judged, safeHeaders } from './gate';
import { ONLY } from './lan/limits';
import { answerPhone } from './lan/listener';
import { log } from './log';
import { countRequest } from './metrics';

/** The web server: the gate, the log and the safe headers in front of the framework. */

const dev = process.env.NODE_ENV !== 'production';
const hostname = process.env.DIANOME_BIND || '127.0.0.1';
const port = Number(process.env.PORT || 4380);
const list = (name: string) =>
  (process.env[name] ?? '')
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((item) => item.toLowerCase());
const allowed = { hosts: list('DIANOME_HOSTS'), origins: list('DIANOME_ORIGINS') };
const version = process.env.DIANOME_BUILD ?? '';
const worker = path.join(process.cwd(), '.next/dianome/sw.js');

const app = next({ dev, hostname, port, dir: process.cwd() });
const handle = app.getRequestHandler();

/** Answers somebody at this machine, or behind the proxy of whoever runs it. */
function served(request: http.IncomingMessage, response: http.ServerResponse): void {
  delete request.headers[ONLY];
  answer(request, response, allowed);
}

function answer(request: http.IncomingMessage, response: http.ServerResponse, from: Allowed): void {
  const began = performance.now();
  const { method = 'GET', url = '/' } = request;
  const nonce = randomBytes(16).toString('base64');
  const headers = safeHeaders(nonce, dev);
  for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
  if (version) response.setHeader('x-dianome-version', version);
  const verdict = judged({ method, url, headers: request.headers } as Asked, from);
  const route = 'problem' in verdict ? 'refused' : (verdict.route?.path ?? 'page');
  response.on('close', () => {
    const seconds = (performance.now() - began) / 1000;
    countRequest(route, method, response.statusCode, seconds);
    const site = /^\/(?:api\/sites|site)\/([a-z0-9]+)/.exec(url)?.[1];
    // Files of the program say nothing about how it does.
    if (route !== 'page' || !url.startsWith('/_next/'))
      log('info', {
        request: `${method} ${route}`,
        status: response.statusCode,
        ms: Math.round(seconds * 1000),
        site,
      });
  });
  if ('problem' in verdict) {
    response.writeHead(verdict.problem.status, {
      ...verdict.headers,
      'content-type': 'application/problem+json',
      'cache-control': 'no-store',
    });
    response.end(method === 'HEAD' ? undefined : JSON.stringify(verdict.problem));
    // What is still sent is read and forgotten: a line that breaks off would swallow the answer.
    request.resume();
    return;
  }
  if (url === '/sw.js' && existsSync(worker)) {
    response.writeHead(200, {
      'content-type': 'text/javascript; charset=utf-8',
      'cache-control': 'no-cache',
    });
    response.end(readFileSync(worker));
    return;
  }
  // The framework puts the nonce it finds here on the scripts of its pages.
  request.headers['content-security-policy'] = headers['content-security-policy'];
  request.headers['x-nonce'] = nonce;
  void handle(request, response);
}

/** What phones on the local network reach, where somebody asked for that; see scripts/lib/lan.mjs. */
function lanServer(): https.Server {
  const origins = list('DIANOME_LAN');
  const phones: Allowed = { hosts: origins.map((origin) => new URL(origin).host), origins };
  const [cert, key] = ['DIANOME_LAN_CERT', 'DIANOME_LAN_KEY'].map((name) => readFileSync(process.env[name]!));
  return https.createServer({ cert, key, minVersion: 'TLSv1.2' }, (request, response) => {
    for (const [name, value] of Object.entries(safeHeaders('', false))) response.setHeader(name, value);
    answerPhone(request, response, origins, () => answer(request, response, phones)).catch(
      (error: unknown) => {
        log('error', { at: 'pairing', error });
        if (!response.headersSent) response.writeHead(503);
        response.end();
      },
    );
  });
}

async function main(): Promise<void> {
  await app.prepare();
  const server = http.createServer(served);
  // Longer than a proxy or a browser keeps a connection, or one is closed at the moment it is used again.
  server.keepAliveTimeout = 75_000;
  if (dev) {
    const upgrade = app.getUpgradeHandler();
    server.on('upgrade', (request, socket, head) => void upgrade(request, socket, head));
  }
  server.on('clientError', (_error, socket) => {
    if (socket.writable) socket.end('HTTP/1.1 400 Bad Request\r\nconnection: close\r\n\r\n');
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, hostname, resolve);
  });
  log('info', { listening: `${hostname}:${port}` });
  const lan = process.env.DIANOME_LAN ? lanServer() : null;
  if (lan)
    await new Promise<void>((resolve, reject) => {
      lan.once('error', reject);
      lan.listen(Number(process.env.DIANOME_LAN_PORT), '0.0.0.0', resolve);
    });
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.on(signal, () => {
      server.close(() => process.exit(0));
      server.closeIdleConnections();
      lan?.close();
      // Whoever is being answered has a moment more.
      setTimeout(() => process.exit(0), 4000).unref();
    });
}

main().catch((error: unknown) => {
  log('error', { starting: false, error });
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
