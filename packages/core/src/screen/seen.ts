/** Bones that are marked tender on the drawing: key and name. */
export const TENDER_BONES = [
  ['shin-inner', 'inner shin'],
  ['shin-front', 'front of the shin'],
  ['fibula-upper', 'upper fibula'],
  ['outer-ankle-bone', 'outer ankle bone'],
  ['inner-ankle-bone', 'inner ankle bone'],
  ['talus', 'talus'],
  ['navicular', 'navicular'],
  ['fifth-base', 'base of the fifth metatarsal'],
  ['fifth-shaft', 'shaft of the fifth metatarsal'],
  ['metatarsal-shaft', 'another metatarsal shaft'],
  ['sesamoids', 'a sesamoid, under the big toe joint'],
  ['heel-bone', 'heel bone, both sides'],
] as const;
export type TenderBone = (typeof TENDER_BONES)[number][0];

/** Under this the inner shin is tender at a point rather than along a stretch. */
const SHORT_CM = 5;

/**
 * The sign of the safety rules that a tender bone is. The inner shin is one when it is tender over less than 5 cm, or its
 * length was not recorded: no length is not known, and not known is never absent. Null where it is none.
 */
export function tenderSign(bone: TenderBone, cm: number | null): string | null {
  if (bone !== 'shin-inner') return `tender-${bone}`;
  return cm === null || cm < SHORT_CM ? 'tender-shin-short' : null;
}

/** Every sign that a drawing or the story can give the safety rules. */
export const SEEN_SIGNS: readonly string[] = [
  'feeling-lost',
  'injured-lately',
  'rigid-toe',
  'tender-shin-short',
  ...TENDER_BONES.flatMap(([bone]) => (bone === 'shin-inner' ? [] : [`tender-${bone}`])),
];
