/** Full-load current of single-phase ac motors, Table 430.248, amperes by horsepower at 115, 208 and 230 V. */
const FULL_LOAD: readonly (readonly [horsepower: number, at115: number, at208: number, at230: number])[] = [
  [1 / 6, 4.4, 2.4, 2.2],
  [1 / 4, 5.8, 3.2, 2.9],
  [1 / 3, 7.2, 4, 3.6],
  [1 / 2, 9.8, 5.4, 4.9],
  [3 / 4, 13.8, 7.6, 6.9],
  [1, 16, 8.8, 8],
  [1.5, 20, 11, 10],
  [2, 24, 13.2, 12],
  [3, 34, 18.7, 17],
  [5, 56, 30.8, 28],
  [7.5, 80, 44, 40],
  [10, 100, 55, 50],
];

/**
 * Full-load current by the table, which goes before the nameplate (430.6(A)).
 * @returns amperes, or null where the table has no such motor
 */
export function motorAmps(horsepower: number, volts: number): number | null {
  const row = FULL_LOAD.find(([hp]) => Math.abs(hp - horsepower) < 0.01);
  if (!row) return null;
  // The columns serve 110 to 120, 208 as marked, and 220 to 240 V.
  return volts <= 150 ? row[1] : volts <= 215 ? row[2] : row[3];
}
