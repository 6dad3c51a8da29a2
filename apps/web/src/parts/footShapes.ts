import { say } from '@heathstep/core';
/** Our own drawn left foot, as its owner looks down or seen from the side named; the right one is the mirror. */
interface MapRegion {
  readonly key: string;
  readonly name: string;
  readonly shape: string;
}

export interface MapView {
  readonly key: string;
  readonly label: string;
  readonly box: string;
  readonly outline: readonly string[];
  /** Drawn for the eye only. */
  readonly lines?: readonly string[];
  /** Drawn within the outline. */
  readonly regions: readonly MapRegion[];
}

const SOLE =
  'M56 292 C34 292 22 272 23 246 C24 220 31 196 27 166 C23 138 12 116 14 88 C15 72 20 60 27 54 C30 50 36 50 39 54 C42 46 51 44 55 51 C59 43 69 42 73 50 C78 43 88 45 90 53 C93 34 112 32 116 50 C119 63 112 78 111 92 C109 126 88 152 86 184 C84 210 91 224 90 250 C89 276 78 292 56 292 Z';

const ellipse = (cx: number, cy: number, rx: number, ry: number): string =>
  `M${cx - rx} ${cy} a${rx} ${ry} 0 1 0 ${rx * 2} 0 a${rx} ${ry} 0 1 0 ${-rx * 2} 0 Z`;

const TOE_SHAPES = [
  ellipse(103, 34, 15, 21),
  ellipse(79, 34, 9.5, 13),
  ellipse(61, 38, 8.5, 11.5),
  ellipse(45, 45, 7.5, 10),
  ellipse(31, 54, 7, 9),
];

export const SOLE_BOX = '0 0 130 336';
export const SOLE_OUTLINE: readonly string[] = [SOLE, ...TOE_SHAPES];

const TOES_AREA = 'M8 64 C2 30 40 16 70 14 C104 6 124 18 120 44 C112 56 92 58 88 52 C70 44 40 52 30 66 Z';
const HEEL_BACK = 'M29 303 H83 C82 320 70 330 56 330 C42 330 30 320 29 303 Z';

/** Side of a foot with the ankle and the lower shin, toes to the left. */
const PROFILE =
  'M128 6 C132 60 129 104 133 132 C138 150 152 160 155 186 C157 210 152 228 138 231 C128 233 118 228 106 227 C84 226 56 233 30 232 C12 230 8 218 20 208 C44 194 62 188 76 170 C88 154 90 120 86 70 C84 46 84 26 86 6 Z';
/** The ankle bone, the toes and the sole's edge, so that the drawing is read as a foot. */
const PROFILE_LINES: readonly string[] = [
  'M106 158 a11 13 0 1 0 22 0 a11 13 0 1 0 -22 0',
  'M22 214 C34 208 40 214 42 226 M40 202 C50 202 54 212 56 226',
];
const BACK =
  'M28 6 C18 60 26 110 40 150 C44 176 40 196 34 214 C30 236 40 250 56 250 C72 250 82 236 78 214 C72 196 68 176 72 150 C88 110 94 60 84 6 Z';
const FRONT =
  'M30 6 C24 60 32 120 42 160 C40 184 22 206 18 228 C16 246 40 252 58 252 C80 252 100 246 96 226 C92 204 74 184 72 160 C82 120 88 60 82 6 Z';

export const VIEWS: readonly MapView[] = [
  {
    key: 'sole',
    label: say('Sole'),
    box: SOLE_BOX,
    outline: [...SOLE_OUTLINE, HEEL_BACK],
    regions: [
      { key: 'forefoot', name: say('ball of the foot'), shape: 'M10 58 H119 V112 H10 Z' },
      { key: 'midfoot-outer', name: 'outer border', shape: 'M14 112 H58 V214 H14 Z' },
      { key: 'arch', name: 'arch', shape: 'M58 112 H104 V214 H58 Z' },
      { key: 'heel-inner', name: say('inner heel'), shape: 'M66 214 H94 V293 H66 Z' },
      { key: 'heel-centre', name: say('centre of the heel'), shape: 'M46 214 H66 V294 H46 Z' },
      { key: 'heel-outer', name: say('outer heel'), shape: 'M20 214 H46 V293 H20 Z' },
      { key: 'toes', name: 'toes', shape: TOES_AREA },
      { key: 'heel-back', name: say('back of the heel'), shape: HEEL_BACK },
    ],
  },
  {
    key: 'top',
    label: say('Top'),
    box: SOLE_BOX,
    outline: SOLE_OUTLINE,
    regions: [
      { key: 'top-forefoot-inner', name: say('big toe joint'), shape: 'M84 50 H124 V100 H84 Z' },
      { key: 'top-forefoot', name: say('top of the forefoot'), shape: 'M10 56 H84 V118 H10 Z' },
      { key: 'top-midfoot', name: say('top of the midfoot'), shape: 'M14 118 H114 V190 H14 Z' },
      { key: 'ankle-front', name: say('front of the ankle'), shape: 'M14 190 H100 V240 H14 Z' },
      { key: 'toe-tops', name: say('tops of the toes'), shape: TOES_AREA },
    ],
  },
  {
    key: 'outer',
    label: say('Outer'),
    box: '0 0 190 240',
    outline: [PROFILE],
    lines: PROFILE_LINES,
    regions: [
      { key: 'shin-outer', name: say('outer shin'), shape: 'M80 0 H114 V108 H80 Z' },
      { key: 'achilles-outer', name: say('Achilles tendon'), shape: 'M114 0 H138 V138 H114 Z' },
      {
        key: 'above-ankle-line',
        name: say('above the ankle line, in front'),
        shape: 'M78 108 H114 V138 H78 Z',
      },
      {
        key: 'ankle-outer-front',
        name: say('in front of the outer ankle bone'),
        shape: 'M78 138 H112 V196 H78 Z',
      },
      { key: 'ankle-outer', name: say('outer ankle bone and below'), shape: 'M112 138 H138 V196 H112 Z' },
      { key: 'fifth-base', name: say('base of the fifth metatarsal'), shape: 'M64 196 H100 V236 H64 Z' },
      { key: 'outer-forefoot', name: say('outer forefoot'), shape: 'M0 184 H64 V236 H0 Z' },
      {
        key: 'heel-side-outer',
        name: say('outer side of the heel'),
        shape: 'M138 138 H190 V240 H100 V196 H138 Z',
      },
    ],
  },
  {
    key: 'inner',
    label: say('Inner'),
    box: '0 0 190 240',
    outline: [PROFILE],
    lines: PROFILE_LINES,
    regions: [
      { key: 'shin-inner', name: say('inner shin'), shape: 'M80 0 H114 V116 H80 Z' },
      { key: 'achilles-inner', name: say('Achilles tendon, inner side'), shape: 'M114 0 H138 V116 H114 Z' },
      { key: 'ankle-inner', name: say('inner ankle bone'), shape: 'M92 116 H138 V166 H92 Z' },
      {
        key: 'behind-inner-ankle',
        name: say('behind and below the inner ankle bone'),
        shape: 'M100 166 H144 V204 H100 Z',
      },
      { key: 'navicular', name: 'navicular', shape: 'M66 146 H100 V204 H66 Z' },
      { key: 'inner-forefoot', name: say('inner forefoot'), shape: 'M0 190 H60 V236 H0 Z' },
      { key: 'arch-inner', name: say('inner arch'), shape: 'M60 204 H110 V240 H60 Z' },
      {
        key: 'heel-side-inner',
        name: say('inner side of the heel'),
        shape: 'M144 140 H190 V240 H110 V204 H144 Z',
      },
    ],
  },
  {
    key: 'front',
    label: say('Front'),
    box: '0 0 116 258',
    outline: [FRONT],
    regions: [
      { key: 'shin-front-upper', name: say('front of the shin, upper'), shape: 'M20 0 H100 V84 H20 Z' },
      { key: 'shin-front-lower', name: say('front of the shin, lower'), shape: 'M20 84 H100 V156 H20 Z' },
      { key: 'ankle-front', name: say('front of the ankle'), shape: 'M10 156 H110 V190 H10 Z' },
      { key: 'top-midfoot', name: say('top of the midfoot'), shape: 'M10 190 H110 V258 H10 Z' },
    ],
  },
  {
    key: 'back',
    label: say('Back'),
    box: '0 0 112 258',
    outline: [BACK],
    regions: [
      { key: 'calf', name: 'calf', shape: 'M10 0 H104 V100 H10 Z' },
      { key: 'calf-lower', name: say('lower calf'), shape: 'M10 100 H104 V142 H10 Z' },
      { key: 'achilles', name: say('Achilles tendon, 2 to 6 cm up'), shape: 'M10 142 H104 V192 H10 Z' },
      { key: 'heel-back', name: say('back of the heel'), shape: 'M10 192 H104 V258 H10 Z' },
    ],
  },
];

/** Where the support points and the sites of feeling lie on the sole. */
export const SOLE_SPOTS: Readonly<Record<string, readonly [x: number, y: number]>> = {
  first: [95, 90],
  fifth: [33, 102],
  heel: [57, 258],
  'big-toe': [103, 32],
  'third-toe': [61, 37],
  'fifth-toe': [31, 54],
  'first-head': [98, 82],
  'third-head': [63, 84],
  'fifth-head': [30, 94],
  'inner-arch': [78, 160],
  'outer-border': [40, 178],
  dorsum: [62, 124],
};

export const CALLUS_SHAPES: Readonly<Record<string, string>> = {
  'big-toe': ellipse(103, 34, 13, 18),
  'small-toes': 'M22 58 C26 40 52 26 90 24 L90 48 C60 46 40 52 30 62 Z',
  'first-head': ellipse(98, 84, 16, 20),
  'middle-heads': 'M42 66 H82 V104 H42 Z',
  'fifth-head': ellipse(29, 92, 13, 18),
  'outer-border': 'M24 118 H46 V206 H28 Z',
  heel: ellipse(56, 254, 28, 32),
};

/** A shoe's outsole and where it wears. */
export const SHOE =
  'M56 300 C30 300 18 276 20 244 C22 212 30 200 24 168 C16 130 6 108 10 74 C14 36 44 10 76 12 C108 14 122 44 118 84 C114 124 92 150 90 184 C88 212 96 222 94 250 C92 282 82 300 56 300 Z';
export const WEAR_SHAPES: Readonly<Record<string, string>> = {
  'heel-out': 'M14 226 H56 V302 H14 Z',
  'heel-in': 'M56 226 H98 V302 H56 Z',
  'forefoot-in': 'M64 54 H122 V130 H64 Z',
  'forefoot-out': 'M4 54 H64 V130 H4 Z',
  toe: 'M20 8 H118 V54 H20 Z',
};

const NAMES = new Map(VIEWS.flatMap((v) => v.regions.map((r) => [r.key, r.name] as const)));

export const regionName = (key: string): string => NAMES.get(key) ?? key;

/** The view a region is drawn on; the sole where it is on none. */
export const viewOf = (region: string): string =>
  VIEWS.find((v) => v.regions.some((r) => r.key === region))?.key ?? 'sole';
