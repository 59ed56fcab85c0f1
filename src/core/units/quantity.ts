/** A number with the unit it is shown in, so that nothing is compared or printed bare. */
export interface Quantity {
  value: number;
  unit: 'in' | 'V' | 'A' | 'VA' | 'Ω' | '%' | 'AWG' | 'ft' | 'ft²' | 'in³';
}

export const round = (value: number, places: number): number => {
  const scale = 10 ** places;
  return Math.round((value + Number.EPSILON) * scale) / scale;
};

export const fahrenheit = (celsius: number): number => celsius * 1.8 + 32;
export const celsius = (fahrenheit: number): number => (fahrenheit - 32) / 1.8;
