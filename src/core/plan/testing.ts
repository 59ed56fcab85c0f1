/** Random rooms for tests: rectangles and L-shapes in whole inches, with openings and receptacles. */
import fc from 'fast-check';

export interface RoomCase {
  lengths: number[];
  turns: number[];
  openings: { wall: number; offset: number; width: number }[];
  receptacles: { wall: number; offset: number }[];
}

/** A rectangle, or an L with one corner cut out. */
export const closedRoom = (least = 60, most = 400): fc.Arbitrary<{ lengths: number[]; turns: number[] }> =>
  fc
    .record({
      width: fc.integer({ min: least, max: most }),
      depth: fc.integer({ min: least, max: most }),
      cut: fc.option(
        fc.record({
          x: fc.integer({ min: 10, max: least - 10 }),
          y: fc.integer({ min: 10, max: least - 10 }),
        }),
      ),
    })
    .map(({ width, depth, cut }) =>
      cut === null
        ? { lengths: [width, depth, width, depth], turns: [90, 90, 90, 90] }
        : {
            lengths: [width, depth, width - cut.x, cut.y, cut.x, depth - cut.y],
            turns: [90, 90, 90, -90, 90, 90],
          },
    );

export const randomRoom = (least = 60, most = 400): fc.Arbitrary<RoomCase> =>
  closedRoom(least, most).chain(({ lengths, turns }) => {
    const wall = fc.integer({ min: 1, max: lengths.length });
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    return fc
      .record({
        openings: fc.uniqueArray(fc.record({ wall, from: share, width: share }), {
          maxLength: 4,
          selector: (o) => o.wall,
        }),
        receptacles: fc.array(fc.record({ wall, at: share }), { maxLength: 6 }),
      })
      .map((r) => ({
        lengths,
        turns,
        openings: r.openings.map((o) => {
          const length = lengths[o.wall - 1]!;
          const width = Math.max(1, Math.round(o.width * length));
          return { wall: o.wall, offset: Math.round(o.from * (length - width)), width };
        }),
        // Whole inches inside the wall, so that every receptacle stands on one wall only.
        receptacles: r.receptacles.map((p) => {
          const length = lengths[p.wall - 1]!;
          return { wall: p.wall, offset: 1 + Math.round(p.at * (length - 2)) };
        }),
      }));
  });
