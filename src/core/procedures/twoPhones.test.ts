/** Two phones: what is heard, what goes over as a code, and which flip it was, with noise in all of them. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import encodeQR from 'qr';
import decodeQR from 'qr/decode.js';
import { randomFrom } from '#core/planner/search/random.ts';
import { codeOf, matchPhones, MOST_SPANS, SoundWatch, spansOf, type Span, type Stamp } from './twoPhones.ts';

/** Levels every tenth of a second: loud but for some spans, with noise. */
function listen(until: number, silent: readonly Span[], knocks: readonly number[], seed: number): SoundWatch {
  const random = randomFrom(seed);
  const watch = new SoundWatch();
  for (let t = 0; t < until; t += 0.1) {
    const quiet = silent.some((s) => t >= s.from && t < s.to);
    const knock = knocks.some((k) => t >= k && t < k + 0.3);
    watch.hear(t, (quiet && !knock ? 0.02 : 0.2) * (0.75 + 0.5 * random()));
  }
  return watch;
}

test('a stop is heard to a few tenths of a second; a knock within it and a short pause are none', () => {
  const watch = listen(
    60,
    [
      { from: 20, to: 26 },
      { from: 40, to: 40.4 },
    ],
    [22],
    3,
  );
  assert.equal(watch.spans.length, 1);
  const [span] = watch.spans;
  assert.ok(Math.abs(span!.from - 20) < 0.3 && Math.abs(span!.to - 26) < 0.3, JSON.stringify(span));
});

test('a code gives back what went in, to the half second, and no single letter of it can be wrong', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({ from: fc.integer({ min: 0, max: 16000 }), long: fc.integer({ min: 1, max: 60 }) }),
        {
          maxLength: MOST_SPANS,
        },
      ),
      fc.nat(),
      (list, where) => {
        const spans = list
          .map(({ from, long }) => ({ from: from / 2, to: (from + long) / 2 }))
          .sort((a, b) => a.from - b.from);
        const code = codeOf(spans);
        const back = spansOf(code)!;
        assert.deepEqual(
          back.map((s) => s.from),
          spans.map((s) => s.from),
        );
        const letters = code.replaceAll('-', '');
        const at = where % letters.length;
        const wrong = letters[at] === 'Z' ? 'Y' : 'Z';
        const mistyped = letters.slice(0, at) + wrong + letters.slice(at + 1);
        assert.equal(spansOf(mistyped), null, `${letters} as ${mistyped}`);
      },
    ),
    { numRuns: 300 },
  );
  assert.equal(spansOf(''), null);
  assert.equal(spansOf('hello'), null);
});

test('what is shown to be scanned reads as the same code', () => {
  const code = codeOf([
    { from: 31.5, to: 36 },
    { from: 80, to: 83.5 },
  ]);
  const cells = encodeQR(code, 'raw', { border: 2 });
  const scale = 4;
  const width = cells[0]!.length * scale;
  const data = new Uint8ClampedArray(width * width * 4).fill(255);
  for (let y = 0; y < width; y++)
    for (let x = 0; x < width; x++)
      if (cells[Math.floor(y / scale)]![Math.floor(x / scale)])
        data.fill(0, 4 * (y * width + x), 4 * (y * width + x) + 3);
  assert.equal(decodeQR({ width, height: width, data }), code);
});

test('of forty breakers the one is told, starts apart, ears late, with false stops; and none where none was it', () => {
  for (let seed = 1; seed <= 200; seed++) {
    const random = randomFrom(seed);
    let t = 5;
    const stamps = Array.from({ length: 40 }, (_, k): Stamp => {
      const from = t + 1 + 3 * random();
      const to = from + 3 + 3 * random();
      t = to;
      return { space: String(k + 1), from, to };
    });
    const shift = 4 * (random() - 0.5);
    const jitter = () => 0.6 * (random() - 0.5);
    const truth = stamps[Math.floor(40 * random())]!;
    const there = seed % 5 !== 0;
    const falseStops = Array.from({ length: seed % 4 }, (): Span => {
      const from = t * random();
      return { from, to: from + 0.8 + (random() < 0.5 ? 1 : 12 + 20 * random()) };
    });
    const heard = [
      ...(there ? [{ from: truth.from - shift + jitter(), to: truth.to - shift + jitter() }] : []),
      ...falseStops,
    ];
    const { spaces } = matchPhones(stamps, spansOf(codeOf(heard))!);
    if (there)
      assert.ok(spaces.includes(truth.space), `seed ${seed}: ${spaces.join(' ')} for ${truth.space}`);
    assert.ok(spaces.length <= (there ? 1 : 0) + 1, `seed ${seed}: ${spaces.join(' ')}`);
  }
});
