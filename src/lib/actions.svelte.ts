/** Actions that pages offer to the palette while they are open. */
import type { PaletteItem } from './palette.ts';

class Actions {
  private sources = $state.raw<(() => PaletteItem[])[]>([]);

  /** Offers items until the returned function is called. */
  offer(source: () => PaletteItem[]): () => void {
    this.sources = [...this.sources, source];
    return () => (this.sources = this.sources.filter((s) => s !== source));
  }

  all = (): PaletteItem[] => this.sources.flatMap((source) => source());
}

export const actions = new Actions();
