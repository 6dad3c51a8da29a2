import { say } from '../quantity/tongue.js';
import type { Tag } from '../exercise/definition.js';
import type { AcuityResult } from './acuity.js';
import type { IrritabilityResult } from './irritability.js';

/** What puts more on one foot than standing and walking do. [convention] */
const MUCH: readonly Tag[] = ['impact', 'push-off', 'standing-unsupported', 'single-leg-raise'];

/** Whether a test is a squat, a hop, or a stand or rise on one leg: by what it puts on the foot, where it does not say so itself. */
export const isStrenuous = ({
  needs = [],
  strenuous,
}: {
  readonly needs?: readonly Tag[] | undefined;
  readonly strenuous?: boolean | undefined;
}): boolean =>
  strenuous ??
  (needs.some((t) => MUCH.includes(t)) || (needs.includes('weight-bearing') && needs.includes('calf-load')));

/**
 * Why strenuous tests of a treated side wait for another day: it takes no weight, it is fresh, or it is highly irritable; null
 * where nothing says so. Advice before it is tried, not a stop: safety has its own. [convention]
 */
export function tooEarlyToday(state: {
  readonly acuity: AcuityResult;
  readonly irritability: IrritabilityResult;
  readonly cannotTakeWeight: boolean;
}): string | null {
  if (state.cannotTakeWeight) return say('the foot takes no weight');
  if (state.acuity.level === 'acute') return say('fresh, {{because}}', { because: state.acuity.because });
  return state.irritability.level === 'high'
    ? say('highly irritable, {{list}}', { list: state.irritability.because.join(say(' and ')) })
    : null;
}
