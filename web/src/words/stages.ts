import type { Stage } from '../api/client';

/** What the stages are called, in the order of the rail. */
export const stageNames: Record<string, string> = {
  plan: 'Plan',
  cloth: 'Cloth',
  shrink: 'Shrink',
  lay: 'Lay',
  buy: 'Buy',
  true: 'True',
  cut: 'Cut',
  log: 'Log',
};

/** How far one is, in words. */
export const stateWords: Record<Stage['state'], string> = {
  empty: 'not begun',
  begun: 'under way',
  done: 'done',
  'look-again': 'look again',
};
