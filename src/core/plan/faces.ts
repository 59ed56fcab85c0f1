/**
 * The rooms enclosed by loose wall lines: the bounded faces of the planar graph they make. Segments are split
 * where they cross or touch, ends within a tolerance are joined, loose ends fall away, and each face is walked
 * by always turning to the next edge clockwise (de Berg et al., Computational Geometry, ch. 2).
 */
import { type Point, boundsOfPoints } from '#core/job/outline.ts';
import { distance, nearestOnSegment } from './footprint.ts';

export type Line = readonly [Point, Point];

/** Twice the signed area; positive when walked clockwise on the plan, where y runs south. */
export const doubledArea = (corners: readonly Point[]): number =>
  corners.reduce((sum, p, i) => {
    const q = corners[(i + 1) % corners.length]!;
    return sum + p.x * q.y - q.x * p.y;
  }, 0);

class Joints {
  private readonly cells = new Map<string, number[]>();
  readonly points: Point[] = [];
  private readonly tolerance: number;
  constructor(tolerance: number) {
    this.tolerance = tolerance;
  }
  /** The number of the joint at a point; a new one when none is within the tolerance. */
  of(p: Point): number {
    const i = Math.floor(p.x / this.tolerance);
    const j = Math.floor(p.y / this.tolerance);
    for (let a = i - 1; a <= i + 1; a++) {
      for (let b = j - 1; b <= j + 1; b++) {
        for (const n of this.cells.get(`${a},${b}`) ?? [])
          if (distance(this.points[n]!, p) <= this.tolerance) return n;
      }
    }
    const n = this.points.length;
    this.points.push(p);
    const key = `${i},${j}`;
    const cell = this.cells.get(key);
    if (cell) cell.push(n);
    else this.cells.set(key, [n]);
    return n;
  }
}

function crossing([a, b]: Line, [c, d]: Line): Point | null {
  const r = { x: b.x - a.x, y: b.y - a.y };
  const s = { x: d.x - c.x, y: d.y - c.y };
  const det = r.x * s.y - r.y * s.x;
  if (Math.abs(det) < 1e-9) return null;
  const t = ((c.x - a.x) * s.y - (c.y - a.y) * s.x) / det;
  const u = ((c.x - a.x) * r.y - (c.y - a.y) * r.x) / det;
  return t > 0 && t < 1 && u > 0 && u < 1 ? { x: a.x + r.x * t, y: a.y + r.y * t } : null;
}

/** Points where a line is cut by the others, from its start to its end. */
function cuts(line: Line, others: readonly Line[], tolerance: number): Point[] {
  const [a, b] = line;
  const on: Point[] = [a, b];
  for (const other of others) {
    if (other === line) continue;
    const cross = crossing(line, other);
    if (cross) on.push(cross);
    for (const end of other)
      if (distance(end, nearestOnSegment(end, a, b)) <= tolerance) on.push(nearestOnSegment(end, a, b));
  }
  return on.sort((p, q) => distance(a, p) - distance(a, q));
}

/** Lines sorted into columns by x, so that each is held against those near it only. */
function neighbors(lines: readonly Line[], tolerance: number): (line: Line) => Line[] {
  const width = 60;
  const columns = new Map<number, Line[]>();
  const span = ([a, b]: Line) => {
    const { left, right } = boundsOfPoints([a, b]);
    return [Math.floor((left - tolerance) / width), Math.floor((right + tolerance) / width)] as const;
  };
  for (const line of lines) {
    const [from, to] = span(line);
    for (let i = from; i <= to; i++) {
      const column = columns.get(i);
      if (column) column.push(line);
      else columns.set(i, [line]);
    }
  }
  return (line) => {
    const [from, to] = span(line);
    const { top, bottom } = boundsOfPoints(line);
    const near = new Set<Line>();
    for (let i = from; i <= to; i++) {
      for (const other of columns.get(i) ?? []) {
        const b = boundsOfPoints(other);
        if (b.top <= bottom + tolerance && b.bottom >= top - tolerance) near.add(other);
      }
    }
    return [...near];
  };
}

/**
 * Outlines of the bounded faces, walked clockwise on the plan.
 * @param tolerance ends nearer to each other, or to a line, are joined, inches
 * @param least smallest face kept, square inches
 */
export function facesOf(lines: readonly Line[], tolerance: number, least: number): Point[][] {
  const joints = new Joints(tolerance);
  const edges = new Map<number, Set<number>>();
  const join = (p: number, q: number) => {
    if (p === q) return;
    for (const [from, to] of [
      [p, q],
      [q, p],
    ] as const) {
      const at = edges.get(from);
      if (at) at.add(to);
      else edges.set(from, new Set([to]));
    }
  };
  const near = neighbors(lines, tolerance);
  for (const line of lines) {
    const at = cuts(line, near(line), tolerance).map((p) => joints.of(p));
    for (let i = 1; i < at.length; i++) join(at[i - 1]!, at[i]!);
  }
  // Loose ends enclose nothing.
  const loose = [...edges.keys()].filter((n) => edges.get(n)!.size === 1);
  for (let n = loose.pop(); n !== undefined; n = loose.pop()) {
    for (const other of edges.get(n) ?? []) {
      edges.get(other)!.delete(n);
      if (edges.get(other)!.size === 1) loose.push(other);
    }
    edges.delete(n);
  }
  const angle = (from: number, to: number) =>
    Math.atan2(joints.points[to]!.y - joints.points[from]!.y, joints.points[to]!.x - joints.points[from]!.x);
  const around = new Map(
    [...edges].map(([n, to]) => [n, [...to].sort((p, q) => angle(n, p) - angle(n, q))] as const),
  );
  const walked = new Set<string>();
  const faces: Point[][] = [];
  for (const [start, ends] of around) {
    for (const first of ends) {
      const corners: Point[] = [];
      let from = start;
      let to = first;
      while (!walked.has(`${from},${to}`)) {
        walked.add(`${from},${to}`);
        corners.push(joints.points[from]!);
        const out = around.get(to)!;
        // The edge next to the one come by: the face lies on the right.
        const back = out.indexOf(from);
        const next = out[(back - 1 + out.length) % out.length]!;
        from = to;
        to = next;
      }
      if (corners.length >= 3 && doubledArea(corners) / 2 >= least) faces.push(corners);
    }
  }
  return faces;
}
