/** The price book: what cable, breakers and devices cost. Made-up figures stand where the shop has entered none. */
import { CIRCULAR_MILS } from '#core/tables/conductors.ts';
import type { Circuit, Gauge, Job, PriceItem } from '#core/job/schema.ts';

/** Cents by item: cable by the foot, the rest each. A room change is what the shop puts on a run that leaves a room. */
export type PriceBook = Readonly<Record<PriceItem, number>>;

export const MADE_UP_PRICES: PriceBook = {
  'cable-14-2': 48,
  'cable-14-3': 71,
  'cable-12-2': 72,
  'cable-12-3': 104,
  'cable-10-2': 118,
  'cable-10-3': 167,
  'cable-8-2': 190,
  'cable-8-3': 265,
  'cable-6-2': 270,
  'cable-6-3': 372,
  breaker: 700,
  'breaker-afci': 4600,
  'breaker-gfci': 5200,
  'breaker-dual': 5900,
  'breaker-two-pole': 1600,
  'breaker-two-pole-gfci': 11500,
  'gfci-receptacle': 1900,
  'room-change': 300,
};

/** The made-up prices with the shop's own in their place. */
export const priceBookOf = ({ prices }: Job): PriceBook => ({
  ...MADE_UP_PRICES,
  ...Object.fromEntries(prices.map(({ item, cents }) => [item, cents])),
});

/** A foot of cable with a ground, cents; thicker than the book goes, by copper. */
export function cablePrice(book: PriceBook, gauge: Gauge, conductors: 2 | 3): number {
  const known: number | undefined = (book as Readonly<Record<string, number>>)[
    `cable-${gauge}-${conductors}`
  ];
  return known ?? (book[`cable-6-${conductors}`] * CIRCULAR_MILS[gauge]) / CIRCULAR_MILS['6'];
}

export function breakerPrice(book: PriceBook, { poles, protection }: Circuit['breaker']): number {
  if (poles === 2) return book[protection === 'none' ? 'breaker-two-pole' : 'breaker-two-pole-gfci'];
  return book[protection === 'none' ? 'breaker' : (`breaker-${protection}` as const)];
}

/** Hots and neutral in a circuit's cable. */
export const conductorsIn = ({ breaker, neutral }: Circuit): 2 | 3 =>
  breaker.poles === 2 && neutral ? 3 : 2;
