import { json } from '@sveltejs/kit';
import { readSetup, type Setup } from '#core/formats/instrumentSetup.ts';
import { MOST_MESSAGE } from '#core/instruments/scpi.ts';
import { SimulatedMeter } from '#core/instruments/simulated.ts';
import { InvalidError } from '#core/job/validate.ts';

/** Largest first line, characters. */
const MOST_SETUP = 4 * 1024 * 1024;
/** Most questions in one conversation, and how many are answered before others get their turn. */
const MOST_QUESTIONS = 20000;
const AT_A_TIME = 20;
/** What a slow line takes, ms: longer than any driver waits. */
const SLOW = 4000;
const GARBAGE = '\u0000\u0007+1.2.3E+\ufffdxx,,VOLT?';

const refuse = (status: number, path: string, message: string) =>
  json({ problems: [{ path, message }] }, { status });

/** Lines of a body as they arrive. @throws RangeError when one is longer than allowed */
async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  let buffer = '';
  let most = MOST_SETUP;
  const reader = body.getReader();
  for (;;) {
    const { done, value } = await reader.read();
    buffer += done ? decoder.decode() : decoder.decode(value, { stream: true });
    for (let end = buffer.indexOf('\n'); end >= 0; end = buffer.indexOf('\n')) {
      yield buffer.slice(0, end).trim();
      buffer = buffer.slice(end + 1);
      most = MOST_MESSAGE;
    }
    if (buffer.length > most) {
      await reader.cancel();
      throw new RangeError(`expected lines of ${most} characters or less`);
    }
    if (done) break;
  }
  if (buffer.trim() !== '') yield buffer.trim();
}

/** The meter’s answers, line by line, while questions come. */
function answers(
  lines: AsyncGenerator<string>,
  { outlet, trouble, state }: Setup,
): ReadableStream<Uint8Array> {
  const meter = new SimulatedMeter(outlet, state ?? undefined);
  const encoder = new TextEncoder();
  let asked = 0;
  return new ReadableStream({
    async pull(controller) {
      for (;;) {
        const { done, value } = await lines.next();
        if (done) {
          if (state !== undefined)
            controller.enqueue(encoder.encode(`#${JSON.stringify(meter.remembers)}\n`));
          controller.close();
          return;
        }
        if (++asked > MOST_QUESTIONS) {
          controller.error(new RangeError(`expected ${MOST_QUESTIONS} questions or fewer`));
          await lines.return(undefined);
          return;
        }
        // One who asks without end does not keep everybody else waiting.
        if (asked % AT_A_TIME === 0) await new Promise((resolve) => setImmediate(resolve));
        const answer = meter.take(value);
        if (answer === null) continue;
        if (trouble === 'cut') {
          controller.error(new Error('the line was cut'));
          return;
        }
        if (trouble === 'slow') await new Promise((resolve) => setTimeout(resolve, SLOW));
        controller.enqueue(encoder.encode(`${trouble === 'garbage' ? GARBAGE : answer}\n`));
        return;
      }
    },
    async cancel() {
      await lines.return(undefined);
    },
  });
}

/**
 * A simulated meter at an outlet. The first line of the body is what it is plugged in at, as JSON; each further line is a
 * program message, and each answer comes back as a line while the body is still being sent. Nothing is kept.
 */
export async function POST({ request }) {
  if (!request.body) return refuse(400, 'body', 'expected a setup as the first line');
  const lines = linesOf(request.body);
  try {
    const { value, done } = await lines.next();
    if (done) return refuse(400, 'body', 'expected a setup as the first line');
    let setup: unknown;
    try {
      setup = JSON.parse(value);
    } catch {
      return refuse(400, 'setup', 'is not complete JSON; expected it on the first line');
    }
    return new Response(answers(lines, readSetup(setup)), {
      headers: { 'content-type': 'text/plain; charset=utf-8', 'cache-control': 'no-store' },
    });
  } catch (error) {
    if (error instanceof InvalidError) return json({ problems: error.problems }, { status: 422 });
    if (error instanceof RangeError) return refuse(413, 'body', error.message);
    throw error;
  }
}

export const fallback = () => refuse(405, 'method', 'expected POST');
