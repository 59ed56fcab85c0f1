/** A thread of the server's pool: checks one job file at a time, so that the server itself goes on answering. */
import { parentPort } from 'node:worker_threads';
import { check } from '#core/code/checker.ts';
import { parseFile } from '#core/job/file.ts';
import { InvalidError } from '#core/job/validate.ts';
import { summarize } from '#core/code/summary.ts';

/** What a route answers: a status and a JSON text. */
export interface Answer {
  status: number;
  body: string;
}

/** Findings of a job file, or what is wrong with it. */
export function checked(text: string): Answer {
  try {
    return { status: 200, body: JSON.stringify(summarize(check(parseFile(text)))) };
  } catch (error) {
    if (error instanceof InvalidError)
      return { status: 422, body: JSON.stringify({ problems: error.problems }) };
    throw error;
  }
}

parentPort?.on('message', (text: string) => parentPort!.postMessage(checked(text)));
