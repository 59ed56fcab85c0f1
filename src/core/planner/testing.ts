/** Random problems for tests and measurements: boxes of a house along walls, in whole inches. */
import type { Problem } from './problem.ts';
import { randomFrom } from './random.ts';

export function randomProblem(count: number, seed: number, values: Partial<Problem> = {}): Problem {
  const random = randomFrom(seed);
  const rooms = Array.from({ length: Math.max(1, Math.ceil(count / 5)) }, () => ({
    x: Math.floor(random() * 500),
    y: Math.floor(random() * 400),
  }));
  const sites = Array.from({ length: count }, (_, i) => {
    const room = i % rooms.length;
    return {
      room,
      x: rooms[room]!.x + Math.floor(random() * 150),
      y: rooms[room]!.y + Math.floor(random() * 130),
    };
  });
  const pair = (make: (a: (typeof sites)[number], b: (typeof sites)[number]) => number) =>
    Float64Array.from(sites.flatMap((a) => sites.map((b) => (a === b ? 0 : make(a, b)))));
  return {
    ids: sites.map((_, i) => `box-${i}`),
    home: Float64Array.from(sites, (s) => s.x + s.y + 84 + 48),
    between: pair((a, b) => Math.abs(a.x - b.x) + Math.abs(a.y - b.y) + 96),
    change: pair((a, b) => (a.room === b.room ? 0 : 150)),
    size: new Int32Array(count).fill(1),
    least: Uint8Array.from(sites, () => (random() < 0.2 ? 20 : 15)),
    amps: new Float64Array(count).fill(1.5),
    needs: Uint8Array.from(sites, () => (random() < 0.8 ? 1 : 2)),
    guards: Uint8Array.from(sites, () => (random() < 0.15 ? 1 : 0)),
    protection: [0, 4000, 4500, 5500],
    options: [
      { rating: 15, gauge: '14', breaker: 600, perInch: 4, ohmsPerInch: 3.07 / 12000, capacity: 8 },
      { rating: 20, gauge: '12', breaker: 700, perInch: 6, ohmsPerInch: 1.93 / 12000, capacity: 10 },
    ],
    maxOut: new Uint8Array(count).fill(2),
    company: new Uint8Array(count),
    room: new Int32Array(count).fill(-1),
    dark: 0,
    maxDrop: 3.6,
    marked: { sites: new Uint8Array(count), circuits: 0 },
    ...values,
  };
}
