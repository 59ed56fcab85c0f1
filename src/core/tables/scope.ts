/** What is not judged here: said so wherever it stands, and never called satisfied or not asked for. */
import type { Fixture, FixtureKind } from '#core/job/schema.ts';

export interface OutOfScope {
  article: string;
  /** What else its article reaches. */
  also: string;
}

const WATER = 'its outlets, pumps, bonding, and the outlets and lights near it are its article’s too';
const POWER = 'its transfer equipment, its own disconnect and where it is connected are its article’s too';

export const OUT_OF_SCOPE: Partial<Record<FixtureKind, OutOfScope>> = {
  'hydromassage-tub': { article: 'Article 680 Part VII', also: WATER },
  'hot-tub': { article: 'Article 680 Part IV', also: WATER },
  pool: { article: 'Article 680', also: WATER },
  fountain: { article: 'Article 680 Part V', also: WATER },
  sauna: {
    article: 'Article 424 and its instructions',
    also: 'its heater’s clearances and controls are too',
  },
  generator: { article: 'Articles 445 and 702', also: POWER },
  inverter: { article: 'Articles 690, 705 and 706', also: POWER },
};

export const outOfScope = (fixture: Pick<Fixture, 'kind'> | undefined): OutOfScope | null =>
  (fixture && OUT_OF_SCOPE[fixture.kind]) ?? null;

/** Largest service that is judged, amperes. */
export const LARGEST_SERVICE = 400;
