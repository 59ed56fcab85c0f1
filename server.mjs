/**
 * The server: the built application behind headers that every answer carries, pages and assets alike. It listens on the
 * loopback address unless `HOST` says otherwise.
 */
import { readFileSync } from 'node:fs';
import { createServer as createPlain } from 'node:http';
import { createServer as createSecure } from 'node:https';
import process from 'node:process';

process.env.BODY_SIZE_LIMIT ??= '9M';
const { handler } = await import('./build/handler.js');

const HEADERS = {
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'no-referrer',
  'X-Frame-Options': 'DENY',
  'Permissions-Policy': 'microphone=(self), camera=(self), screen-wake-lock=(self)',
};
/** Types of body that the framework answers in plain words, if at all. */
const FORMS = /^(application\/x-www-form-urlencoded|multipart\/form-data|text\/plain)/i;

const json = (response, status, path, message) => {
  response.writeHead(status, { 'Content-Type': 'application/json', 'Cache-Control': 'no-store' });
  response.end(JSON.stringify({ problems: [{ path, message }] }));
};

/** Phones give microphone, wake lock and offline pages to a safe address only. */
const { TLS_CERT, TLS_KEY } = process.env;
const secure = TLS_CERT && TLS_KEY ? { cert: readFileSync(TLS_CERT), key: readFileSync(TLS_KEY) } : null;
const answer = (request, response) => {
  for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
  if (request.url?.startsWith('/api/')) {
    response.setHeader('Cache-Control', 'no-store');
    if (request.method === 'POST' && FORMS.test(request.headers['content-type'] ?? '')) {
      request.resume();
      json(response, 415, 'content-type', 'expected application/json, or application/x-scpi for a meter');
      return;
    }
  }
  handler(request, response, () => {
    if (response.headersSent) response.end();
    else json(response, 404, 'path', 'there is nothing at this address');
  });
};
const server = secure ? createSecure(secure, answer) : createPlain(answer);
// A body that dribbles in does not hold a place for ever. Meters speak for long; their lines are watched by their route.
server.headersTimeout = 10_000;
server.requestTimeout = 120_000;
server.maxHeadersCount = 100;
server.listen(Number(process.env.PORT ?? 3000), process.env.HOST ?? '127.0.0.1', () => {
  const { address, port } = server.address();
  process.stdout.write(`Listening on ${secure ? 'https' : 'http'}://${address}:${port}\n`);
});
for (const signal of ['SIGINT', 'SIGTERM'])
  process.once(signal, () => {
    server.close(() => process.exit(0));
    server.closeAllConnections();
  });
