/** The picture of the core's folders in docs/architecture.md: on which floor each stands, and what it uses. */
import { readdirSync, readFileSync } from 'node:fs';
import FLOORS from './floors.json' with { type: 'json' };

const WIDTH = 860;
const FLOOR = 46;
const BOX = { width: 150, height: 30 };
const TOP = 20;

/** Folders used by each folder, by the imports of its files; tests and what they share left out. */
function uses(root: string): Map<string, Map<string, number>> {
  const found = new Map<string, Map<string, number>>(FLOORS.flat().map((f) => [f, new Map()]));
  for (const file of readdirSync(`${root}/src/core`, { recursive: true, encoding: 'utf8' })) {
    if (!/(?<!\.test|\/testing|\.d)\.ts$/.test(file)) continue;
    const own = found.get(file.split('/')[0]!)!;
    for (const [, to] of readFileSync(`${root}/src/core/${file}`, 'utf8').matchAll(
      /from '#core\/([\w-]+)\//g,
    ))
      own.set(to!, (own.get(to!) ?? 0) + 1);
  }
  return found;
}

/** Whether one folder reaches another through a third. */
function around(all: Map<string, Map<string, number>>, from: string, to: string): boolean {
  const seen = new Set<string>();
  const pending = [...all.get(from)!.keys()].filter((f) => f !== to);
  for (let at = pending.pop(); at !== undefined; at = pending.pop()) {
    if (at === to) return true;
    if (seen.has(at)) continue;
    seen.add(at);
    pending.push(...all.get(at)!.keys());
  }
  return false;
}

/** SVG; of the arrows those that no others imply. */
export function structure(root: string): string {
  const all = uses(root);
  const height = TOP * 2 + FLOORS.length * FLOOR;
  const places = new Map(
    FLOORS.flatMap((folders, floor) =>
      folders.map((folder, i) => {
        const y = height - TOP - (floor + 0.5) * FLOOR;
        // Floors step to and fro, so that arrows past a floor are seen.
        const shift = folders.length === 1 ? 110 * Math.sin(floor * 1.7) : 0;
        return [folder, { x: (WIDTH * (i + 1)) / (folders.length + 1) + shift, y }] as const;
      }),
    ),
  );
  const arrows = [...all].flatMap(([from, to]) =>
    [...to.keys()]
      .filter((f) => !around(all, from, f))
      .sort()
      .map((f) => {
        const [a, b] = [places.get(from)!, places.get(f)!];
        const [y1, y2] = [a.y + BOX.height / 2, b.y - BOX.height / 2 - 4];
        const bend = (y1 + y2) / 2;
        return `<path d="M${a.x.toFixed(0)} ${y1.toFixed(0)}C${a.x.toFixed(0)} ${bend.toFixed(0)} ${b.x.toFixed(0)} ${bend.toFixed(0)} ${b.x.toFixed(0)} ${y2.toFixed(0)}" marker-end="url(#tip)"/>`;
      }),
  );
  const boxes = [...places].map(
    ([folder, { x, y }]) =>
      `<rect x="${(x - BOX.width / 2).toFixed(0)}" y="${(y - BOX.height / 2).toFixed(0)}" width="${BOX.width}" height="${BOX.height}" rx="3"/><text x="${x.toFixed(0)}" y="${(y + 5).toFixed(0)}">${folder}</text>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${height}" font-family="sans-serif" font-size="15" text-anchor="middle">
<defs><marker id="tip" viewBox="0 0 8 8" refX="6" refY="4" markerWidth="7" markerHeight="7" orient="auto"><path d="M0 0L8 4L0 8z" fill="#8a3f12"/></marker></defs>
<rect width="${WIDTH}" height="${height}" fill="#fbfaf5"/>
<g fill="none" stroke="#8a3f12" stroke-width="1.4">
${arrows.join('\n')}
</g>
<g fill="#1d2b33">
${boxes.join('\n').replaceAll('<text ', '<text fill="#f3efe3" ')}
</g>
</svg>
`;
}
