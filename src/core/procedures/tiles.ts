import { newId } from '#core/job/document.ts';
import type { Call } from '#core/job/schema.ts';

/** What a call begins with: what is the matter or what is to be done, in trade words. */
export interface Tile {
  name: string;
  /** Other words for it, for the search. */
  words: string;
  procedure: string;
  /** Found by the search alone, so that the first screen stays short. */
  more?: true;
}

/** A call of a tile, before anything of it is answered. @param at UTC time */
export const callOf = (
  { name, procedure }: Pick<Tile, 'name' | 'procedure'>,
  by: string,
  at: string,
): Call => ({
  id: newId('call'),
  procedure,
  words: name,
  opened: at,
  by,
  boxId: null,
  circuitId: null,
  fixtureId: null,
});

export const TILES: readonly Tile[] = [
  { name: 'Dead outlet or room', words: 'no power nothing works out', procedure: 'dead-outlet' },
  {
    name: 'Outlet worn, cracked or scorched',
    words: 'replace receptacle plug loose falls out burnt change',
    procedure: 'replace-receptacle',
  },
  { name: 'Breaker trips at once', words: 'short reset bang click', procedure: 'trips-at-once' },
  { name: 'Breaker trips after a while', words: 'overload heat nuisance minutes', procedure: 'trips-late' },
  { name: 'GFCI will not reset', words: 'gfi button bathroom garage tripped', procedure: 'gfci-reset' },
  {
    name: 'Lights dim, surge or burn bright',
    words: 'flicker neutral half brightness low voltage brown',
    procedure: 'dim-lights',
  },
  {
    name: 'Find a fault',
    words: 'hunt diagnose trouble strange wrong cause short open neutral tester',
    procedure: 'hunt',
  },
  { name: 'Which breaker?', words: 'find panel directory label trace map', procedure: 'find-breaker' },
  {
    name: 'Two-slot outlet',
    words: 'ungrounded old no ground three prong adapter',
    procedure: 'two-slot',
    more: true,
  },
  { name: 'New outlet', words: 'add receptacle extend', procedure: 'new-receptacle' },
  { name: 'Light fixture or fan', words: 'luminaire ceiling chandelier', procedure: 'luminaire' },
  { name: 'Range, dryer or 240 V', words: 'four wire three prong stove oven', procedure: 'four-wire' },
  {
    name: 'Can my panel take it?',
    words: 'load calculation service upgrade charger heat pump',
    procedure: 'panel-capacity',
  },
  {
    name: 'Shock or tingle',
    words: 'buzz felt zap electrocuted appliance metal',
    procedure: 'shock',
    more: true,
  },
  {
    name: 'Comes and goes',
    words: 'intermittent flickers sometimes loose',
    procedure: 'intermittent',
    more: true,
  },
  { name: 'Low voltage everywhere', words: 'brownout dim slow', procedure: 'low-volts', more: true },
  {
    name: 'False ground',
    words: 'bootleg jumper zero neutral ground',
    procedure: 'false-ground',
    more: true,
  },
  { name: 'Open conductor by tone', words: 'toner trace break locate', procedure: 'tone-open', more: true },
  { name: 'Which conductor is it?', words: 'toner identify wire', procedure: 'tone-conductor', more: true },
  { name: 'Switch', words: 'replace dead crackles warm toggle', procedure: 'switch', more: true },
  {
    name: 'Three-way switch',
    words: 'two switches one end only stairs traveler',
    procedure: 'three-way',
    more: true,
  },
  { name: 'Smart switch', words: 'no neutral wifi dimmer app', procedure: 'smart-switch', more: true },
  { name: 'Dimmer or LED flicker', words: 'lamp buzz glow', procedure: 'flicker', more: true },
  {
    name: 'Smoke alarms',
    words: 'detector chirp carbon monoxide beep',
    procedure: 'smoke-alarms',
    more: true,
  },
  { name: 'Water heater', words: 'no hot water element', procedure: 'water-heater', more: true },
  { name: 'EV charger', words: 'vehicle car charging outlet', procedure: 'vehicle-outlet', more: true },
  { name: 'Combination outlet', words: '120 240 multiwire duplex', procedure: 'combination', more: true },
  { name: 'Receptacle with chargers', words: 'usb', procedure: 'charger-receptacle', more: true },
  { name: 'Switched or half-hot outlet', words: 'controlled tab lamp', procedure: 'half-hot', more: true },
  { name: 'Replace a GFCI', words: 'gfi change age', procedure: 'gfci-replace', more: true },
  { name: 'GFCI for a room', words: 'protect first box chain', procedure: 'gfci-room', more: true },
  { name: 'Monthly GFCI test', words: 'check button', procedure: 'gfci-test', more: true },
  { name: 'First box of a chain', words: 'order which is fed first', procedure: 'first-box', more: true },
  {
    name: 'Swap a breaker',
    words: 'afci gfci arc fault replace torque',
    procedure: 'breaker-swap',
    more: true,
  },
  {
    name: 'Whole-house check',
    words: 'sale inspection buyer all outlets round',
    procedure: 'house-check',
    more: true,
  },
  {
    name: 'Answer an inspection report',
    words: 'list items buyer sale',
    procedure: 'report-answers',
    more: true,
  },
];
