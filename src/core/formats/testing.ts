/** A second, plain reader of quoted CSV, to check the writer. */
export function plainCsv(text: string): string[][] {
  const table: string[][] = [[]];
  let cell = '';
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    const c = text[i]!;
    if (quoted) {
      if (c !== '"') cell += c;
      else if (text[i + 1] === '"') cell += text[i++];
      else quoted = false;
    } else if (c === '"') quoted = true;
    else if (c === ',' || c === '\n') {
      table.at(-1)!.push(cell);
      cell = '';
      if (c === '\n' && i + 1 < text.length) table.push([]);
    } else if (c !== '\r') cell += c;
  }
  return table;
}
