/** Steps that bring an older job file to the current form. One function per version, never edited later. */

export const SCHEMA = 'hekto-job';
export const VERSION = 2;

type Raw = Record<string, unknown>;
const list = (value: unknown): Raw[] => (Array.isArray(value) ? (value as Raw[]) : []);

/**
 * Version 1 knew receptacles only, with their height in feet, kept the edition beside the job, and had
 * neither outlets standing out from the wall nor energizings on record.
 */
function fromVersion1(file: Raw): Raw {
  const { receptacles, edition, ...rest } = file;
  return {
    ...rest,
    version: 2,
    job: { ...(rest.job as Raw), edition },
    boxes: list(receptacles).map(({ heightFeet, ...box }) => ({
      ...box,
      height: typeof heightFeet === 'number' ? heightFeet * 12 : heightFeet,
      fromWall: 0,
    })),
    energizings: [],
  };
}

const STEPS: Record<number, (file: Raw) => Raw> = { 1: fromVersion1 };

/** Applies every step from the file's version up to the current one. */
export function migrate(file: Raw): Raw {
  let current = file;
  for (let version = Number(file.version); version < VERSION; version++) {
    const step = STEPS[version];
    if (!step) return current;
    current = step(current);
  }
  return current;
}
