/** The folders of the core from the ground up: each may use those below it; those on one floor do not use each other. */
export const FLOORS = [
  ['units'],
  ['job'],
  ['tables'],
  ['view'],
  ['plan', 'loads'],
  ['circuits'],
  ['panel'],
  ['boxes'],
  ['records'],
  ['code'],
  ['layout', 'planner'],
  ['network'],
  ['instruments'],
  ['diagnosis'],
  ['handover'],
  ['formats'],
];
