/** Raceways and the conductors in them: Chapter 9 Tables 1, 4, 5, 5A and 8. Inches and square inches. */
import type { Gauge } from '#core/job/schema.ts';

export const RACEWAYS = ['EMT', 'PVC-40', 'PVC-80', 'RMC', 'FMC', 'LFNC-B'] as const;
export type RacewayKind = (typeof RACEWAYS)[number];
export const TRADE_SIZES = ['1/2', '3/4', '1', '1-1/4', '1-1/2', '2'] as const;
export type TradeSize = (typeof TRADE_SIZES)[number];

/** Inside diameter, Table 4, inches, by trade size. */
export const INSIDE_DIAMETER: Readonly<Record<RacewayKind, Readonly<Record<TradeSize, number>>>> = {
  EMT: { '1/2': 0.622, '3/4': 0.824, '1': 1.049, '1-1/4': 1.38, '1-1/2': 1.61, '2': 2.067 },
  'PVC-40': { '1/2': 0.602, '3/4': 0.804, '1': 1.029, '1-1/4': 1.36, '1-1/2': 1.59, '2': 2.047 },
  'PVC-80': { '1/2': 0.526, '3/4': 0.722, '1': 0.936, '1-1/4': 1.255, '1-1/2': 1.476, '2': 1.913 },
  RMC: { '1/2': 0.632, '3/4': 0.836, '1': 1.063, '1-1/4': 1.394, '1-1/2': 1.624, '2': 2.083 },
  FMC: { '1/2': 0.635, '3/4': 0.824, '1': 1.02, '1-1/4': 1.275, '1-1/2': 1.538, '2': 2.04 },
  'LFNC-B': { '1/2': 0.632, '3/4': 0.83, '1': 1.054, '1-1/4': 1.395, '1-1/2': 1.588, '2': 2.033 },
};

export const WIRES = ['THHN', 'XHHW-2', 'bare', 'RHW-2'] as const;
export type Wire = (typeof WIRES)[number];

/** Outside diameter and area with the insulation, Tables 5 and 8. `THHN` stands for THWN-2 too, `RHW-2` for USE-2. */
const WIRE: Readonly<Record<Wire, Partial<Record<Gauge, readonly [diameter: number, area: number]>>>> = {
  THHN: {
    '14': [0.111, 0.0097],
    '12': [0.13, 0.0133],
    '10': [0.164, 0.0211],
    '8': [0.216, 0.0366],
    '6': [0.254, 0.0507],
    '4': [0.324, 0.0824],
    '3': [0.352, 0.0973],
    '2': [0.384, 0.1158],
    '1': [0.446, 0.1562],
    '1/0': [0.486, 0.1855],
    '2/0': [0.532, 0.2223],
    '3/0': [0.584, 0.2679],
    '4/0': [0.642, 0.3237],
  },
  'XHHW-2': {
    '14': [0.133, 0.0139],
    '12': [0.152, 0.0181],
    '10': [0.176, 0.0243],
    '8': [0.236, 0.0437],
    '6': [0.274, 0.059],
    '4': [0.322, 0.0814],
    '3': [0.35, 0.0962],
    '2': [0.382, 0.1146],
    '1': [0.442, 0.1534],
    '1/0': [0.482, 0.1825],
    '2/0': [0.528, 0.219],
    '3/0': [0.58, 0.2642],
    '4/0': [0.638, 0.3197],
  },
  bare: {
    '14': [0.064, 0.003],
    '12': [0.081, 0.005],
    '10': [0.102, 0.008],
    '8': [0.128, 0.013],
    '6': [0.184, 0.027],
    '4': [0.232, 0.042],
    '3': [0.26, 0.053],
    '2': [0.292, 0.067],
    '1': [0.332, 0.087],
    '1/0': [0.372, 0.109],
    '2/0': [0.418, 0.137],
    '3/0': [0.47, 0.173],
    '4/0': [0.528, 0.219],
  },
  'RHW-2': {
    '14': [0.163, 0.0209],
    '12': [0.182, 0.026],
    '10': [0.206, 0.0333],
    '8': [0.266, 0.0556],
    '6': [0.304, 0.0726],
    '4': [0.352, 0.0973],
    '3': [0.38, 0.1134],
    '2': [0.412, 0.1333],
    '1': [0.492, 0.1901],
    '1/0': [0.532, 0.2223],
    '2/0': [0.578, 0.2624],
    '3/0': [0.63, 0.3117],
    '4/0': [0.688, 0.3718],
  },
};

export const wireDiameter = (wire: Wire, gauge: Gauge): number | null => WIRE[wire][gauge]?.[0] ?? null;
export const wireArea = (wire: Wire, gauge: Gauge): number | null => WIRE[wire][gauge]?.[1] ?? null;
