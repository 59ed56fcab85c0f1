/** Where a plan is looked at from: zoom and pan by wheel, pinch, drag and keys. */
import { select, type Selection } from 'd3-selection';
import { zoom, zoomIdentity, type D3ZoomEvent, type ZoomBehavior } from 'd3-zoom';
import type { Point, Bounds } from '#core/job/outline.ts';

/** Room around what is fitted, pixels. */
const MARGIN = 44;
const FARTHEST = 0.02;
const NEAREST = 12;

export class Viewport {
  /** Pixels for one inch, and where plan zero lies on the screen. */
  k = $state(1);
  x = $state(0);
  y = $state(0);
  /** Whether the person has zoomed or panned since the last fit. */
  moved = $state(false);
  /** Whether a hand is on it. */
  panning = $state(false);
  private readonly behavior: ZoomBehavior<HTMLElement, unknown>;
  private root: Selection<HTMLElement, unknown, null, undefined> | null = null;

  constructor() {
    this.behavior = zoom<HTMLElement, unknown>()
      .scaleExtent([FARTHEST, NEAREST])
      .filter(
        (event: MouseEvent) =>
          event.type === 'wheel' ||
          (!event.shiftKey && !event.button && !(event.target as Element).closest('[data-own-drag]')),
      )
      .on('zoom', (event: D3ZoomEvent<HTMLElement, unknown>) => {
        const { k, x, y } = event.transform;
        if (k !== this.k) this.k = k;
        this.x = x;
        this.y = y;
        if (event.sourceEvent) {
          this.moved = true;
          this.panning = true;
        }
      })
      .on('end', () => (this.panning = false));
  }

  attach(ground: HTMLElement): () => void {
    this.root = select(ground);
    this.root.call(this.behavior).on('dblclick.zoom', null);
    return () => {
      this.root?.on('.zoom', null);
      this.root = null;
    };
  }

  /** Brings everything into view. */
  fit(bounds: Bounds, width: number, height: number): void {
    const w = Math.max(1, bounds.right - bounds.left);
    const h = Math.max(1, bounds.bottom - bounds.top);
    const k = Math.max(FARTHEST, Math.min(NEAREST / 2, (width - 2 * MARGIN) / w, (height - 2 * MARGIN) / h));
    const x = width / 2 - (bounds.left + w / 2) * k;
    const y = height / 2 - (bounds.top + h / 2) * k;
    this.root?.call(this.behavior.transform, zoomIdentity.translate(x, y).scale(k));
    this.moved = false;
  }

  zoomBy(factor: number): void {
    this.root?.call(this.behavior.scaleBy, factor);
    this.moved = true;
  }

  panBy(dx: number, dy: number): void {
    this.root?.call(this.behavior.translateBy, dx / this.k, dy / this.k);
    this.moved = true;
  }

  /** Plan inches at a place on the screen. */
  toPlan(ground: HTMLElement, clientX: number, clientY: number): Point {
    const { left, top } = ground.getBoundingClientRect();
    return { x: (clientX - left - this.x) / this.k, y: (clientY - top - this.y) / this.k };
  }
}
