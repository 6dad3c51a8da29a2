import { say } from '@heathstep/core';
/** A drawn setup: limbs as thick lines, what they stand on or against as thin ones, and what is read as an accent. */
interface Drawing {
  readonly limbs: readonly string[];
  readonly props: readonly string[];
  readonly read: readonly string[];
  readonly head?: readonly [x: number, y: number];
}

const FLOOR = 'M4 92 H116';
const WALL = 'M104 8 V92';
const CHAIR = 'M18 54 H50 M22 54 V92 M46 54 V92 M18 54 V22';
const SEATED: Omit<Drawing, 'read'> = {
  limbs: ['M34 22 V50 H66 V84', 'M62 90 H84'],
  props: [FLOOR, CHAIR],
  head: [34, 13],
};
const COUCH = 'M6 62 H114 M14 62 V92 M106 62 V92';
const FROM_BEHIND = 'M22 8 L26 52 C22 60 22 80 32 82 C42 80 42 60 38 52 L44 8';

export const SETUPS: Readonly<Record<string, Drawing>> = {
  'lunge-bent': {
    limbs: ['M46 20 L42 50 L72 62 L54 88', 'M42 50 L30 72 L10 88', 'M48 90 H76'],
    props: [FLOOR, WALL, 'M48 28 L104 34'],
    read: ['M54 88 V58', 'M54 66 A22 22 0 0 1 66 70'],
    head: [50, 11],
  },
  'lunge-wall': {
    limbs: ['M52 20 L46 50 L100 62 L66 88', 'M60 90 H90'],
    props: [FLOOR, WALL, 'M56 28 L104 36'],
    read: ['M90 96 H104', 'M90 93 V99 M104 93 V99'],
    head: [56, 11],
  },
  'lunge-straight': {
    limbs: ['M66 20 L56 50 L38 70 L18 88', 'M56 50 L78 66 L76 88', 'M12 90 H36 M70 90 H92'],
    props: [FLOOR, WALL, 'M68 28 L104 36'],
    read: ['M18 88 V58', 'M18 66 A22 22 0 0 1 32 74'],
    head: [70, 11],
  },
  'passive-straight': {
    limbs: ['M8 52 H84', 'M84 52 L90 24'],
    props: [COUCH],
    read: ['M84 52 V20', 'M84 34 A18 18 0 0 1 89 35'],
  },
  'passive-bent': {
    limbs: ['M8 54 L44 26 L78 54', 'M78 54 L92 32'],
    props: [COUCH, 'M30 62 A14 14 0 0 1 58 62'],
    read: ['M78 54 L96 40', 'M88 38 A16 16 0 0 1 92 43'],
  },
  'toe-extension': {
    limbs: ['M10 50 H46 L84 62', 'M84 62 L104 36'],
    props: ['M46 72 H84'],
    read: ['M84 62 L112 71', 'M102 68 A18 18 0 0 0 99 46'],
  },
  windlass: {
    limbs: ['M28 8 L30 78', 'M22 88 H26 C38 88 44 70 58 74 L84 88', 'M84 88 L104 66'],
    props: [FLOOR],
    read: ['M84 88 H112', 'M104 88 A20 20 0 0 0 99 75', 'M52 92 V78'],
  },
  'hip-rotation': {
    limbs: ['M8 54 H62', 'M62 54 L86 14'],
    props: [COUCH],
    read: ['M62 54 V12', 'M62 28 A26 26 0 0 1 76 32'],
    head: [8, 48],
  },
  'standing-relaxed': {
    limbs: ['M52 20 V52 L48 88', 'M68 20 V52 L72 88', 'M52 20 H68', 'M42 90 H52 M68 90 H78'],
    props: [FLOOR],
    read: [],
    head: [60, 11],
  },
  'from-behind': {
    limbs: [FROM_BEHIND, 'M76 8 L80 52 C76 60 78 80 88 82 C98 78 96 60 92 52 L96 8'],
    props: [FLOOR],
    read: ['M34 10 V50 L32 82', 'M86 10 V50 L89 82'],
  },
  'from-front': {
    limbs: ['M40 8 L42 66 C34 76 32 88 44 90 C56 90 58 78 52 66 L58 8'],
    props: [FLOOR],
    read: ['M49 8 L47 92'],
  },
  'from-above': {
    limbs: [
      'M50 92 C40 92 38 80 42 66 C44 50 38 40 44 24 C50 14 66 14 68 28 C70 46 66 60 64 76 C64 88 58 92 50 92',
    ],
    props: ['M52 98 V4'],
    read: ['M52 88 L60 16'],
  },
  navicular: {
    limbs: ['M24 8 L28 70', 'M18 90 H24 C36 90 42 76 56 78 L84 88 H104'],
    props: [FLOOR],
    read: ['M46 90 V76', 'M42 76 H50'],
  },
  'arch-height': {
    limbs: ['M24 8 L28 62', 'M18 90 H24 C36 88 44 78 56 80 L84 90 H104', 'M28 62 C48 56 62 66 104 86'],
    props: [FLOOR],
    read: ['M52 92 V62', 'M16 97 H86', 'M16 94 V100 M86 94 V100'],
  },
  'figure-eight': {
    limbs: ['M30 8 L34 60', 'M24 88 C24 72 30 62 40 62 C60 64 84 78 104 88 Z'],
    props: [],
    read: ['M30 64 C52 60 70 96 54 92 C40 88 30 76 46 58'],
  },
  'calf-girth': {
    limbs: ['M44 6 C40 30 44 60 50 90', 'M72 6 C80 34 70 60 64 90'],
    props: [],
    read: ['M42 40 C54 46 66 46 75 40', 'M86 10 V40', 'M82 10 H90 M82 40 H90'],
  },
  'heel-raise': {
    limbs: ['M52 14 V46 L54 70 L48 80', 'M48 80 L70 90', 'M54 46 L66 62 L54 70'],
    props: [FLOOR, WALL, 'M54 24 L104 34'],
    read: ['M44 92 V80', 'M40 80 H50'],
    head: [52, 7],
  },
  'toe-press': { ...SEATED, read: ['M78 94 V70', 'M74 76 L78 70 L82 76'] },
  seated: { ...SEATED, read: [] },
  'force-gauge': {
    limbs: ['M8 54 H84', 'M84 54 V24'],
    props: [COUCH],
    read: ['M90 30 H112', 'M94 26 L90 30 L94 34', 'M108 22 H114 V38 H108 Z'],
  },
  squat: {
    limbs: ['M50 18 L40 50 L72 58 L58 86', 'M50 90 H78'],
    props: [FLOOR],
    read: ['M52 94 V99 M64 94 V99 M76 94 V99'],
    head: [54, 9],
  },
  lean: {
    limbs: ['M80 22 L66 54 L52 88', 'M48 90 H72'],
    props: [FLOOR, WALL, 'M52 88 V20'],
    read: ['M52 30 H76', 'M72 26 L76 30 L72 34'],
    head: [85, 13],
  },
  'one-leg': {
    limbs: ['M56 20 V52 L56 88', 'M56 52 L74 64 L60 76', 'M50 90 H72', 'M56 26 L46 38 L54 46'],
    props: [FLOOR, 'M18 50 H34 M22 50 V92 M30 50 V92'],
    read: [],
    head: [56, 11],
  },
  reach: {
    limbs: ['M50 20 L46 50 L58 64 L50 88', 'M46 50 L76 68 L98 86', 'M44 90 H66'],
    props: [FLOOR],
    read: ['M52 96 H98', 'M94 92 L98 96 L94 100'],
    head: [54, 11],
  },
  chair: { ...SEATED, read: ['M84 40 V14', 'M80 20 L84 14 L88 20'] },
};

/** The drawn position of a measure, for the steps beside it. */
export function Setup({ name, label }: { name: string; label: string }) {
  const drawing = SETUPS[name];
  if (drawing === undefined) return null;
  return (
    <svg
      viewBox="0 0 120 102"
      className="h-24 w-28 shrink-0"
      role="img"
      aria-label={say('Set-up: {{label}}', { label })}
    >
      {drawing.props.map((d) => (
        <path key={d} d={d} fill="none" stroke="var(--color-ink-3)" strokeWidth="1.5" />
      ))}
      {drawing.limbs.map((d) => (
        <path
          key={d}
          d={d}
          fill="none"
          stroke="var(--color-ink)"
          strokeWidth="5"
          strokeLinecap="round"
          strokeLinejoin="round"
          opacity="0.82"
        />
      ))}
      {drawing.head !== undefined && (
        <circle cx={drawing.head[0]} cy={drawing.head[1]} r="7" fill="var(--color-ink)" opacity="0.82" />
      )}
      {drawing.read.map((d) => (
        <path
          key={d}
          d={d}
          fill="none"
          stroke="var(--color-heather)"
          strokeWidth="2.5"
          strokeLinecap="round"
        />
      ))}
    </svg>
  );
}
