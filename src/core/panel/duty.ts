/** Which designated circuit of 210.11(C) a circuit is by what it feeds, and what on it does not belong there. */
import { FIXTURES } from '#core/tables/fixtures.ts';
import { since } from '#core/tables/editions.ts';
import type { RunStop } from '#core/circuits/run.ts';
import { isOutside } from '#core/tables/areas.ts';
import type { AreaKind, Edition, Fixture } from '#core/job/schema.ts';
import { hasCounterRule } from '#core/plan/counters.ts';
import { isOutlet, isReceptacle, isSmallReceptacle } from '#core/plan/wallSpaces.ts';

export type Duty =
  | 'small-appliance'
  | 'laundry'
  | 'bathroom'
  | 'garage'
  | 'heating'
  | 'individual'
  | 'general';

export interface Duties {
  duty: Duty;
  /** Outlets that may not be on such a circuit. */
  strangers: RunStop[];
}

type FixtureOf = (stop: RunStop) => Fixture | undefined;

/** Rooms in which every small receptacle belongs on the room's own circuit. */
const DESIGNATED_ROOMS: readonly AreaKind[] = ['laundry', 'bathroom', 'garage'];

const isKitchenReceptacle = ({ box, area }: RunStop) => isSmallReceptacle(box) && hasCounterRule(area);
const isBathReceptacle = ({ box, area }: RunStop) => isSmallReceptacle(box) && area.kind === 'bathroom';
const isGarageReceptacle = ({ box, area }: RunStop) => isSmallReceptacle(box) && area.kind === 'garage';

/** An outlet for one appliance: of more than 20 A, wired in, or a receptacle outside the rooms with circuits of their own. */
function isIndividual({ box, area }: RunStop): boolean {
  if (box.device.kind === 'hardwired' || (isReceptacle(box) && !isSmallReceptacle(box))) return true;
  return box.serves !== null && isReceptacle(box) && !DESIGNATED_ROOMS.includes(area.kind);
}

/**
 * @param stops outlets that stay
 * @param fixtureOf the appliance that an outlet is there for
 * @param isRequiredBath from 2020 on only the receptacles that 210.52(D) wants, and those at counters, bind their circuit
 */
export function dutiesOf(
  stops: readonly RunStop[],
  fixtureOf: FixtureOf,
  edition: Edition,
  isRequiredBath: (stop: RunStop) => boolean = () => true,
): Duties {
  const factsOf = (s: RunStop) => {
    const fixture = fixtureOf(s);
    return fixture && FIXTURES[fixture.kind];
  };
  const heatingOf = (s: RunStop) => factsOf(s)?.heating ?? null;
  const heats = stops.filter((s) => heatingOf(s) === 'source');
  if (heats.length > 0) {
    const belongs = (s: RunStop) => s.box.device.kind === 'switch' || heatingOf(s) !== null;
    return { duty: 'heating', strangers: stops.filter((s) => !belongs(s)) };
  }
  const outlets = stops.filter(({ box }) => isOutlet(box));
  const [only] = outlets;
  // One receptacle of the kitchen may have a circuit of its own for one appliance, 210.52(B)(1) exception 2.
  if (only && outlets.length === 1 && isIndividual(only)) return { duty: 'individual', strangers: [] };
  // A receptacle that a wall switch controls stands in for a light and may be on a general circuit, 210.52(B)(1).
  const fixed = (s: RunStop) => factsOf(s)?.fixedInKitchen ?? false;
  // Laundry is where its equipment is, in a closet or a kitchen too.
  const isLaundryReceptacle = (s: RunStop) =>
    isSmallReceptacle(s.box) && (s.area.kind === 'laundry' || (factsOf(s)?.laundry ?? false));
  const kitchen = stops.filter(
    (s) => isKitchenReceptacle(s) && s.box.device.switched === 'none' && !fixed(s) && !isLaundryReceptacle(s),
  );
  // A circuit of fastened appliances alone is none of the small-appliance circuits.
  if (kitchen.length > 0)
    return { duty: 'small-appliance', strangers: stops.filter((s) => !kitchen.includes(s)) };
  if (stops.some(isLaundryReceptacle))
    return { duty: 'laundry', strangers: stops.filter((s) => !isLaundryReceptacle(s)) };
  const baths = stops.filter(isBathReceptacle);
  if (baths.length > 0) {
    if (since(edition, '2020') && !baths.some(isRequiredBath)) return { duty: 'general', strangers: [] };
    const one = stops.every((s) => s.area === baths[0]!.area);
    return { duty: 'bathroom', strangers: one ? [] : stops.filter((s) => !isBathReceptacle(s)) };
  }
  if (stops.some(isGarageReceptacle)) {
    const bays = stops.find(isGarageReceptacle)!.area.conditions.bays;
    const belongs = (s: RunStop) =>
      isGarageReceptacle(s) ||
      (isReceptacle(s.box) && isOutside(s.area)) ||
      (since(edition, '2023') && bays === 1 && s.area.kind === 'garage');
    return { duty: 'garage', strangers: stops.filter((s) => !belongs(s)) };
  }
  return { duty: 'general', strangers: [] };
}
