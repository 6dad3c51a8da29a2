import { type Side, TENDER_BONES, type TenderBone, tenderSign, say } from '@heathstep/core';
import type { Entries } from './entries/values.js';

/** What is marked on the drawings of the Look and Feel steps; one list for the form, the server's check and the rules. */

export const NUMB_SITES = [
  ['big-toe', 'big toe'],
  ['third-toe', 'third toe'],
  ['fifth-toe', 'fifth toe'],
  ['first-head', 'first metatarsal head'],
  ['third-head', 'third metatarsal head'],
  ['fifth-head', 'fifth metatarsal head'],
  ['inner-arch', 'inner arch'],
  ['outer-border', 'outer border'],
  ['heel', 'heel'],
  ['dorsum', 'top of the foot'],
] as const;
export type NumbSite = (typeof NUMB_SITES)[number][0];

/** Missing one of these alone means that protective feeling is lost. */
const KEY_SITES: readonly NumbSite[] = ['big-toe', 'first-head', 'fifth-head'];
const MISSED_LIMIT = 4;

export const WEAR_AREAS = [
  ['heel-out', 'outer heel'],
  ['heel-in', 'inner heel'],
  ['forefoot-in', 'inner forefoot'],
  ['forefoot-out', 'outer forefoot'],
  ['toe', 'toe'],
] as const;
export type WearArea = (typeof WEAR_AREAS)[number][0];

export const CALLUS_AREAS = [
  ['big-toe', 'big toe'],
  ['small-toes', 'small toes'],
  ['first-head', 'under the first metatarsal head'],
  ['middle-heads', 'under the middle metatarsal heads'],
  ['fifth-head', 'under the fifth metatarsal head'],
  ['outer-border', 'outer border'],
  ['heel', 'heel'],
] as const;
export type CallusArea = (typeof CALLUS_AREAS)[number][0];

export const TOES = [
  ['big', 'big toe'],
  ['second', 'second toe'],
  ['third', 'third toe'],
  ['fourth', 'fourth toe'],
  ['fifth', 'fifth toe'],
] as const;
export type Toe = (typeof TOES)[number][0];
export const TOE_SHAPES = ['straight', 'claw', 'hammer', 'mallet'] as const;
export interface ToeEntry {
  readonly shape: (typeof TOE_SHAPES)[number];
  readonly rigid: boolean;
}

export const POSES = [
  ['stance', 'standing'],
  ['squat', 'squat'],
  ['raise', 'heel raise'],
  ['single', 'one leg'],
] as const;
export type Pose = (typeof POSES)[number][0];
export const POINTS = [
  ['first', 'first metatarsal head'],
  ['fifth', 'fifth metatarsal head'],
  ['heel', 'heel'],
] as const;
export type SupportPoint = (typeof POINTS)[number][0];
export const POINT_STATES = ['down', 'light', 'lifted'] as const;
export type PointState = (typeof POINT_STATES)[number];
export type PointsEntry = Partial<Record<SupportPoint, PointState>>;

export const BONES = TENDER_BONES;
export type Bone = TenderBone;
export interface TenderEntry {
  readonly bone: Bone;
  readonly cm: number | null;
}

export interface NumbEntry {
  readonly felt: readonly NumbSite[];
  readonly missed: readonly NumbSite[];
}

const nameIn = (list: readonly (readonly [string, string])[], key: string): string =>
  say(list.find(([k]) => k === key)?.[1] ?? key);

const numbOf = (entries: Entries, side: Side): NumbEntry | null => entries.get(`look.numb.${side}`) ?? null;

/** Monofilament sites felt and tested on a side; null when none was. */
export function sitesOf(entries: Entries, side: Side): { felt: number; tested: number } | null {
  const numb = numbOf(entries, side);
  if (numb === null) return null;
  return { felt: numb.felt.length, tested: numb.felt.length + numb.missed.length };
}

function tender(entries: Entries, side: Side, fits: (t: TenderEntry) => boolean): string | null {
  const list = entries.get(`look.tender.${side}`) ?? [];
  const found = list.filter(fits);
  if (found.length === 0) return null;
  const words = found.map(
    (t) => `${nameIn(BONES, t.bone)}${t.cm === null ? '' : say(' over {{cm}} cm', { cm: t.cm })}`,
  );
  return say('Bone tender: {{list}}', { list: words.join(', ') });
}

/** Whether protective feeling is lost on a side by the sites missed, in words; null when not. */
function feelingLost(entries: Entries, side: Side): string | null {
  const missed = numbOf(entries, side)?.missed ?? [];
  const lost = missed.some((s) => KEY_SITES.includes(s)) || missed.length >= MISSED_LIMIT;
  return lost
    ? say('Monofilament not felt at the {{list}}', {
        list: missed.map((s) => nameIn(NUMB_SITES, s)).join(', '),
      })
    : null;
}

function rigidToe(entries: Entries, side: Side): string | null {
  const toes = Object.entries(entries.get(`look.toes.${side}`) ?? {});
  const rigid = toes.filter(([, t]) => t.rigid && t.shape !== 'straight');
  if (rigid.length === 0) return null;
  return say('Cannot be corrected by hand: {{list}}', {
    list: rigid.map(([toe, t]) => `${say(t.shape)} ${nameIn(TOES, toe)}`).join(', '),
  });
}

/** Within these days an injury calls for the bone points. Source: the ankle and foot rules read it of the first 10 days. */
const LATELY_DAYS = 10;

/** Whether the story tells of an injury in these days; that its day was not told is no reason to think it long ago. */
export function injuredLately(entries: Entries): string | null {
  if (entries.get('story.onset') !== 'injury') return null;
  const days = entries.get('story.days');
  const lately = days === undefined ? entries.get('story.since') === 'under-2-weeks' : days <= LATELY_DAYS;
  return lately ? say('An injury in these days') : null;
}

/** A sign of the safety rules that was marked on the drawings, in words; null when it was not. */
export function seenSign(entries: Entries, sign: string, side: Side): string | null {
  if (sign === 'feeling-lost') return feelingLost(entries, side);
  if (sign === 'rigid-toe') return rigidToe(entries, side);
  return tender(entries, side, (t) => tenderSign(t.bone, t.cm) === sign);
}

/** Support points that are lifted or light on a side, by pose, in words. A lifted outer point while rolling in is tipping, not pronation. */
export function pointsReading(
  entries: Entries,
  side: Side,
): { pose: Pose; text: string; tipping: boolean }[] {
  return POSES.flatMap(([pose, poseName]) => {
    const points = entries.get(`look.points.${pose}.${side}`);
    const off = POINTS.filter(([p]) => points?.[p] === 'lifted' || points?.[p] === 'light');
    if (points === undefined || off.length === 0) return [];
    const words = off.map(([p, name]) => `${say(name)} ${say(points[p] ?? '')}`);
    return [{ pose, text: `${say(poseName)}: ${words.join(', ')}`, tipping: points.fifth === 'lifted' }];
  });
}
