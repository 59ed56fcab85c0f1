/**
 * GFCI, AFCI, tamper- and weather-resistance for one outlet under the job's edition: what is asked for,
 * whether the plan gives it, and the reason and section for both answers.
 */
import type { ProtectionOrigin } from '../circuits/run.ts';
import type { Area, Box, Circuit, Edition } from '../job/schema.ts';
import { HIGHEST_COUNTED } from '../plan/wallSpaces.ts';
import { formatLength } from '../units/length.ts';
import { AREA_FACTS, DAMP_SECTION, NEAR_WATER_SECTION } from './tables/areas.ts';
import type { View } from './view.ts';

export type Topic = 'gfci' | 'afci' | 'tamper-resistant' | 'weather-resistant';

export interface Decision {
  topic: Topic;
  /** `existing`: today's rule would ask for it, but does not reach back to work that is not altered. */
  asked: 'required' | 'not-required' | 'existing';
  /** What provides it in the plan, or null. */
  providedBy: string | null;
  reason: string;
  section: string;
}

/** The distance within which a sink, tub or shower brings GFCI, inches. */
export const NEAR_WATER = 72;
/** Receptacles at or above this height in a kitchen are taken to serve the counter, inches. */
const COUNTER_HEIGHT = 36;

type Ask = { reason: string; section: string };

function gfciAsked(area: Area, box: Box, edition: Edition): Ask | null {
  if (edition === '2017' && box.device.rating > 20) return null;
  const facts = AREA_FACTS[area.kind];
  const { which, section } = facts.gfci[edition];
  const where = facts.label.toLowerCase();
  if (which === 'all') return { reason: `every receptacle in a ${where} (${edition})`, section };
  if (which === 'counter' && box.height >= COUNTER_HEIGHT) {
    return { reason: `serves a kitchen counter: ${formatLength(box.height)} above the floor`, section };
  }
  if (box.waterDistance !== null && box.waterDistance <= NEAR_WATER) {
    return {
      reason: `${formatLength(box.waterDistance)} from a sink, tub or shower; the limit is 6'`,
      section: NEAR_WATER_SECTION[edition],
    };
  }
  const damp = DAMP_SECTION[edition];
  if (area.location !== 'dry' && damp) return { reason: `indoor ${area.location} location`, section: damp };
  return null;
}

const isNewWork = (box: Box) => box.status === 'new' || box.status === 'replace';

/** Applies the reach of today's rule: new work, replacements by 406.4(D), and existing work left alone. */
function decide(
  topic: Topic,
  box: Box,
  ask: Ask | null,
  providedBy: string | null,
  replacementSection: string,
  none: Ask,
): Decision {
  if (!ask) return { topic, asked: 'not-required', providedBy, ...none };
  if (!isNewWork(box)) {
    const reason = `${ask.reason}; existing and not altered, so it is asked for when the receptacle is replaced`;
    return { topic, asked: 'existing', providedBy, reason, section: `${ask.section}, ${replacementSection}` };
  }
  const section = box.status === 'replace' ? `${replacementSection}, ${ask.section}` : ask.section;
  return { topic, asked: 'required', providedBy, reason: ask.reason, section };
}

export const describeOrigin = (origin: ProtectionOrigin | null, box: Box): string | null => {
  if (!origin) return null;
  if (origin.at === 'breaker') return 'breaker';
  return origin.boxId === box.id ? 'its own GFCI device' : `GFCI receptacle at ${origin.name}`;
};

function gfci(view: View, box: Box, area: Area): Decision {
  const origin = view.stopOf(box)?.stop.gfci ?? null;
  const own = box.device.kind === 'gfci' ? 'its own GFCI device' : null;
  return decide(
    'gfci',
    box,
    gfciAsked(area, box, view.edition),
    describeOrigin(origin, box) ?? own,
    '406.4(D)(3)',
    {
      reason: `no place in the list of ${view.edition}: ${AREA_FACTS[area.kind].label.toLowerCase()}, no sink, tub or shower within 6'`,
      section: '210.8(A)',
    },
  );
}

/** The room that brings a circuit under 210.12, or null. */
export function afciRoom(view: View, circuit: Circuit): { box: Box; area: Area } | null {
  const { rating } = circuit.breaker;
  if (rating > 20 || (rating === 10 && view.edition !== '2023')) return null;
  for (const { box, area } of view.run(circuit).stops) {
    if (box.status !== 'remove' && AREA_FACTS[area.kind].afci) return { box, area };
  }
  return null;
}

export const afciSection = (edition: Edition): string => (edition === '2023' ? '210.12(B)' : '210.12(A)');

function afci(view: View, box: Box, area: Area): Decision {
  const on = view.stopOf(box);
  const room = on ? afciRoom(view, on.circuit) : AREA_FACTS[area.kind].afci ? { box, area } : null;
  const ask = room && {
    reason: `the circuit supplies ${room.area.name} (${AREA_FACTS[room.area.kind].label.toLowerCase()})`,
    section: afciSection(view.edition),
  };
  return decide('afci', box, ask, describeOrigin(on?.stop.afci ?? null, box), '406.4(D)(4)', {
    reason: 'the circuit is not a 120 V, 15 or 20 A one that supplies a listed room',
    section: '210.12',
  });
}

function tamperResistant(view: View, box: Box): Decision {
  const asked = box.device.rating <= 20 && box.height <= HIGHEST_COUNTED && box.device.kind !== 'two-slot';
  return decide(
    'tamper-resistant',
    box,
    asked ? { reason: '15 or 20 A receptacle in a dwelling', section: '406.12(1)' } : null,
    box.device.tamperResistant ? 'the receptacle' : null,
    '406.4(D)(5)',
    {
      reason:
        box.device.kind === 'two-slot'
          ? 'a nongrounding replacement receptacle'
          : box.height > HIGHEST_COUNTED
            ? 'more than 5 ft 6 in. above the floor'
            : 'not a 15 or 20 A receptacle',
      section: '406.12',
    },
  );
}

function weatherResistant(view: View, box: Box, area: Area): Decision {
  const exposed = area.kind === 'outdoors' && area.location === 'dry' ? 'damp' : area.location;
  const ask =
    exposed === 'dry' || box.device.rating > 20
      ? null
      : {
          reason: `${exposed} location${exposed === 'wet' ? ', with a cover weatherproof while in use' : ''}`,
          section: exposed === 'wet' ? '406.9(B)(1)' : '406.9(A)',
        };
  return decide(
    'weather-resistant',
    box,
    ask,
    box.device.weatherResistant ? 'the receptacle' : null,
    '406.4(D)(6)',
    {
      reason: exposed === 'dry' ? 'dry location' : 'not a 15 or 20 A receptacle',
      section: '406.9',
    },
  );
}

/** All four decisions for an outlet; empty when its room is gone. */
export function decisionsFor(view: View, box: Box): Decision[] {
  const area = view.document.areas[box.areaId];
  if (!area) return [];
  return [
    gfci(view, box, area),
    afci(view, box, area),
    tamperResistant(view, box),
    weatherResistant(view, box, area),
  ];
}

/** One decision. */
export function decisionOn(topic: Topic, view: View, box: Box): Decision | null {
  const area = view.document.areas[box.areaId];
  if (!area) return null;
  switch (topic) {
    case 'gfci':
      return gfci(view, box, area);
    case 'afci':
      return afci(view, box, area);
    case 'tamper-resistant':
      return tamperResistant(view, box);
    case 'weather-resistant':
      return weatherResistant(view, box, area);
  }
}

/** Stickers an outlet needs for want of an equipment ground, 406.4(D)(2). */
export function labelsFor(view: View, box: Box): string[] {
  if (box.grounding !== 'none' || box.status === 'remove' || box.device.kind === 'two-slot') return [];
  if (box.device.kind === 'gfci') return ['No Equipment Ground'];
  return decisionOn('gfci', view, box)?.providedBy ? ['GFCI Protected', 'No Equipment Ground'] : [];
}
