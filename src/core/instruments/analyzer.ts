/**
 * The loading analyzer: draws a known current for a moment and works out from the change of three voltages what the hot,
 * the neutral and the ground measure, how far the voltage sags, and whether the ground is one.
 */
import type { Branch, Voltages } from '#core/network/network.ts';
import type { Terminals, Wiring } from '#core/network/wiring.ts';
import { slotPairs } from './connect.ts';
import { magnitude, resistor, solved } from '#core/network/read.ts';

/** The current it draws itself: enough to see milliohms. */
const TEST_AMPS = 15;
/** What it sends down the ground: too short for a breaker, and enough to trip a ground-fault device. */
const GROUND_AMPS = 10;
/** A neutral that measures less than this share of its hot, while that is long enough to tell, is joined to the ground. */
const FALSE_SHARE = 0.1;
const TELLS_FROM_OHMS = 0.08;
const LEAST_VOLTS = 90;
/** What it reads volts with, between each two slots. */
const INPUT_OHMS = 1e5;

export interface Analysis {
  hotNeutral: number;
  hotGround: number;
  neutralGround: number;
  /** Percent with so many amperes drawn. */
  drop: Record<12 | 15 | 20, number>;
  hotOhms: number;
  neutralOhms: number;
  /** Null where no ground answers. */
  groundOhms: number | null;
  /** Amperes that a short between hot and neutral would draw here. */
  available: number;
  /** `false`: it measures as if joined to the neutral close by. `near`: too near the panel to tell that from a ground. */
  ground: 'sound' | 'false' | 'near' | 'none' | 'reversed';
}

const difference = (voltages: Voltages, a: number, b: number) => {
  const [x, y] = [voltages.at(a), voltages.at(b)];
  return { re: x.re - y.re, im: x.im - y.im };
};

/** Null where too little voltage stands to draw a load from. */
export function analyze(wiring: Wiring, terminals: Terminals): Analysis | null {
  const { hot, neutral, ground } = terminals;
  const inputs = slotPairs(terminals).map(([a, b]) => resistor(a, b, INPUT_OHMS));
  const at = (added: readonly Branch[]) => {
    const voltages = solved(wiring, [...inputs, ...added]);
    const [hn, hg, ng] = slotPairs(terminals).map(([a, b]) => difference(voltages, a, b));
    return { hn: hn!, hg: hg!, ng: ng! };
  };
  const idle = at([]);
  const hotNeutral = magnitude(idle.hn);
  if (hotNeutral < LEAST_VOLTS) return null;
  const load = (amps: number) => at([resistor(hot, neutral, hotNeutral / amps)]);
  const change = (a: { re: number; im: number }, b: { re: number; im: number }) =>
    Math.hypot(a.re - b.re, a.im - b.im);
  const loads = { 12: load(12), 15: load(15), 20: load(20) };
  const loaded = loads[TEST_AMPS];
  const drawn = (magnitude(loaded.hn) * TEST_AMPS) / hotNeutral;
  const loop = change(idle.hn, loaded.hn) / drawn;
  const grounded = magnitude(idle.hg) > LEAST_VOLTS;
  // Without a ground only the loop is known; half of it is the best guess for each.
  const neutralOhms = grounded ? change(idle.ng, loaded.ng) / drawn : loop / 2;
  const hotOhms = loop - neutralOhms;
  const down = grounded ? at([resistor(hot, ground, hotNeutral / GROUND_AMPS)]) : null;
  const downAmps = down ? (magnitude(down.hg) * GROUND_AMPS) / hotNeutral : 0;
  const groundLoop = down && downAmps > 1 ? change(idle.hg, down.hg) / downAmps : null;
  const groundOhms = groundLoop === null ? null : Math.max(0, groundLoop - loop / 2);
  const percent = ({ hn }: typeof idle) => 100 * (1 - magnitude(hn) / hotNeutral);
  return {
    hotNeutral,
    hotGround: magnitude(idle.hg),
    neutralGround: magnitude(idle.ng),
    drop: { 12: percent(loads[12]), 15: percent(loads[15]), 20: percent(loads[20]) },
    hotOhms,
    neutralOhms,
    groundOhms,
    available: hotNeutral / loop,
    ground: groundOf(grounded, magnitude(idle.ng), hotOhms, neutralOhms),
  };
}

function groundOf(
  grounded: boolean,
  neutralGround: number,
  hotOhms: number,
  neutralOhms: number,
): Analysis['ground'] {
  if (!grounded) return neutralGround > LEAST_VOLTS ? 'reversed' : 'none';
  if (hotOhms < TELLS_FROM_OHMS) return 'near';
  return neutralOhms < FALSE_SHARE * hotOhms ? 'false' : 'sound';
}
