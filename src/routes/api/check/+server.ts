import { json } from '@sveltejs/kit';
import { checkApart } from '$lib/server/checks.ts';
import { BusyError, TooLongError } from '$lib/server/pool.ts';

/** Largest body read, bytes. */
const LIMIT = 8 * 1024 * 1024;

const refuse = (status: number, path: string, message: string) =>
  json({ problems: [{ path, message }] }, { status });

/** The body as text, given up as soon as it passes the limit; null when it does. */
async function limitedText(request: Request): Promise<string | null> {
  const reader = request.body?.getReader();
  if (!reader) return '';
  const chunks: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.byteLength;
    if (size > LIMIT) {
      await reader.cancel();
      return null;
    }
    chunks.push(value);
  }
  return Buffer.concat(chunks).toString('utf8');
}

/** Checks a job file: findings and their counts, or 4xx with each problem's path. Nothing is kept. */
export async function POST({ request }) {
  if (Number(request.headers.get('content-length') ?? 0) > LIMIT) {
    return refuse(413, 'body', `expected ${LIMIT / 1024 / 1024} MB or less`);
  }
  let text: string | null;
  try {
    text = await limitedText(request);
  } catch {
    text = null;
  }
  if (text === null) return refuse(413, 'body', `expected ${LIMIT / 1024 / 1024} MB or less`);
  // After the body is read: a connection that is still sending would be cut off instead of answered.
  if (!request.headers.get('content-type')?.startsWith('application/json'))
    return refuse(415, 'content-type', 'expected application/json');
  try {
    const { status, body } = await checkApart(text);
    return new Response(body, { status, headers: { 'content-type': 'application/json' } });
  } catch (error) {
    if (error instanceof BusyError) {
      const busy = refuse(503, 'server', `is busy; try again in ${error.retryAfter} s`);
      busy.headers.set('retry-after', String(error.retryAfter));
      return busy;
    }
    if (error instanceof TooLongError)
      return refuse(
        422,
        'file',
        'takes longer to check than this server allows; check it with the command line',
      );
    throw error;
  }
}

export const fallback = () => refuse(405, 'method', 'expected POST');
