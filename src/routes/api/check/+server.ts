import { json } from '@sveltejs/kit';
import { check } from '../../../core/code/checker.ts';
import { parseFile } from '../../../core/job/file.ts';
import { InvalidError } from '../../../core/job/validate.ts';
import { summarise } from '../../../core/records/summary.ts';

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
    return json(summarise(check(parseFile(text))));
  } catch (error) {
    if (error instanceof InvalidError) return json({ problems: error.problems }, { status: 422 });
    throw error;
  }
}

export const fallback = () => refuse(405, 'method', 'expected POST');
