/** The phases of a job, in working order. */
export const PHASES = [
  { path: 'walk', name: 'Walk', words: 'survey rooms walls measure enter existing panel' },
  { path: 'layout', name: 'Layout', words: 'plan outlets receptacles plugs spacing place' },
  { path: 'runs', name: 'Runs', words: 'circuits cable wire gauge breaker voltage drop gfci afci' },
  {
    path: 'panel',
    name: 'Panel',
    words: 'spaces breakers legs balance load service directory prices subpanel',
  },
  {
    path: 'trim',
    name: 'Trim',
    words: 'box wiring picture splice connector pigtail steps terminal fill device in the box',
  },
  { path: 'prove', name: 'Prove', words: 'test tester readings dead lockout energize meter' },
  { path: 'hunt', name: 'Hunt', words: 'fault diagnose find trouble cause measure next dead short' },
  { path: 'hand-over', name: 'Hand over', words: 'report print sheet export pdf inspector csv' },
] as const;
