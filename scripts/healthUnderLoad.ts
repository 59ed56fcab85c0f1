/** How fast the server's health answers while a client of its own keeps it busy. */
import { execFile, execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const client = fileURLToPath(new URL('./loadClient.ts', import.meta.url));
const args = (...rest: string[]) => ['--import', 'tsx', client, ...rest];

/** Kinds of load that there are. */
export const loads = (): string[] =>
  JSON.parse(execFileSync(process.execPath, args(), { encoding: 'utf8' })) as string[];

export interface Health {
  /** Milliseconds to an answer. */
  median: number;
  /** 99 of 100 came within, ms. */
  most: number;
  /** How many of the load's own requests got which status. */
  statuses: Record<string, number>;
}

export async function healthUnder(origin: string, load: string): Promise<Health> {
  let going = true;
  const counts = new Promise<string>((resolve, reject) =>
    execFile(process.execPath, args(origin, load), { maxBuffer: 1e8 }, (error, out) =>
      error ? reject(error) : resolve(out),
    ),
  ).finally(() => (going = false));
  const times: number[] = [];
  while (going) {
    const begun = performance.now();
    const answer = await fetch(`${origin}/api/health`);
    await answer.text();
    times.push(performance.now() - begun);
    await new Promise((resolve) => setTimeout(resolve, 5));
  }
  times.sort((a, b) => a - b);
  const at = (share: number) => times[Math.min(times.length - 1, Math.floor(share * times.length))] ?? 0;
  return { median: at(0.5), most: at(0.99), statuses: JSON.parse(await counts) as Record<string, number> };
}
