import type { Facts } from '../facts.ts';
import type { Rule } from '../rule.ts';
import type { Scope } from '#core/view/touched.ts';
import { atTelevision } from './at-television.ts';
import { directory } from './directory.ts';
import { equipmentOutOfScope } from './equipment-out-of-scope.ts';
import { everyWall } from './every-wall.ts';
import { feederRule } from './feeder.ts';
import { fixtureInRoom } from './fixture-in-room.ts';
import { gfci } from './gfci.ts';
import { neutralThroughDevice } from './neutral-through-device.ts';
import { oppositeLegs } from './opposite-legs.ts';
import { outdoorOutlets } from './outdoor-outlets.ts';
import { panelBonding } from './panel-bonding.ts';
import { panelOpenings } from './panel-openings.ts';
import { panelRating } from './panel-rating.ts';
import { panelSpaces } from './panel-spaces.ts';
import { roomsOverlap } from './rooms-overlap.ts';
import { serviceLoad } from './service-load.ts';
import { serviceOutOfScope } from './service-out-of-scope.ts';
import { sharedNeutralProtection } from './shared-neutral-protection.ts';
import { simultaneousDisconnect } from './simultaneous-disconnect.ts';
import { splitReceptacle } from './split-receptacle.ts';
import { afci } from './afci.ts';
import { applianceReceptacle } from './appliance-receptacle.ts';
import { breakerListed } from './breaker-listed.ts';
import { circuitLoad } from './circuit-load.ts';
import { designatedCircuits } from './designated-circuits.ts';
import { extensionGround } from './extension-ground.ts';
import { cordShare } from './cord-share.ts';
import { vehicleCircuit } from './vehicle-circuit.ts';
import { fixedEquipmentShare } from './fixed-equipment-share.ts';
import { receptacleVoltage } from './receptacle-voltage.ts';
import { requiredCircuits } from './required-circuits.ts';
import { smallLoadOn240 } from './small-load-on-240.ts';
import { whiteAsHot } from './white-as-hot.ts';
import { basementReceptacle } from './basement-receptacle.ts';
import { bathroomBasin } from './bathroom-basin.ts';
import { controlledMarking } from './controlled-marking.ts';
import { counterSpacing } from './counter-spacing.ts';
import { deckReceptacle } from './deck-receptacle.ts';
import { equipmentReceptacle } from './equipment-receptacle.ts';
import { faceUp } from './face-up.ts';
import { foyerReceptacles } from './foyer-receptacles.ts';
import { garageReceptacles } from './garage-receptacles.ts';
import { gfciAccessible } from './gfci-accessible.ts';
import { hallwayReceptacle } from './hallway-receptacle.ts';
import { islandReceptacles } from './island-receptacles.ts';
import { laundryReceptacle } from './laundry-receptacle.ts';
import { lightingOutlet } from './lighting-outlet.ts';
import { noEquipmentGround } from './no-equipment-ground.ts';
import { notCounted } from './not-counted.ts';
import { onACircuit } from './on-a-circuit.ts';
import { outbuildingReceptacle } from './outbuilding-receptacle.ts';
import { outdoorReceptacles } from './outdoor-receptacles.ts';
import { receptacleRating } from './receptacle-rating.ts';
import { roomOutline } from './room-outline.ts';
import { shopLimit } from './shop-limit.ts';
import { smallConductor } from './small-conductor.ts';
import { tamperResistant } from './tamper-resistant.ts';
import { threeWireAppliance } from './three-wire-appliance.ts';
import { tubZone } from './tub-zone.ts';
import { voltageDrop } from './voltage-drop.ts';
import { wallSpacing } from './wall-spacing.ts';
import { weatherCover } from './weather-cover.ts';
import { weatherResistant } from './weather-resistant.ts';
import { alarms } from './alarms.ts';
import { equipmentDisconnect } from './equipment-disconnect.ts';
import { boxFill } from './box-fill.ts';
import { luminairePlace } from './luminaire-place.ts';
import { fanBox } from './fan-box.ts';
import { aluminumDevice } from './aluminum-device.ts';
import { switchNeutral } from './switch-neutral.ts';
import { switchRating } from './switch-rating.ts';
import { halfSwitchedTab } from './half-switched-tab.ts';
import { labelsStuck } from './labels-stuck.ts';
import { standardRating } from './standard-rating.ts';
import { groundSize } from './ground-size.ts';
import { cableRoute } from './cable-route.ts';
import { luminaireVoltage } from './luminaire-voltage.ts';
import { hoodCircuit } from './hood-circuit.ts';
import { panelPlace } from './panel-place.ts';
import { doubledLugs } from './doubled-lugs.ts';
import { surge } from './surge.ts';
import { outdoorDisconnect } from './outdoor-disconnect.ts';
import { electrodes } from './electrodes.ts';
import { serviceConductors } from './service-conductor.ts';

/** Every rule, by what it looks at. */
export const RULES: { [S in Scope]: readonly Rule<S>[] } = {
  house: [outdoorReceptacles, requiredCircuits, alarms],
  area: [
    roomOutline,
    roomsOverlap,
    wallSpacing,
    counterSpacing,
    laundryReceptacle,
    garageReceptacles,
    outbuildingReceptacle,
    basementReceptacle,
    hallwayReceptacle,
    foyerReceptacles,
    deckReceptacle,
    lightingOutlet,
    everyWall,
  ],
  fixture: [
    fixtureInRoom,
    islandReceptacles,
    bathroomBasin,
    equipmentReceptacle,
    applianceReceptacle,
    atTelevision,
    smallLoadOn240,
    equipmentOutOfScope,
    equipmentDisconnect,
  ],
  box: [
    gfci,
    outdoorOutlets,
    gfciAccessible,
    tamperResistant,
    weatherResistant,
    weatherCover,
    controlledMarking,
    noEquipmentGround,
    threeWireAppliance,
    tubZone,
    faceUp,
    notCounted,
    onACircuit,
    receptacleVoltage,
    boxFill,
    luminairePlace,
    fanBox,
    aluminumDevice,
    switchNeutral,
    switchRating,
    halfSwitchedTab,
    labelsStuck,
  ],
  circuit: [
    receptacleRating,
    smallConductor,
    circuitLoad,
    fixedEquipmentShare,
    cordShare,
    vehicleCircuit,
    designatedCircuits,
    afci,
    extensionGround,
    oppositeLegs,
    simultaneousDisconnect,
    sharedNeutralProtection,
    neutralThroughDevice,
    splitReceptacle,
    whiteAsHot,
    breakerListed,
    voltageDrop,
    shopLimit,
    standardRating,
    groundSize,
    cableRoute,
    luminaireVoltage,
    hoodCircuit,
  ],
  panel: [
    panelSpaces,
    panelRating,
    panelBonding,
    panelOpenings,
    directory,
    serviceLoad,
    feederRule,
    serviceOutOfScope,
    panelPlace,
    doubledLugs,
    surge,
    outdoorDisconnect,
    electrodes,
    serviceConductors,
  ],
};

export type RuleMeta = Pick<Rule, 'id' | 'title' | 'level' | 'sections' | 'why' | 'scope' | 'limit'> & Facts;

export const ALL_RULES: readonly RuleMeta[] = [
  ...RULES.house,
  ...RULES.area,
  ...RULES.fixture,
  ...RULES.box,
  ...RULES.circuit,
  ...RULES.panel,
];
