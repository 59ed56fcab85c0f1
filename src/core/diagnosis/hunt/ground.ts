/** A circuit of a job in its house, as a hunt takes it. */
import { runOf } from '#core/circuits/run.ts';
import type { Circuit } from '#core/job/schema.ts';
import { houseOf, studyOf } from '#core/network/house.ts';
import { NOTHING_ON } from '#core/network/places.ts';
import type { View } from '#core/view/view.ts';
import type { Ground } from './predictions.ts';

export function groundOf(view: View, circuit: Circuit): Ground {
  const { panel, leg } = studyOf(view, circuit, NOTHING_ON);
  // What other circuits take nobody knows while something is read: scenes stand for it.
  return {
    document: view.document,
    run: runOf(view, circuit),
    house: houseOf(view, [circuit], 'off'),
    panel,
    leg,
  };
}
