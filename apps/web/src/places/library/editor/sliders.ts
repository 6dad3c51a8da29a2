import { type FigureDefinition, figureProblems, type Prop, say } from '@heathstep/core';

/** A number of a figure that is set by hand: where it is, what it is called, and between what. */
export interface Slider {
  readonly path: readonly (string | number)[];
  readonly group: string;
  readonly label: string;
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly value: number;
}

type Bounds = readonly [label: string, min: number, max: number, step: number];

/** What can be set, by the name of the field. The joints themselves are held by their limits, not by these. */
const FIELDS: Readonly<Record<string, Bounds>> = {
  pitch: [say('heel up'), -140, 140, 1],
  toes: [say('toes up'), -130, 85, 1],
  curl: [say('toes gripped'), 0, 70, 1],
  arch: [say('arch raised'), 0, 1, 0.05],
  shin: [say('shin forward'), -110, 110, 1],
  thigh: [say('thigh'), -130, 110, 1],
  trunk: [say('trunk leaning'), -120, 100, 1],
  head: [say('head leaning'), -110, 110, 1],
  tilt: [say('tilted'), -35, 35, 1],
  turn: [say('turned out'), -45, 75, 1],
  rise: [say('heel up'), 0, 1, 0.05],
  sole: [say('sole looking aside'), -90, 90, 1],
  gaze: [say('face turned'), -1, 1, 0.1],
};

const POINTS: Readonly<Record<string, string>> = {
  hip: say('hip'),
  pelvis: say('pelvis'),
  hand: say('hand'),
  rightHand: say('right hand'),
  leftHand: say('left hand'),
  ball: say('ball of the foot'),
  heel: say('heel'),
  foot: say('foot'),
  knee: say('knee'),
};

const LEGS: Readonly<Record<string, string>> = {
  near: say('leg shown'),
  far: say('other leg'),
  right: say('right leg'),
  left: say('left leg'),
};

const TOES = [say('big toe'), say('second toe'), say('third toe'), say('fourth toe'), say('small toe')];

/** Fields that may be left out of a leg from the side or a foot from above, and then stand at nothing. */
const OPTIONAL: Readonly<Record<string, readonly string[]>> = {
  leg: ['curl', 'arch'],
  foot: ['arch', 'turn', 'curl'],
  front: ['rise', 'tilt', 'turn'],
};

const MOST = 200;

function ofPose(
  pose: object,
  path: readonly (string | number)[],
  group: string,
  optional: readonly string[],
): Slider[] {
  const given = { ...Object.fromEntries(optional.map((k) => [k, 0])), ...pose };
  return Object.entries(given).flatMap(([key, value]): Slider[] => {
    const here = [...path, key];
    const point = POINTS[key];
    if (point !== undefined && Array.isArray(value))
      return (value as number[]).map((v, i) => ({
        path: [...here, i],
        group,
        label: say('{{point}} {{way}}', { point, way: i === 0 ? say('forward') : say('up') }),
        min: -MOST,
        max: MOST,
        step: 0.5,
        value: v,
      }));
    if ((key === 'spread' || key === 'lift') && Array.isArray(value))
      return (value as number[]).map((v, i) => ({
        path: [...here, i],
        group: key === 'spread' ? say('toes spread outward') : say('toes lifted'),
        label: TOES[i] ?? '',
        min: key === 'spread' ? -25 : 0,
        max: key === 'spread' ? 40 : 1,
        step: key === 'spread' ? 1 : 0.05,
        value: v,
      }));
    const leg = LEGS[key];
    if (leg !== undefined && typeof value === 'object' && value !== null)
      return ofPose(value, here, leg, OPTIONAL[key === 'near' || key === 'far' ? 'leg' : 'front'] ?? []);
    const bounds = FIELDS[key];
    if (bounds === undefined || typeof value !== 'number') return [];
    const [label, min, max, step] = bounds;
    return [{ path: here, group, label, min, max, step, value }];
  });
}

/** Everything that can be set in one pose of a figure. */
export function slidersOf(figure: FigureDefinition, pose: 'start' | 'end'): Slider[] {
  const foot = figure.view === 'top' || figure.view === 'sole';
  return ofPose(figure[pose], [pose], foot ? say('foot') : say('body'), foot ? (OPTIONAL['foot'] ?? []) : []);
}

const PROP_FIELDS: Readonly<Record<string, readonly [label: string, min: number, max: number]>> = {
  x: [say('where'), -MOST, MOST],
  from: [say('from'), -MOST, MOST],
  to: [say('to'), -MOST, MOST],
  height: [say('height'), 1, 120],
  width: [say('width'), 1, 80],
  radius: [say('size'), 0.5, 20],
  lean: [say('leaning'), 0, 360],
};

/** The numbers of one thing that stands beside the body. */
export function slidersOfProp(prop: Prop, index: number): Slider[] {
  return Object.entries(prop).flatMap(([key, value]): Slider[] => {
    const group = say(prop.kind);
    if (key === 'at' && Array.isArray(value) && typeof value[0] === 'number')
      return (value as unknown as number[]).map((v, i) => ({
        path: ['props', index, key, i],
        group,
        label: i === 0 ? say('forward') : say('up'),
        min: -MOST,
        max: MOST,
        step: 0.5,
        value: v,
      }));
    const bounds = PROP_FIELDS[key];
    if (bounds === undefined || typeof value !== 'number') return [];
    const [label, min, max] = bounds;
    return [{ path: ['props', index, key], group, label, min, max, step: 0.5, value }];
  });
}

/** What is seen of it: the edges of the picture. */
export const slidersOfFrame = (figure: FigureDefinition): Slider[] =>
  [say('left'), say('bottom'), say('right'), say('top')].map((label, i) => ({
    path: ['frame', i],
    group: say('picture'),
    label,
    min: -MOST,
    max: MOST,
    step: 1,
    value: figure.frame[i] ?? 0,
  }));

function put(target: unknown, path: readonly (string | number)[], value: unknown): unknown {
  const [key, ...rest] = path;
  if (key === undefined) return value;
  if (Array.isArray(target)) {
    const list: unknown[] = target;
    return list.map((v, i) => (i === key ? put(v, rest, value) : v));
  }
  const record = (target ?? {}) as Record<string | number, unknown>;
  return { ...record, [key]: put(record[key], rest, value) };
}

/** A figure with one number changed. */
export const withValue = (
  figure: FigureDefinition,
  path: readonly (string | number)[],
  value: unknown,
): FigureDefinition => put(figure, path, value) as FigureDefinition;

const FRAMES = [0, 0.25, 0.5, 0.75, 1];

const OTHER_LEG: Readonly<Record<string, string>> = { near: 'far', right: 'left' };

const valueAt = (target: unknown, path: readonly (string | number)[]): unknown =>
  path.reduce<unknown>((at, key) => (at as Record<string | number, unknown> | undefined)?.[key], target);

/** A figure with one number changed, and the same of the other leg along with it while both are alike. */
function together(
  figure: FigureDefinition,
  slider: Pick<Slider, 'path' | 'value'>,
  value: number,
): FigureDefinition {
  const one = withValue(figure, slider.path, value);
  const [pose = '', leg = '', ...rest] = slider.path;
  const other = OTHER_LEG[leg];
  // Where a foot stands is its own; only how it is bent goes along.
  if (other === undefined || rest.length !== 1) return one;
  const path = [pose, other, ...rest];
  return valueAt(figure, path) === slider.value ? withValue(one, path, value) : one;
}

/** What held a movement, in words. */
export function heldBy(problem: string): string {
  const [leg = '', ...joint] = problem.split(' ');
  const name = LEGS[leg] ?? say('foot');
  if (joint[0] === 'reach' || joint[0] === 'thigh' || joint[0] === 'shin')
    return say('Held by the {{name}}: it reaches no further.', { name });
  return say('Held by the {{list}} of the {{name}}: it goes no further.', { list: joint.join(' '), name });
}

/** How many joints are beyond what they can do, over the whole movement. */
const beyond = (figure: FigureDefinition): string[] =>
  FRAMES.flatMap((t) => figureProblems(figure, t).map((p) => `${p.leg} ${p.joint}`));

const HALVINGS = 12;

/**
 * A figure with one number set as far as the joints allow: a value beyond stops where the first joint reaches its limit.
 *
 * @returns the figure, and which joint held it, or null.
 */
export function withinLimits(
  figure: FigureDefinition,
  slider: Pick<Slider, 'path' | 'value'>,
  wanted: number,
): { readonly figure: FigureDefinition; readonly held: string | null } {
  const before = beyond(figure).length;
  const direct = together(figure, slider, wanted);
  const problems = beyond(direct);
  if (problems.length <= before) return { figure: direct, held: null };
  let [good, bad] = [slider.value, wanted];
  for (let i = 0; i < HALVINGS; i += 1) {
    const middle = (good + bad) / 2;
    if (beyond(together(figure, slider, middle)).length <= before) good = middle;
    else bad = middle;
  }
  return {
    figure: together(figure, slider, slider.value + Math.trunc((good - slider.value) * 100) / 100),
    held: problems[0] ?? null,
  };
}

/** Things that can be put into a picture, as they first stand. */
export const NEW_PROPS: Readonly<Record<string, Prop>> = {
  floor: { kind: 'floor', from: -60, to: 60 },
  wall: { kind: 'wall', x: 40 },
  step: { kind: 'step', from: -10, to: 30, height: 16 },
  chair: { kind: 'chair', x: -56, height: 43 },
  worktop: { kind: 'worktop', x: 24, height: 96 },
  cushion: { kind: 'cushion', from: -20, to: 10, height: 6 },
  'rolled towel': { kind: 'roll', at: [0, 2], radius: 2 },
  ball: { kind: 'ball', at: [0, 5], radius: 5 },
  'flat towel': { kind: 'towel', from: 0, to: 40 },
  'band from foot to hand': { kind: 'strap', from: 'ball', to: 'hand' },
  'weight in the hand': { kind: 'weight', at: 'hand' },
  'weight on the knee': { kind: 'weight', at: 'knee' },
  shoe: { kind: 'shoe' },
};
