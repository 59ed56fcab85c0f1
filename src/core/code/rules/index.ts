import type { Rule } from '../rule.ts';
import type { Scope } from '../view.ts';
import { afci } from './afci.ts';
import { gfci } from './gfci.ts';
import { noEquipmentGround } from './no-equipment-ground.ts';
import { onACircuit } from './on-a-circuit.ts';
import { receptacleRating } from './receptacle-rating.ts';
import { roomOutline } from './room-outline.ts';
import { shopLimit } from './shop-limit.ts';
import { smallConductor } from './small-conductor.ts';
import { tamperResistant } from './tamper-resistant.ts';
import { voltageDrop } from './voltage-drop.ts';
import { wallSpacing } from './wall-spacing.ts';
import { weatherResistant } from './weather-resistant.ts';

/** Every rule, by what it looks at. */
export const RULES: { [S in Scope]: readonly Rule<S>[] } = {
  area: [roomOutline, wallSpacing],
  box: [gfci, tamperResistant, weatherResistant, noEquipmentGround, onACircuit],
  circuit: [receptacleRating, smallConductor, afci, voltageDrop, shopLimit],
};

export const ALL_RULES: readonly Pick<Rule, 'id' | 'title' | 'level' | 'sections' | 'why' | 'scope'>[] = [
  ...RULES.area,
  ...RULES.box,
  ...RULES.circuit,
];
