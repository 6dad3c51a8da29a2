import { say } from '@heathstep/core';

/** An area of our own drawn left foot, as its owner looks down or seen from the side named; the right one is the mirror. */
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
  /** As long as it is high. */
  readonly fromTheSide?: boolean;
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

/** From the webs between the toes outwards. */
const TOES_AREA =
  'M16 76 C26 68 33 64 39 59 C42 61 49 62 54 57 C58 59 65 60 70 55 C75 58 83 60 91 55 C100 61 114 62 126 58 V6 H4 V76 Z';
const HEEL_BACK = 'M29 303 H83 C82 320 70 330 56 330 C42 330 30 320 29 303 Z';
/** The leg, cut where it rises from the foot. */
const TOP_LINES: readonly string[] = [
  'M28 244 C28 218 40 208 58 208 C74 208 88 218 88 244 C88 266 76 276 58 276 C40 276 28 266 28 244 Z',
];

/** Sides of a left foot with the ankle and the lower shin: the toes point to the left on its outer, to the right on its inner side. */
const OUTER =
  'M132 6 C134 50 130 100 134 130 C138 150 152 160 155 186 C157 210 152 228 138 231 C126 233 116 231 104 230 C80 230 56 233 30 232 C14 231 6 224 9 215 C12 207 24 203 36 198 C52 191 64 184 74 172 C86 157 89 122 86 74 C84 46 84 26 85 6 Z';
/** The outer ankle bone, the toes, the edge of the Achilles tendon, the base of the fifth metatarsal. */
const OUTER_LINES: readonly string[] = [
  'M108 132 C106 148 107 166 117 172 C128 170 130 150 126 134',
  'M20 226 C20 219 25 214 32 213 M34 227 C34 220 39 215 46 214 M119 40 C121 80 119 110 131 142',
  'M72 222 C80 210 92 210 100 220',
];
const INNER =
  'M58 6 C56 50 60 100 56 130 C52 150 38 160 35 186 C33 210 38 228 52 231 C62 233 70 231 78 227 C92 219 108 219 122 226 C134 231 146 233 160 232 C178 231 184 222 180 212 C176 205 162 202 150 195 C134 186 124 180 115 168 C104 154 101 122 104 74 C106 46 106 26 105 6 Z';
/** The inner ankle bone, the big toe, the navicular, the edge of the Achilles tendon. */
const INNER_LINES: readonly string[] = [
  'M86 122 C90 136 90 156 81 162 C70 162 66 144 69 124',
  'M170 225 C168 217 160 214 150 216',
  'M112 190 C108 182 98 182 94 190',
  'M71 40 C69 80 71 106 59 142',
];
/** Seen from in front: the inner side is on the left. */
const FRONT =
  'M30 6 C22 34 20 58 26 84 C31 110 42 130 43 154 C43 164 36 168 36 178 C37 190 34 200 27 212 C20 224 15 238 22 247 C30 254 42 252 47 246 C52 252 60 251 63 245 C68 250 75 248 77 242 C82 246 88 243 89 237 C95 239 99 233 98 226 C95 212 82 204 80 194 C83 186 79 174 73 162 C72 140 82 116 88 88 C93 60 90 30 84 6 Z';
/** The edge of the shin bone, the toes, the ankle bones. */
const FRONT_LINES: readonly string[] = [
  'M56 14 C50 56 52 108 58 148',
  'M47 246 C47 239 45 233 43 229 M63 245 C63 239 61 234 59 230 M77 242 C77 237 75 232 73 229 M89 237 C88 233 87 230 85 227',
  'M38 172 C44 172 47 178 45 186 M78 180 C72 182 70 188 73 194',
];
/** Seen from behind: the inner side is on the right. */
const BACK =
  'M22 6 C14 32 10 56 18 84 C25 110 38 128 40 152 C41 168 33 178 33 192 C34 202 39 204 36 216 C30 234 36 252 56 253 C77 252 83 234 77 214 C74 204 80 196 79 184 C78 172 71 164 72 150 C74 130 92 116 98 84 C102 58 97 30 90 6 Z';
/** The two heads of the calf and the Achilles tendon. */
const BACK_LINES: readonly string[] = [
  'M24 84 C32 100 48 100 55 82 C60 106 82 110 91 92',
  'M48 128 C52 150 51 178 46 206 M65 128 C61 150 62 178 67 206',
];

export const VIEWS: readonly MapView[] = [
  {
    key: 'sole',
    label: say('Sole'),
    box: SOLE_BOX,
    outline: [...SOLE_OUTLINE, HEEL_BACK],
    regions: [
      {
        key: 'forefoot',
        name: say('ball of the foot'),
        shape:
          'M16 76 C26 68 33 64 39 59 C42 61 49 62 54 57 C58 59 65 60 70 55 C75 58 83 60 91 55 C100 61 114 62 126 58 V106 C110 114 88 113 64 117 C44 120 26 124 8 134 V76 Z',
      },
      {
        key: 'midfoot-outer',
        name: say('outer border'),
        shape:
          'M8 134 C26 124 44 120 64 117 C50 144 50 184 57 205 C54 205 50 205 45 206 C34 207 20 212 8 222 Z',
      },
      {
        key: 'arch',
        name: say('arch'),
        shape:
          'M64 117 C82 114 98.875 113.81 112.94 110.53 L104 150 V218 C92 210 80 206 67 205.5 C64 205 61 205 57 205 C50 184 50 144 64 117 Z',
      },
      {
        key: 'heel-inner',
        name: say('inner heel'),
        shape: 'M67 205.5 C80 206 92 210 104 218 V300 H65 C72 274 72 236 67 205.5 Z',
      },
      {
        key: 'heel-centre',
        name: say('centre of the heel'),
        shape:
          'M67 205.5 C72 236 72 274 65 300 H48 C42 274 42 236 45 206 C50 205 54 205 57 205 C61 205 64 205 67 205.5 Z',
      },
      {
        key: 'heel-outer',
        name: say('outer heel'),
        shape: 'M45 206 C42 236 42 274 48 300 H8 V222 C20 212 34 207 45 206 Z',
      },
      { key: 'toes', name: say('toes'), shape: TOES_AREA },
      { key: 'heel-back', name: say('back of the heel'), shape: HEEL_BACK },
    ],
  },
  {
    key: 'top',
    label: say('Top'),
    box: SOLE_BOX,
    outline: SOLE_OUTLINE,
    lines: TOP_LINES,
    regions: [
      {
        key: 'top-forefoot-inner',
        name: say('big toe joint'),
        shape: 'M91 55 C100 61 114 62 126 58 V108 C110 112 96 108 88 98 C82 86 84 67 91 55 Z',
      },
      {
        key: 'top-forefoot',
        name: say('top of the forefoot'),
        shape:
          'M16 76 C26 68 33 64 39 59 C42 61 49 62 54 57 C58 59 65 60 70 55 C75 58 83 60 91 55 C84 67 82 86 88 98 C96 108 110 112 126 108 V118 C96 116 66 124 40 134 C28 138 16 142 8 146 V76 Z',
      },
      {
        key: 'top-midfoot',
        name: say('top of the midfoot'),
        shape: 'M8 146 C16 142 28 138 40 134 C66 124 96 116 126 118 V196 C100 186 40 186 8 200 Z',
      },
      {
        key: 'ankle-front',
        name: say('front of the ankle'),
        shape: 'M8 200 C40 186 100 186 126 196 V222 H84 C78 212 68 208 58 208 C46 208 36 212 31 222 H8 Z',
      },
      { key: 'toe-tops', name: say('tops of the toes'), shape: TOES_AREA },
    ],
  },
  {
    key: 'outer',
    label: say('Outer'),
    box: '0 0 190 240',
    fromTheSide: true,
    outline: [OUTER],
    lines: OUTER_LINES,
    regions: [
      {
        key: 'shin-outer',
        name: say('outer shin'),
        shape: 'M70 0 H114 C115 40 116 64 117 88 C108 94 94 94 70 90 Z',
      },
      {
        key: 'achilles-outer',
        name: say('Achilles tendon'),
        shape:
          'M114 0 H136 V132 L144 150 C138 146 132 140 126 130 C120 122 118 114 118 104 C118 98 117 93 117 88 C116 64 115 40 114 0 Z',
      },
      {
        key: 'above-ankle-line',
        name: say('above the ankle line, in front'),
        shape:
          'M70 90 C94 94 108 94 117 88 C117 93 118 98 118 104 C118 114 120 122 126 130 C120 134 114 136 106 136 C97 139 86 140 76 137 L70 136 Z',
      },
      {
        key: 'ankle-outer-front',
        name: say('in front of the outer ankle bone'),
        shape:
          'M76 137 C86 140 97 139 106 136 C102 154 100 176 103 196 C92 194 78 194 62 200 L54 186 L66 170 L78 150 L76 137 Z',
      },
      {
        key: 'ankle-outer',
        name: say('outer ankle bone and below'),
        shape:
          'M106 136 C114 136 120 134 126 130 C132 140 138 146 144 150 C142 168 138 184 130 196 C122 200 112 200 103 196 C100 176 102 154 106 136 Z',
      },
      {
        key: 'fifth-base',
        name: say('base of the fifth metatarsal'),
        shape: 'M62 200 C78 194 92 194 103 196 C106 210 106 224 104 240 H58 C60 226 62 212 62 200 Z',
      },
      {
        key: 'outer-forefoot',
        name: say('outer forefoot'),
        shape: 'M0 196 L54 186 L62 200 C62 212 60 226 58 240 H0 Z',
      },
      {
        key: 'heel-side-outer',
        name: say('outer side of the heel'),
        shape:
          'M103 196 C112 200 122 200 130 196 C138 184 142 168 144 150 L150 152 H190 V240 H104 C106 224 106 210 103 196 Z',
      },
    ],
  },
  {
    key: 'inner',
    label: say('Inner'),
    box: '0 0 190 240',
    fromTheSide: true,
    outline: [INNER],
    lines: INNER_LINES,
    regions: [
      {
        key: 'shin-inner',
        name: say('inner shin'),
        shape: 'M120 0 L76 0 C75 40 73 84 72 104 C82 112 96 114 120 110 Z',
      },
      {
        key: 'achilles-inner',
        name: say('Achilles tendon, inner side'),
        shape: 'M76 0 L54 0 L54 132 L44 151 C52 147 59 140 65 129 C69 122 72 114 72 104 C73 84 75 40 76 0 Z',
      },
      {
        key: 'ankle-inner',
        name: say('inner ankle bone'),
        shape:
          'M120 110 C96 114 82 112 72 104 C72 114 69 122 65 129 C64 144 66 158 74 167 C82 171 90 170 97 166 C102 150 110 140 124 138 Z',
      },
      {
        key: 'behind-inner-ankle',
        name: say('behind and below the inner ankle bone'),
        shape:
          'M65 129 C59 140 52 147 44 151 C44 176 50 196 64 206 C74 208 84 206 92 202 C93 190 94 178 97 166 C90 170 82 171 74 167 C66 158 64 144 65 129 Z',
      },
      {
        key: 'navicular',
        name: say('navicular'),
        shape:
          'M124 138 C110 140 102 150 97 166 C94 178 93 190 92 202 C104 200 116 200 128 204 L136 184 L124 170 L114 150 Z',
      },
      {
        key: 'inner-forefoot',
        name: say('inner forefoot'),
        shape: 'M190 190 L136 184 L128 204 C128 216 130 228 132 240 L190 240 Z',
      },
      {
        key: 'arch-inner',
        name: say('inner arch'),
        shape:
          'M128 204 C116 200 104 200 92 202 C84 206 74 208 64 206 C67 214 69 222 71 231 L131 231 C129.5 222 128 213 128 204 Z',
      },
      {
        key: 'heel-side-inner',
        name: say('inner side of the heel'),
        shape: 'M64 206 C50 196 44 176 44 151 L40 152 L0 152 L0 240 L74 240 C70 230 68 218 64 206 Z',
      },
    ],
  },
  {
    key: 'front',
    label: say('Front'),
    box: '0 0 116 258',
    outline: [FRONT],
    lines: FRONT_LINES,
    regions: [
      {
        key: 'shin-front-upper',
        name: say('front of the shin, upper'),
        shape: 'M0 0 H116 V80 C92 90 44 90 0 80 Z',
      },
      {
        key: 'shin-front-lower',
        name: say('front of the shin, lower'),
        shape: 'M0 80 C44 90 92 90 116 80 V152 C92 162 44 162 0 152 Z',
      },
      {
        key: 'ankle-front',
        name: say('front of the ankle'),
        shape: 'M0 152 C44 162 92 162 116 152 V196 C92 204 44 206 0 194 Z',
      },
      {
        key: 'top-midfoot',
        name: say('top of the midfoot'),
        shape: 'M0 194 C44 206 92 204 116 196 V222 C92 224 60 224 44 228 C36 230 20 230 0 224 Z',
      },
      {
        key: 'toe-tops',
        name: say('tops of the toes'),
        shape: 'M0 224 C20 230 36 230 44 228 C60 224 92 224 116 222 V258 H0 Z',
      },
    ],
  },
  {
    key: 'back',
    label: say('Back'),
    box: '0 0 112 258',
    outline: [BACK],
    lines: BACK_LINES,
    regions: [
      { key: 'calf', name: say('calf'), shape: 'M0 0 H112 V92 C100 106 62 112 55 86 C48 104 24 104 0 84 Z' },
      {
        key: 'calf-lower',
        name: say('lower calf'),
        shape: 'M0 84 C24 104 48 104 55 86 C62 112 100 106 112 92 V138 C80 146 32 146 0 138 Z',
      },
      {
        key: 'achilles',
        name: say('Achilles tendon, 2 to 6 cm up'),
        shape: 'M0 138 C32 146 80 146 112 138 V196 C80 184 32 184 0 196 Z',
      },
      { key: 'heel-back', name: say('back of the heel'), shape: 'M0 196 C32 184 80 184 112 196 V258 H0 Z' },
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
  'middle-heads': 'M43 76 C54 68 70 65 83 70 C79 82 80 94 85 103 C70 102 57 106 44 110 C43 98 44 86 43 76 Z',
  'fifth-head': ellipse(29, 92, 13, 18),
  'outer-border': 'M18 122 C28 120 38 121 46 124 C42 150 42 180 47 204 C40 208 30 209 22 206 Z',
  heel: ellipse(56, 254, 28, 32),
};

/** A shoe's outsole and where it wears. */
export const SHOE =
  'M56 300 C30 300 18 276 20 244 C22 212 30 200 24 168 C16 130 6 108 10 74 C14 36 44 10 76 12 C108 14 122 44 118 84 C114 124 92 150 90 184 C88 212 96 222 94 250 C92 282 82 300 56 300 Z';
export const WEAR_SHAPES: Readonly<Record<string, string>> = {
  'heel-out': 'M8 224 C24 213 40 210 56 210 C52 240 52 272 56 304 H8 Z',
  'heel-in': 'M56 210 C72 210 88 213 106 224 V304 H56 C52 272 52 240 56 210 Z',
  'forefoot-in': 'M64 62 C86 62 108 60 130 52 V142 C108 134 82 131 58 132 C56 108 58 84 64 62 Z',
  'forefoot-out': 'M0 52 C22 60 44 62 64 62 C58 84 56 108 58 132 C40 133 22 138 0 150 Z',
  toe: 'M0 0 H130 V52 C108 60 86 62 64 62 C44 62 22 60 0 52 Z',
};

const NAMES = new Map(VIEWS.flatMap((v) => v.regions.map((r) => [r.key, r.name] as const)));

export const regionName = (key: string): string => NAMES.get(key) ?? key;

/** Of a place as it is kept, `side:region`. */
export function placeName(place: string): string {
  const [side = '', region = ''] = place.split(':');
  return `${regionName(region)}, ${say(side)}`;
}

/** The view a region is drawn on; the sole where it is on none. */
export const viewOf = (region: string): string =>
  VIEWS.find((v) => v.regions.some((r) => r.key === region))?.key ?? 'sole';
