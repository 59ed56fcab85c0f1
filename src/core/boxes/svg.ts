/** A picture of a box's wiring as an SVG file: on paper, in other programs. */
import type { Color } from '#core/job/schema.ts';
import type { Line, Picture, Row, Shape } from './picture.ts';

/** How conductors are painted; the same on paper and on the screen. */
export const PAINT: Readonly<Record<Color, string>> = {
  black: '#1d1d1d',
  red: '#c62020',
  blue: '#2353a8',
  white: '#ffffff',
  gray: '#9a9a9a',
  green: '#1f7a3d',
  bare: '#c9793b',
  cloth: '#6b5f4d',
  yellow: '#e3c317',
  orange: '#e0761a',
  brown: '#6b4226',
  purple: '#6d3fa0',
  armor: '#8d959b',
};
/** Screws by their finish. */
export const SCREW_PAINT: Readonly<Record<string, string>> = {
  ...PAINT,
  brass: '#d2a63c',
  silver: '#d5d9dc',
  green: '#2f9e57',
  dark: '#3c3c40',
};

const INK = '#17202a';

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
const n = (value: number): string => String(Math.round(value * 10) / 10);

/** A line as the data of a path. */
export const pathOf = ({ points }: Pick<Line, 'points'>): string =>
  points.map(({ x, y }, k) => `${k === 0 ? 'M' : 'L'}${n(x)} ${n(y)}`).join(' ');

function rowSvg(row: Row, shape: Shape): string {
  const middle = row.y + row.height / 2;
  const parts: string[] = [];
  const text = (x: number, anchor: string) =>
    `<text x="${n(x)}" y="${n(middle + 4.5)}" text-anchor="${anchor}">${escaped(row.label)}</text>`;
  if (row.kind === 'terminal' || row.kind === 'lead') {
    const fill = SCREW_PAINT[row.finish ?? 'brass'] ?? '#fff';
    parts.push(
      row.kind === 'terminal'
        ? `<circle cx="${n(row.x + 12)}" cy="${n(middle)}" r="7" fill="${fill}" stroke="${INK}" stroke-width="1.5"/><line x1="${n(row.x + 8)}" y1="${n(middle)}" x2="${n(row.x + 16)}" y2="${n(middle)}" stroke="${INK}" stroke-width="1.5"/>`
        : `<rect x="${n(row.x + 4)}" y="${n(middle - 4)}" width="16" height="8" rx="4" fill="${fill}" stroke="${INK}" stroke-width="1.5"/>`,
      text(row.x + 25, 'start'),
    );
  } else if (row.kind === 'conductor') {
    const paint = PAINT[row.color ?? 'black'];
    parts.push(
      `<rect x="${n(row.x + row.width - 16)}" y="${n(middle - 5)}" width="16" height="10" fill="${paint}" stroke="${INK}" stroke-width="1.5"/>`,
    );
    if (row.mark)
      parts.push(
        `<rect x="${n(row.x + row.width - 7)}" y="${n(middle - 5)}" width="7" height="10" fill="${PAINT[row.mark]}" stroke="${INK}" stroke-width="1"/>`,
      );
    parts.push(text(row.x + 7, 'start'));
  } else parts.push(text(shape.x + shape.width / 2, 'middle'));
  return parts.join('');
}

const FILL: Record<Shape['kind'], string> = {
  cable: '#eef1ee',
  device: '#f6f1e2',
  splice: '#ffe9c2',
  cap: '#ffe9c2',
  box: '#dfe4e8',
  unknown: '#ffffff',
};

function shapeSvg(shape: Shape): string {
  const { x, y, width, height, title, kind } = shape;
  const radius = kind === 'splice' || kind === 'cap' ? 9 : 3;
  return [
    `<rect x="${n(x)}" y="${n(y)}" width="${n(width)}" height="${n(height)}" rx="${radius}" fill="${FILL[kind]}" stroke="${INK}" stroke-width="1.5"${kind === 'unknown' ? ' stroke-dasharray="4 3"' : ''}/>`,
    title === '' ? '' : `<text x="${n(x + 7)}" y="${n(y + 17)}" font-weight="700">${escaped(title)}</text>`,
    ...shape.rows.map((row) => rowSvg(row, shape)),
  ].join('');
}

const lineSvg = (line: Line): string => {
  const d = pathOf(line);
  return `<g fill="none" stroke-linejoin="round" data-line="${escaped(line.id)}"><path d="${d}" stroke="${INK}" stroke-width="6"/><path d="${d}" stroke="${PAINT[line.color]}" stroke-width="3.5"/></g>`;
};

/** @param title what the box is called */
export function svgOf({ width, height, shapes, lines, tabs }: Picture, title: string): string {
  const rows = new Map(shapes.flatMap((s) => s.rows.map((r) => [r.id, r] as const)));
  const tabLines = tabs.map(({ from, to, kept, side }) => {
    const [a, b] = [rows.get(from), rows.get(to)];
    if (!a || !b) return '';
    const x = a.x + a.width - 8;
    const paint = SCREW_PAINT[side === 'hot' ? 'brass' : 'silver'];
    return `<line x1="${n(x)}" y1="${n(a.y + a.height / 2)}" x2="${n(x)}" y2="${n(b.y + b.height / 2)}" stroke="${kept ? paint : INK}" stroke-width="${kept ? 5 : 1.5}"${kept ? '' : ' stroke-dasharray="2 4"'}/>`;
  });
  const head = 26;
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${n(width)} ${n(height + head)}" width="${n(width)}" height="${n(height + head)}" font-family="sans-serif" font-size="13" fill="${INK}">`,
    `<title>${escaped(title)}</title>`,
    `<rect width="100%" height="100%" fill="#ffffff"/>`,
    `<text x="7" y="18" font-size="15" font-weight="700">${escaped(title)}</text>`,
    `<g transform="translate(0 ${head})">`,
    ...lines.map(lineSvg),
    ...shapes.map(shapeSvg),
    ...tabLines,
    '</g>',
    '</svg>',
    '',
  ].join('\n');
}
