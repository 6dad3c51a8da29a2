import {
  betweenSide,
  type ExerciseDefinition,
  type FigureDefinition,
  jointAngles,
  type LegJoints,
  solvePose,
  type Tag,
} from '@heathstep/core';

/** Angles from which a drawn movement is what a tag says. Convention. */
const DEEP_BENT_DEG = 20;
const DEEP_STRAIGHT_DEG = 10;
const STRAIGHT_KNEE_DEG = 10;
const HEEL_RAISED_DEG = 10;
const FORCED_TOES_DEG = 55;
const HEAVY_KG = 5;
const STEP_CM = 10;

type Moment = readonly LegJoints[];

/** Both legs at eleven moments of a figure from the side, with the lean of the trunk. */
function moments(f: FigureDefinition): { legs: Moment; trunk: number }[] {
  if (f.view !== 'side') return [];
  return Array.from({ length: 11 }, (_, i) => {
    const s = solvePose(betweenSide(f.start, f.end, i / 10));
    return { legs: [s.near, s.far].filter((l) => l !== null), trunk: s.trunk };
  });
}

const someLeg = (
  f: FigureDefinition,
  holds: (leg: LegJoints, angles: ReturnType<typeof jointAngles>) => boolean,
): boolean => moments(f).some(({ legs, trunk }) => legs.some((l) => holds(l, jointAngles(l, trunk))));

const FLAT_DEG = 3;

/** A foot that stands flat while the shin goes far over it, or hangs its heel below the ball. */
function bendsDeep(f: FigureDefinition, e: ExerciseDefinition): boolean {
  const onStepEdge = e.position.includes('on a step');
  return someLeg(f, (leg, a) => {
    if (!leg.placed) return false;
    if (onStepEdge && leg.pitch < -FLAT_DEG) return true;
    if (Math.abs(leg.pitch) > FLAT_DEG && leg.pitch < 0) return false;
    return (
      a.ankle >= DEEP_BENT_DEG || (a.ankle >= DEEP_STRAIGHT_DEG && Math.abs(a.knee) <= STRAIGHT_KNEE_DEG)
    );
  });
}

const rests = (leg: LegJoints): boolean => leg.placed;

/** The near heel goes up while its ball stays down. */
function heelRises(f: FigureDefinition): boolean {
  if (f.view === 'front' || f.view === 'back') {
    const rise = (pose: typeof f.start) => Math.max(pose.left.rise ?? 0, pose.right.rise ?? 0);
    return Math.max(rise(f.start), rise(f.end)) >= 0.5;
  }
  const pitches = moments(f).flatMap(({ legs: [near] }) =>
    near !== undefined && rests(near) ? [near.pitch] : [],
  );
  return Math.max(...pitches, 0) - Math.max(0, Math.min(...pitches)) >= HEEL_RAISED_DEG;
}

const isStanding = (e: ExerciseDefinition): boolean => /^(standing|walking|running)/.test(e.position);

const freeFeet = (pose: { left: { free?: boolean | undefined }; right: { free?: boolean | undefined } }) =>
  [pose.left, pose.right].filter((leg) => leg.free === true).length;

/** One foot carries all the way, or for a moment none does. */
function onOneFootOrNone(f: FigureDefinition): boolean {
  if (f.view === 'front' || f.view === 'back') {
    return freeFeet(f.start) > 0 && freeFeet(f.end) > 0;
  }
  return moments(f).every(({ legs }) => legs.filter(rests).length <= 1 && legs.length === 2);
}

function leavesTheGround(f: FigureDefinition): boolean {
  if (f.view === 'front' || f.view === 'back') return freeFeet(f.start) === 2 || freeFeet(f.end) === 2;
  return f.view === 'side' && moments(f).some(({ legs }) => legs.length === 2 && !legs.some(rests));
}

const SUPPORT = /wall|worktop|barre|chair|rail/;

/** What an exercise does, told from its figure and its fields; the tags it must carry at least. */
export function derivedTags(e: ExerciseDefinition, f: FigureDefinition): Tag[] {
  const tags = new Set<Tag>();
  const says = (...words: RegExp[]) => e.steps.some((s) => words.some((w) => w.test(s)));
  const has = (...things: string[]) => e.equipment.some((item) => things.includes(item));
  const standing = isStanding(e);
  if (has('toe spacers', 'tape', 'night splint')) tags.add('skin-pressure');
  if (has('night splint', 'belt')) tags.add('deep-dorsiflexion');
  if (has('roller')) tags.add('compression');
  if (has('spoon')) tags.add('scraping');
  if (f.view === 'sole' && e.aim === 'relief' && e.parts.includes('sole')) tags.add('pressure-on-sole');
  if (f.props.some((p) => p.kind === 'ball') && e.parts.includes('sole')) tags.add('pressure-on-sole');
  if (e.aim === 'aid') return [...tags];
  if (standing || someLeg(f, (l) => rests(l) && /sit.to.stand/.test(e.key))) tags.add('weight-bearing');
  if (/kneel|on the floor|lying on/.test(e.position)) tags.add('floor-transfer');
  if (/prone|face down/.test(e.position)) tags.add('prone');
  if (e.aim !== 'balance' && bendsDeep(f, e)) tags.add('deep-dorsiflexion');
  if (heelRises(f) || e.load !== null || e.aim === 'impact') tags.add('calf-load');
  if (standing && (e.aim === 'impact' || (heelRises(f) && e.aim !== 'endurance'))) tags.add('push-off');
  if (e.loadKind === 'band' && e.parts.includes('calf')) tags.add('calf-load');
  if (standing && (e.load?.legs === 1 || (e.aim === 'impact' && e.laterality === 'per-side')))
    tags.add('single-leg-raise');
  if ((e.range.addedKg?.[1] ?? 0) >= HEAVY_KG) tags.add('heavy-load');
  const steps = f.props.some((p) => p.kind === 'step' && p.height >= STEP_CM && p.height < 40);
  if (standing && steps) tags.add('step-edge');
  if (says(/eyes closed|close (the|your) eyes/i) || (f.view === 'front' && f.start.eyesClosed === true))
    tags.add('eyes-closed');
  if (forcesToes(f)) tags.add('forced-extension');
  if (e.aim === 'impact' || (standing && leavesTheGround(f))) tags.add('impact');
  if (standing && !SUPPORT.test(e.place) && (onOneFootOrNone(f) || leavesTheGround(f) || e.aim === 'impact'))
    tags.add('standing-unsupported');
  return [...tags];
}

/** Toes bent up further than a walk asks, on a roll or by hand. */
const forcesToes = (f: FigureDefinition): boolean =>
  moments(f).some(
    ({ legs: [near], trunk }) =>
      near !== undefined && rests(near) && jointAngles(near, trunk).toes >= FORCED_TOES_DEG,
  );
