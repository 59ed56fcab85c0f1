import assert from 'node:assert/strict';
import { test } from 'node:test';
import { plainRun } from '#core/network/testing.ts';
import { Instrument, InstrumentError, watch, type Link, type LiveState } from './driver.ts';
import { SimulatedMeter } from './simulated.ts';

const TIMEOUT = 60;

/** A link whose far end answers each question by a script: text to send, and after how long; null says nothing. */
function scripted(answer: (question: string, count: number) => { text: string; after?: number } | null) {
  let take: (text: string) => void = () => {};
  let lose: (reason: string) => void = () => {};
  let count = 0;
  const timers = new Set<ReturnType<typeof setTimeout>>();
  const link: Link & { cut(): void } = {
    send(question) {
      const reply = answer(question.trim(), count++);
      if (reply) timers.add(setTimeout(() => take(reply.text), reply.after ?? 0));
      return Promise.resolve();
    },
    listen(taker, loser) {
      take = taker;
      lose = loser;
    },
    cut: () => lose('unplugged'),
    close() {
      timers.forEach(clearTimeout);
      return Promise.resolve();
    },
  };
  return link;
}

const fails = (promise: Promise<unknown>, kind: InstrumentError['kind'], words: RegExp) =>
  assert.rejects(
    promise,
    (e: unknown) => e instanceof InstrumentError && e.kind === kind && words.test(e.message),
  );

test('drives the simulated meter, whatever pieces its answers come in', async () => {
  const meter = new SimulatedMeter({ run: plainRun(3), stop: 2, faults: [], dead: false });
  let take: (text: string) => void = () => {};
  const link: Link = {
    async send(text) {
      const answer = meter.take(text.trim());
      for (const c of `\r\n${answer ?? ''}\r\n`) {
        await Promise.resolve();
        take(c);
      }
    },
    listen: (taker) => (take = taker),
    close: () => Promise.resolve(),
  };
  const instrument = new Instrument(link, TIMEOUT);
  assert.equal(await instrument.identify(), 'HEKTO SIMULATED METER');
  const [volts, toGround] = await instrument.volts([1, 2]);
  assert.ok(Math.abs(volts! - 120) < 0.1 && Math.abs(toGround! - 120) < 0.1);
});

test('garbage is refused by what came, and the next answer is the next question’s', async () => {
  const link = scripted((_q, n) =>
    n === 0 ? { text: 'volts: lots\n+1.00000E+02\n' } : { text: '+1.19000E+02\n' },
  );
  const instrument = new Instrument(link, TIMEOUT);
  await fails(instrument.volts([1]), 'garbled', /said “volts: lots”/);
  assert.deepEqual(await instrument.volts([1]), [119]);
  await instrument.close();
});

for (const text of ['-5\n', '+1E+09\n', '+1.2E+02,+1.2E+02\n', '9.9E37\n', 'NaN\n']) {
  test(`${JSON.stringify(text)} is no voltage`, async () => {
    const instrument = new Instrument(
      scripted(() => ({ text })),
      TIMEOUT,
    );
    await fails(instrument.volts([1]), 'garbled', /expected 1 voltages/);
  });
}

test('an endless line is given up', async () => {
  const instrument = new Instrument(
    scripted(() => ({ text: 'x'.repeat(3000) })),
    TIMEOUT,
  );
  await fails(instrument.volts([1]), 'garbled', /without the end of a line/);
});

test('a slow answer is told, and when it comes late it is not taken for another', async () => {
  const link = scripted((_q, n) =>
    n === 0 ? { text: '+1.00000E+02\n', after: TIMEOUT + 40 } : { text: '+1.19000E+02\n' },
  );
  const instrument = new Instrument(link, TIMEOUT);
  await fails(instrument.volts([1]), 'slow', /within 0\.06 s/);
  assert.deepEqual(await instrument.volts([1]), [119]);
  await instrument.close();
});

test('a lost link ends the question that waits and all that follow', async () => {
  const link = scripted(() => null);
  const instrument = new Instrument(link, 10_000);
  const waiting = instrument.volts([1]);
  setTimeout(() => link.cut(), 5);
  await fails(waiting, 'lost', /unplugged/);
  await fails(instrument.volts([1]), 'lost', /unplugged/);
});

test('a link that cannot send is lost', async () => {
  const link: Link = {
    send: () => Promise.reject(new Error('port gone')),
    listen: () => {},
    close: () => Promise.resolve(),
  };
  await fails(new Instrument(link, TIMEOUT).identify(), 'lost', /port gone/);
});

test('watching goes on through garbage and slowness, and ends with the link', async () => {
  const link = scripted((_q, n) =>
    n === 1 ? { text: '???\n' } : n === 2 ? null : { text: `+1.2${n}000E+02\n` },
  );
  const seen: LiveState[] = [];
  await new Promise<void>((resolve) => {
    watch(new Instrument(link, TIMEOUT), [1], 1, (state) => {
      seen.push(state);
      if (seen.length === 4) link.cut();
      if (state.state === 'lost') resolve();
    });
  });
  assert.deepEqual(
    seen.map((s) => s.state),
    ['live', 'garbled', 'slow', 'live', 'lost'],
  );
});

test('questions wait their turn', async () => {
  const asked: string[] = [];
  const link = scripted((q) => {
    asked.push(q);
    return { text: `${asked.length}\n`, after: 5 };
  });
  const instrument = new Instrument(link, 1000);
  assert.deepEqual(await Promise.all(['A?', 'B?', 'C?'].map((q) => instrument.ask(q))), ['1', '2', '3']);
  assert.deepEqual(asked, ['A?', 'B?', 'C?']);
});
