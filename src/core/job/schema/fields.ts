/** The building blocks of every schema: ids, texts, lengths, times, rows. */
import '../messages.ts';
import * as yup from 'yup';

/** Longest wall accepted, inches. */
export const MAX_WALL = 2400;
/** Shortest wall accepted, inches. */
export const MIN_WALL = 1;
const MAX_TEXT = 400;

export const id = () =>
  yup
    .string()
    .strict()
    .required()
    .matches(/^[a-z]{1,12}-[A-Za-z0-9-]{1,60}$/, {
      message: '${path}: expected an id such as box-7k2m',
      excludeEmptyString: false,
    });
/** Control characters, half a surrogate pair, and what ends a line: none of them is read by a person, and files choke on some. */
const NO_TEXT =
  /[\u0000-\u001f\u007f-\u009f\u2028\u2029]|[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/;
const isClean = (value: string): boolean => !NO_TEXT.test(value);
/** A text in one line. */
export const text = (max = MAX_TEXT) =>
  yup
    .string()
    .strict()
    .defined()
    .max(max)
    .test('one-line', '${path}: expected text in one line, without control characters', (v) =>
      isClean(v ?? ''),
    );
/** A text of any lines. */
export const lines = (max: number) =>
  yup
    .string()
    .strict()
    .defined()
    .max(max)
    .test('clean', '${path}: expected text without control characters', (v) =>
      isClean((v ?? '').replace(/[\n\t]/g, ' ')),
    );
export const name = () => text(80).trim().min(1);
export const flag = () => yup.boolean().strict().defined();
export const inches = (min: number, max: number) => yup.number().strict().defined().min(min).max(max);
export const whole = (min: number, max: number) =>
  yup.number().strict().defined().integer().min(min).max(max);
export const volts = () => yup.number().strict().defined().nullable().min(0).max(300);
const TIME = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/;
const A_TIME = '${path}: expected a UTC time such as 2026-05-04T14:30:00Z';
export const time = () =>
  yup
    .string()
    .strict()
    .required()
    .matches(TIME, A_TIME)
    // The 31st of April is read as the 1st of May, and an hour 25 as none; what has another form was refused for it already.
    .test(
      'a-time',
      A_TIME,
      (at) => !TIME.test(at ?? '') || new Date(at!).toJSON()?.slice(0, 19) === at!.slice(0, 19),
    );
/** A day such as `2026-05-04`. */
export const DAY = /^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/;
export const day = () =>
  yup.string().strict().defined().matches(DAY, {
    message: '${path}: expected a day such as 2026-05-04',
    excludeEmptyString: false,
  });
export const entity = <S extends yup.ObjectShape>(shape: S) =>
  yup.object(shape).noUnknown().strict().defined();
export const list = <T>(of: yup.ISchema<T>, max: number) => yup.array(of).strict().defined().max(max);
/** One of a set of words. */
export const word = <T extends string>(of: readonly T[]) => yup.string().strict().defined().oneOf(of);
export const number = (min: number, max: number) => yup.number().strict().defined().min(min).max(max);
/** What wrote a row: a browser, or one run of the command line. */
export const device = () =>
  text(40).matches(/^device-[a-z0-9]{1,30}$/, '${path}: expected a device such as device-7k2m');
/** Most rows that one device writes in a job. */
export const MOST_WRITTEN = 1e9;
const stampSchema = entity({
  device: device(),
  /** Its own count: one more with each row. */
  n: whole(1, MOST_WRITTEN),
  /** Above that of all rows that it had when it wrote this one. */
  clock: whole(1, MOST_WRITTEN),
});
/** Where a row of the record stands among the others; missing until it is written. */
export const stamp = () => stampSchema.optional().default(undefined);
