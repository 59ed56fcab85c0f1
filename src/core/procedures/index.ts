/** Every procedure there is, the most usual first. */
import { replaceReceptacle } from './list/replace-receptacle.ts';
import { twoSlot } from './list/two-slot.ts';
import { findTheBreaker } from './list/find-breaker.ts';
import { firstBox } from './list/first-box.ts';
import { gfciTest } from './list/gfci-test.ts';
import { gfciReplace } from './list/gfci-replace.ts';
import { gfciReset } from './list/gfci-reset.ts';
import { gfciRoom } from './list/gfci-room.ts';
import { newReceptacle } from './list/new-receptacle.ts';
import { chargerReceptacle } from './list/charger-receptacle.ts';
import { halfHot } from './list/half-hot.ts';
import { replaceSwitch } from './list/switch.ts';
import { tripsAtOnce } from './list/trips-at-once.ts';
import { tripsLate } from './list/trips-late.ts';
import { breakerSwap } from './list/breaker-swap.ts';
import { fourWire } from './list/four-wire.ts';
import { combination } from './list/combination.ts';
import { vehicleOutlet } from './list/vehicle-outlet.ts';
import { waterHeater } from './list/water-heater.ts';
import { houseCheck } from './list/house-check.ts';
import { reportAnswers } from './list/report-answers.ts';
import { dimLights } from './list/dim-lights.ts';
import { luminaire } from './list/luminaire.ts';
import { flicker } from './list/flicker.ts';
import { threeWay } from './list/three-way.ts';
import { smartSwitch } from './list/smart-switch.ts';
import { smokeAlarms } from './list/smoke-alarms.ts';
import { panelCapacity } from './list/panel-capacity.ts';
import { deadOutlet } from './list/dead-outlet.ts';
import { hunt } from './list/hunt.ts';
import { shock } from './list/shock.ts';
import { falseGround } from './list/false-ground.ts';
import { lowVolts } from './list/low-volts.ts';
import { intermittent } from './list/intermittent.ts';
import { toneOpen } from './list/tone-open.ts';
import { toneConductor } from './list/tone-conductor.ts';
import type { Procedure } from './step.ts';

export const PROCEDURES: readonly Procedure[] = [
  replaceReceptacle,
  twoSlot,
  findTheBreaker,
  firstBox,
  gfciTest,
  gfciReplace,
  gfciReset,
  gfciRoom,
  newReceptacle,
  chargerReceptacle,
  halfHot,
  replaceSwitch,
  tripsAtOnce,
  tripsLate,
  breakerSwap,
  fourWire,
  combination,
  vehicleOutlet,
  waterHeater,
  houseCheck,
  reportAnswers,
  dimLights,
  luminaire,
  flicker,
  threeWay,
  smartSwitch,
  smokeAlarms,
  panelCapacity,
  deadOutlet,
  hunt,
  shock,
  falseGround,
  lowVolts,
  intermittent,
  toneOpen,
  toneConductor,
];

export const procedureOf = (id: string): Procedure | undefined => PROCEDURES.find((p) => p.id === id);
