import { phrase } from '../quantity/tongue.js';

/** What is done on the instruments. */
export type LabTask = 'stance' | 'walk' | 'balance' | 'squat' | 'raise';

export const LAB_TASKS: readonly LabTask[] = ['stance', 'walk', 'balance', 'squat', 'raise'];

export const LAB_TASK_WORDS: Readonly<Record<LabTask, string>> = {
  stance: phrase('Stance'),
  walk: phrase('Walk'),
  balance: phrase('One-leg stance'),
  squat: phrase('Squat'),
  raise: phrase('Heel raise'),
};
