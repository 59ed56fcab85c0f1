/** Keyboard shortcuts: one list for what they do and for the help that shows them. */
import { PHASES } from './phases.ts';

export interface Shortcut {
  keys: string;
  what: string;
  where: string;
}

export const SHORTCUTS: readonly Shortcut[] = [
  { keys: 'Ctrl K', what: 'Find anything: rooms, outlets, circuits, actions', where: 'Everywhere' },
  { keys: '?', what: 'This list', where: 'Everywhere' },
  { keys: 'Ctrl Z', what: 'Undo', where: 'In a job' },
  { keys: 'Ctrl Shift Z', what: 'Redo', where: 'In a job' },
  {
    keys: `Alt 1 … ${PHASES.length}`,
    what: PHASES.map((p) => p.name).join(', '),
    where: 'In a job',
  },
  { keys: 'Alt L', what: 'Next light: day, attic, sun', where: 'Everywhere' },
  { keys: 'P', what: 'Place what is missing on this level, or in the chosen room', where: 'Layout' },
  { keys: 'Shift P', what: 'Place what the whole house lacks', where: 'Layout' },
  { keys: 'Ctrl A', what: 'Choose every outlet of the room', where: 'Layout' },
  { keys: 'Shift drag', what: 'Choose the outlets within', where: 'Layout' },
  { keys: '+ − 0 Z', what: 'Zoom in, out, fit, look closer; arrows pan', where: 'On the plan' },
  { keys: 'A', what: 'Add an outlet to the selected room', where: 'Layout' },
  { keys: '← →', what: 'Move the chosen outlets an inch along the wall', where: 'Layout' },
  { keys: 'Shift ← →', what: 'Move them a foot', where: 'Layout' },
  { keys: 'Delete', what: 'Remove the chosen outlets', where: 'Layout' },
  { keys: 'Esc', what: 'Choose nothing', where: 'Layout' },
  { keys: '← → ↑ ↓', what: 'Move a box an inch along or up; with Shift, a foot', where: 'Wall view' },
  { keys: 'Alt ← →', what: 'Move the selected stop along its run', where: 'Runs' },
  { keys: 'Alt Shift ← →', what: 'Feed it from one stop nearer the panel, or one further', where: 'Runs' },
  { keys: 'Alt ↑ ↓', what: 'Move it to the circuit above or below', where: 'Runs' },
  { keys: 'Alt ← → ↑ ↓', what: 'Move the breaker to the next space', where: 'Panel' },
  { keys: '[ ]', what: 'Box before, next box', where: 'Prove' },
];

/** Typing in a field is never a shortcut. */
export const isTyping = (event: Event): boolean => {
  const target = event.target as HTMLElement | null;
  return !!target?.closest?.('input, select, textarea, [contenteditable]');
};

/** A key that acts, but not while somebody types into a field. */
export const outsideFields = (act: () => unknown) => (event: KeyboardEvent) => {
  if (isTyping(event)) return;
  event.preventDefault();
  void act();
};
