/** Boxes and what takes up room in them, 314.16. */
import type { Gauge } from '#core/job/schema.ts';

/** Sizes that a volume is given for, Table 314.16(B); 18 and 16 are fixture wires and tails of devices. */
export const FILL_GAUGES = ['18', '16', '14', '12', '10', '8', '6'] as const;
export type FillGauge = (typeof FILL_GAUGES)[number];

/** Room that one conductor takes, Table 314.16(B), cubic inches. */
export const CONDUCTOR_VOLUME: Readonly<Record<FillGauge, number>> = {
  '18': 1.5,
  '16': 1.75,
  '14': 2,
  '12': 2.25,
  '10': 2.5,
  '8': 3,
  '6': 5,
};

/** From 4 AWG on boxes are sized by 314.28. */
export const isFillGauge = (gauge: Gauge): gauge is Gauge & FillGauge =>
  (FILL_GAUGES as readonly string[]).includes(gauge);

export interface UsualBox {
  name: string;
  /** Cubic inches, Table 314.16(A) for metal ones, as usually marked for others. */
  volume: number;
  material: 'metal' | 'nonmetallic';
  gangs: number;
}

const metal = (name: string, volume: number, gangs = 1): UsualBox => ({
  name,
  volume,
  material: 'metal',
  gangs,
});
const nonmetallic = (name: string, volume: number, gangs = 1): UsualBox => ({
  name,
  volume,
  material: 'nonmetallic',
  gangs,
});

export const USUAL_BOXES: readonly UsualBox[] = [
  metal('device 3 × 2 × 1½', 7.5),
  metal('device 3 × 2 × 2', 10),
  metal('device 3 × 2 × 2¼', 10.5),
  metal('device 3 × 2 × 2½', 12.5),
  metal('device 3 × 2 × 2¾', 14),
  metal('device 3 × 2 × 3½', 18),
  metal('device 4 × 2⅛ × 1½', 10.3),
  metal('device 4 × 2⅛ × 1⅞', 13),
  metal('device 4 × 2⅛ × 2⅛', 14.5),
  metal('octagon 4 × 1¼', 12.5),
  metal('octagon 4 × 1½', 15.5),
  metal('octagon 4 × 2⅛', 21.5),
  metal('square 4 × 1¼', 18, 2),
  metal('square 4 × 1½', 21, 2),
  metal('square 4 × 2⅛', 30.3, 2),
  metal('square 4¹¹⁄₁₆ × 1¼', 25.5, 2),
  metal('square 4¹¹⁄₁₆ × 1½', 29.5, 2),
  metal('square 4¹¹⁄₁₆ × 2⅛', 42, 2),
  metal('masonry 3¾ × 2 × 2½', 14),
  metal('masonry 3¾ × 2 × 3½', 21),
  nonmetallic('single gang', 18),
  nonmetallic('single gang, deep', 20.3),
  nonmetallic('single gang, deepest', 22.5),
  nonmetallic('two gang', 32, 2),
  nonmetallic('two gang, deep', 42, 2),
];
