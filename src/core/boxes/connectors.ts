/**
 * What joins conductors: twist-on connectors by size class, lever ones by their number of ways. The classes are made up and
 * stand for what the usual makes have in common: the table on the bag of the very connector decides, 110.3(B), 110.14(B).
 */
import { CIRCULAR_MILS, type Material } from '#core/tables/conductors.ts';
import type { ConnectorKind, Gauge, School } from '#core/job/schema.ts';

/** Twist-on classes from small to large: most copper in all, as circular mils, most conductors, and the gauges they take. */
const TWIST_ON: readonly { kind: ConnectorKind; mils: number; most: number; largest: Gauge }[] = [
  { kind: 'small twist-on', mils: 2 * 6530, most: 3, largest: '12' },
  { kind: 'medium twist-on', mils: 4 * 6530, most: 6, largest: '10' },
  { kind: 'large twist-on', mils: 6 * 6530, most: 7, largest: '8' },
  { kind: 'extra-large twist-on', mils: 2 * 26240 + 10380, most: 8, largest: '6' },
];

/** Lever connectors: ways, and the largest gauge of the series. */
const LEVER: readonly { kind: ConnectorKind; ways: number; largest: Gauge }[] = [
  { kind: '2-way lever', ways: 2, largest: '12' },
  { kind: '3-way lever', ways: 3, largest: '12' },
  { kind: '5-way lever', ways: 5, largest: '12' },
  { kind: '8-way lever', ways: 8, largest: '12' },
  { kind: '2-way lever, large', ways: 2, largest: '10' },
  { kind: '3-way lever, large', ways: 3, largest: '10' },
  { kind: '5-way lever, large', ways: 5, largest: '10' },
];

/** The connector for some conductors; `none` where no usual one takes them: split the splice, or use a terminal block. */
export function connectorFor(
  gauges: readonly Gauge[],
  material: Material,
  school: School['connector'],
): ConnectorKind {
  // Aluminum goes into what is listed for it alone: plain twist-on connectors loosen and burn.
  if (material === 'aluminum') return 'aluminum-rated lug connector';
  const mils = gauges.map((g) => CIRCULAR_MILS[g]);
  const thickest = Math.max(...mils);
  if (school === 'lever') {
    const lever = LEVER.find((l) => l.ways >= gauges.length && CIRCULAR_MILS[l.largest] >= thickest);
    if (lever) return lever.kind;
  }
  const sum = mils.reduce((total, m) => total + m, 0);
  const twist = TWIST_ON.find(
    (t) => t.mils >= sum && t.most >= gauges.length && CIRCULAR_MILS[t.largest] >= thickest,
  );
  return twist?.kind ?? 'terminal block';
}

/** What a connector takes, in words. */
export function connectorRange(kind: ConnectorKind): string {
  const lever = LEVER.find((l) => l.kind === kind);
  if (lever) return `up to ${lever.ways} conductors, ${lever.largest} AWG and thinner`;
  const twist = TWIST_ON.find((t) => t.kind === kind);
  if (twist) return `up to ${twist.most} conductors, ${twist.largest} AWG and thinner`;
  if (kind === 'aluminum-rated lug connector')
    return 'each conductor under a setscrew of its own, tightened to its torque';
  return kind === 'terminal block' ? 'more copper than the usual connectors take' : '';
}
