/** Readings as CSV in and out of the browser; the format loads when it is first wanted. */
import type { Problem } from '#core/job/integrity.ts';
import type { JobDocument, Reading } from '#core/job/schema.ts';
import { InvalidError } from '#core/job/validate.ts';
import { download, fileName } from './files.ts';
import { lastPerson } from './readings.ts';
import type { JobSession } from './store/session.svelte.ts';

export async function exportReadings(document: JobDocument): Promise<void> {
  const { readingsToCsv } = await import('#core/formats/readingsCsv.ts');
  download(fileName(document.job, '-readings.csv'), 'text/csv', readingsToCsv(document));
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

  /** A line an outlet, without a heading. */
  lines = (text: string): Promise<void> =>
    this.bring(
      () => Promise.resolve(text),
      (format, lines, document) =>
        format.readingsFromLines(lines, document, { by: lastPerson(), at: new Date().toISOString() }),
    );

  private async bring(
    text: () => Promise<string>,
    read: (format: Format, text: string, document: JobDocument) => Reading[],
  ): Promise<void> {
    this.problems = [];
    this.said = '';
    const session = this.session();
    try {
      const format = await import('#core/formats/readingsCsv.ts');
      const readings = read(format, await text(), session.document);
      if (readings.length === 0) {
        this.said = 'All of them are on record already.';
        return;
      }
      const refused = await session.attempt({ type: 'put', table: 'readings', rows: readings });
      if (refused === null) this.said = `${readings.length} readings added.`;
      else this.problems = [{ path: 'readings', message: refused }];
    } catch (error) {
      this.problems =
        error instanceof InvalidError ? error.problems : [{ path: 'file', message: String(error) }];
    }
  }
}
