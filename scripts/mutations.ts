/** Files broken by chance: what every reader must refuse or read, and never crash or hang on. */
import { readFileSync } from 'node:fs';
import { studioJob } from '../demo/studio.ts';
import { tamarackJob } from '../demo/tamarack.ts';
import { levelToDxf, readDxf, roomsFromDxf } from '#core/formats/dxf.ts';
import { measurementsFromCsv, measurementsToCsv } from '#core/formats/measurementsCsv.ts';
import { outletsFromCsv, outletsToCsv } from '#core/formats/outletsCsv.ts';
import { pricesFromCsv, pricesToCsv } from '#core/formats/pricesCsv.ts';
import { readingsFromCsv, readingsFromLines, readingsToCsv } from '#core/formats/readingsCsv.ts';
import { parseFile, serialize } from '#core/job/file.ts';
import { InvalidError } from '#core/job/validate.ts';
import { priceBookOf } from '#core/panel/prices.ts';
import { randomFrom } from '#core/planner/search/random.ts';

export interface Reader {
  name: string;
  /** Whole files to begin with. */
  samples: readonly string[];
  read(text: string): void;
}

const job = studioJob();
const [level] = Object.keys(job.levels);
const old = (version: number) =>
  readFileSync(new URL(`../tests/files/job-version-${version}.json`, import.meta.url), 'utf8');
const POLYLINE =
  '0\nSECTION\n2\nENTITIES\n0\nPOLYLINE\n8\nW\n70\n1\n0\nVERTEX\n10\n0\n20\n0\n0\nVERTEX\n10\n99\n20\n50\n0\nSEQEND\n0\nENDSEC\n0\nEOF\n';

export const READERS: readonly Reader[] = [
  {
    name: 'job file',
    samples: [serialize(job), ...[2, 3, 4, 5, 6, 7, 10].map(old)],
    read: (text) => void parseFile(text),
  },
  {
    name: 'DXF plan',
    samples: [levelToDxf(job, level!), POLYLINE],
    read(text) {
      const drawing = readDxf(text);
      roomsFromDxf(
        drawing,
        drawing.layers.map((l) => l.name),
        1,
        level!,
      );
    },
  },
  {
    name: 'readings CSV',
    samples: [readingsToCsv(job)],
    read: (text) => void readingsFromCsv(text, { ...job, readings: {} }),
  },
  {
    name: 'measurements CSV',
    samples: [measurementsToCsv(tamarackJob())],
    read: (text) => void measurementsFromCsv(text, job),
  },
  {
    name: 'pasted readings',
    samples: ['S2, 119.8, 119.7, 0.1\nS3; 104; 114; 10; 10\nB1\t118'],
    read: (text) => void readingsFromLines(text, job, { by: 'M. Alder', at: '2026-05-07T10:00:00Z' }),
  },
  { name: 'outlets CSV', samples: [outletsToCsv(job)], read: (text) => void outletsFromCsv(text, job) },
  {
    name: 'price book CSV',
    samples: [pricesToCsv(priceBookOf(job.job))],
    read: (text) => void pricesFromCsv(text),
  },
];

const WORDS = [
  'null',
  '{}',
  '[]',
  '1e999',
  '-1',
  '""',
  '"__proto__"',
  '0',
  '1e9',
  'POLYLINE',
  'SEQEND',
  ',',
  '\n',
  '\u0000',
  '[[[[',
];

/** A sample broken in one to four places: letters, cuts, repeats, and words that hurt. */
export function mutated(samples: readonly string[], seed: number): string {
  const random = randomFrom(seed + 1);
  const below = (n: number) => Math.floor(random() * n);
  let text = samples[below(samples.length)]!;
  for (let times = 1 + below(4); times > 0; times--) {
    const at = below(text.length + 1);
    const end = Math.min(text.length, at + below(random() < 0.1 ? 2000 : 12));
    const kind = below(5);
    if (kind === 0)
      text =
        text.slice(0, at) + String.fromCharCode(below(random() < 0.1 ? 60000 : 127)) + text.slice(at + 1);
    else if (kind === 1) text = text.slice(0, at) + text.slice(end);
    else if (kind === 2) text = text.slice(0, end) + text.slice(at);
    else if (kind === 3) text = text.slice(0, at) + WORDS[below(WORDS.length)]! + text.slice(end);
    else {
      // A value of JSON or a field of a row in place of another.
      const from = text.indexOf(random() < 0.5 ? ':' : ',', at);
      const to = from < 0 ? -1 : text.slice(from + 1).search(/[,}\]\n]/);
      if (to >= 0) text = text.slice(0, from + 1) + WORDS[below(WORDS.length)]! + text.slice(from + 1 + to);
    }
  }
  return text;
}

/** What a reader makes of a text: a refusal is an answer, another exception is a crash. */
export function outcome(reader: Reader, text: string): 'read' | 'refused' | { crash: string } {
  try {
    reader.read(text);
    return 'read';
  } catch (error) {
    if (error instanceof InvalidError) return 'refused';
    return { crash: error instanceof Error ? `${error.name}: ${error.message}` : String(error) };
  }
}
