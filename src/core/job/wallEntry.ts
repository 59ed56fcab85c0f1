/** A wall as a person types it: a length, then the turn at its end. `12-6` turns right; `12-6 L`, `8' R45`. */
import { parseLength } from '#core/units/length.ts';
import { fail, ok, type Result } from '#core/units/result.ts';
import { MAX_WALL, MIN_WALL } from './schema.ts';

const TURN = /^(.*?)(?:[\s,]+([lrs])\s*(\d+(?:\.\d+)?)?\s*°?)?$/i;

/** @returns length in inches and degrees turned to the right (left is negative) */
export function parseWall(text: string): Result<{ length: number; turn: number }> {
  const [, lengthText = '', side, degreesText] = TURN.exec(text.trim())!;
  const length = parseLength(lengthText, { min: MIN_WALL, max: MAX_WALL });
  if (!length.ok) return length;
  if (side === undefined) return ok({ length: length.value, turn: 90 });
  const straight = side.toLowerCase() === 's';
  const degrees = straight ? 0 : Number(degreesText ?? 90);
  if (degrees > 180) return fail(`${degrees}° is more than half a turn; expected 180 or less`);
  return ok({ length: length.value, turn: side.toLowerCase() === 'l' ? -degrees : degrees });
}

/** `Right 90°`, `Left 45°`, `Straight on`. */
export function describeTurn(turn: number): string {
  if (turn === 0) return 'Straight on';
  return `${turn > 0 ? 'Right' : 'Left'} ${Math.abs(turn)}°`;
}
