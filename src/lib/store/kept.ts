/** Small things that this device keeps between visits; without storage they last as long as the page. */
const inMemory = new Map<string, string>();

export function kept(key: string): string | null {
  try {
    return localStorage.getItem(key) ?? inMemory.get(key) ?? null;
  } catch {
    return inMemory.get(key) ?? null;
  }
}

export function keep(key: string, value: string): void {
  inMemory.set(key, value);
  try {
    localStorage.setItem(key, value);
  } catch {
    // Storage may be shut off.
  }
}
