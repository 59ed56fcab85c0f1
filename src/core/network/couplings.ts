/**
 * Stray capacitance between the conductors of a cable, by its build. Worked out for two round wires side by side,
 * C = π ε / arcosh(D / 2r), with 12 AWG, the distance D between their middles, and 1.6 to 2.3 for the mean permittivity of
 * vinyl, paper and air. In flat cable the bare ground lies between the insulated two and screens them from each other.
 */
import type { CableKind, Color } from '#core/job/schema.ts';

/** Picofarads a foot. */
interface Couplings {
  /** Between insulated conductors. */
  insulated: number;
  /** From an insulated conductor to a bare or green one, or to armor. */
  ground: number;
}

const FLAT: Couplings = { insulated: 4, ground: 22 };
const ROUND: Couplings = { insulated: 18, ground: 18 };
const ARMORED: Couplings = { insulated: 20, ground: 30 };
/** Single conductors lie in a raceway as they come. */
const LOOSE: Couplings = { insulated: 8, ground: 8 };
/** Two conductors side by side with nothing between. */
const PAIR: Couplings = { insulated: 10, ground: 10 };

/** Staples, bends, damp, cords and what lies beside a cable change each of its couplings by up to this factor, either way. */
export const STRAY_SPREAD = 4;
const INCHES = 12;

const isGround = (color: Color): boolean => color === 'bare' || color === 'green' || color === 'armor';

/** Farads an inch between two conductors of a cable. */
export function couplingOf(kind: CableKind, colors: readonly Color[]): (a: Color, b: Color) => number {
  const insulated = colors.filter((c) => !isGround(c)).length;
  const flat = insulated === 2 && colors.length > 2;
  const build =
    kind === 'MC'
      ? ARMORED
      : kind === 'raceway'
        ? LOOSE
        : kind === 'old two-wire'
          ? PAIR
          : flat
            ? FLAT
            : ROUND;
  return (a, b) => ((isGround(a) || isGround(b) ? build.ground : build.insulated) * 1e-12) / INCHES;
}
