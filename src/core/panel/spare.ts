/** What a service has left: the largest load that could be added before it is full. */
import { dwellingLoad, type Dwelling, type LoadItem, type LoadMethod } from '#core/loads/dwelling.ts';

/** Something more, working at 240 V. */
export const itemAt = (name: string, kind: LoadItem['kind'], amps: number): LoadItem => ({
  name,
  kind,
  va: 240 * amps,
  volts: 240,
  motor: false,
  controls: 1,
  added: true,
});

const fits = (dwelling: Dwelling, method: LoadMethod, amps: number): boolean => {
  const load = dwellingLoad(dwelling, method);
  return load.ok && load.value.amps <= amps + 1e-9;
};

/**
 * The largest load of a kind at 240 V that fits beside what there is, by bisection: no method counts a larger load less.
 * @param amps rating of the service
 * @returns amperes at 240 V, to a tenth and rounded down; 0 when nothing fits
 */
export function spareFor(
  dwelling: Dwelling,
  method: LoadMethod,
  amps: number,
  kind: LoadItem['kind'],
): number {
  const withItem = (at: number): Dwelling => ({
    ...dwelling,
    items: [...dwelling.items, itemAt('more', kind, at)],
  });
  if (!fits(withItem(0), method, amps)) return 0;
  let [low, high] = [0, 4000];
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (fits(withItem(middle / 10), method, amps)) low = middle;
    else high = middle;
  }
  return low / 10;
}
