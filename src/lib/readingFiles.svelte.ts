/** Readings as CSV in and out of the browser; the format loads when it is first wanted. */
import type { Problem } from '#core/job/integrity.ts';
import type { PutCommand } from '#core/job/commands.ts';
import type { JobDocument, Reading, Rows } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { download, fileName } from './files.ts';
import { lastPerson } from './readings.ts';
import type { JobSession } from './store/session.svelte.ts';

export async function exportReadings(document: JobDocument): Promise<void> {
  const { readingsToCsv } = await import('#core/formats/readingsCsv.ts');
  download(fileName(document.job, '-readings.csv'), 'text/csv', readingsToCsv(document));
}

export async function exportMeasurements(document: JobDocument): Promise<void> {
  const { measurementsToCsv } = await import('#core/formats/measurementsCsv.ts');
  download(fileName(document.job, '-measurements.csv'), 'text/csv', measurementsToCsv(document));
}

type Format = typeof import('#core/formats/readingsCsv.ts');

/** Bringing readings in: what is said of it, or what was refused. */
export class ReadingImport {
  problems = $state.raw<Problem[]>([]);
  said = $state('');

  constructor(private readonly session: () => JobSession) {}

  /** A CSV with a heading, as Hekto writes it. */
  table = (text: () => Promise<string>): Promise<void> =>
    this.bring(text, (format, csv, document) => format.readingsFromCsv(csv, document));

  /** A CSV of measurements with a heading, as Hekto writes it. */
  measurements = async (text: () => Promise<string>): Promise<void> => {
    const { measurementsFromCsv } = await import('#core/formats/measurementsCsv.ts');
    await this.take('measurements', async () => measurementsFromCsv(await text(), this.session().document));
  };

  /** A line an outlet, without a heading. */
  lines = (text: string): Promise<void> =>
    this.bring(
      () => Promise.resolve(text),
      (format, lines, document) =>
        format.readingsFromLines(lines, document, { by: lastPerson(), at: new Date().toISOString() }),
    );

  private bring(
    text: () => Promise<string>,
    read: (format: Format, text: string, document: JobDocument) => Reading[],
  ): Promise<void> {
    return this.take('readings', async () => {
      const format = await import('#core/formats/readingsCsv.ts');
      return read(format, await text(), this.session().document);
    });
  }

  private async take<T extends 'readings' | 'measurements'>(
    table: T,
    read: () => Promise<Rows[T][]>,
  ): Promise<void> {
    this.problems = [];
    this.said = '';
    const session = this.session();
    try {
      const found = await read();
      if (found.length === 0) {
        this.said = 'All of them are on record already.';
        return;
      }
      const refused = await session.attempt({ type: 'put', table, rows: found } as PutCommand);
      if (refused === null) this.said = `${found.length} ${table} added.`;
      else this.problems = [{ path: table, message: refused }];
    } catch (error) {
      this.problems =
        error instanceof InvalidError ? error.problems : [{ path: 'file', message: String(error) }];
    }
  }
}
