// npm run samples: draws the made-up sample pictures of the photo tool, each with a known value.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { ROOT } from './lib/paths.mjs';

const W = 900;
const H = 1200;
const SKIN = '#d9a98b';
const SHADE = '#c18f72';
const GROUND = '#e9e4d8';
const rad = (deg) => (deg * Math.PI) / 180;
/** A point at a distance from another; 0 degrees is down the picture, positive turns clockwise as seen. */
const from = (p, deg, length) => ({
  x: p.x - Math.sin(rad(deg)) * length,
  y: p.y + Math.cos(rad(deg)) * length,
});
const thick = (a, b, width, colour = SKIN) =>
  `<line x1="${a.x}" y1="${a.y}" x2="${b.x}" y2="${b.y}" stroke="${colour}" stroke-width="${width}" stroke-linecap="round"/>`;
const dot = (p, r = 6) => `<circle cx="${p.x}" cy="${p.y}" r="${r}" fill="#3d3025"/>`;
const frame = (body) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${W}" height="${H}"><rect width="${W}" height="${H}" fill="${GROUND}"/>${body}</svg>`;
const marks = (landmarks) =>
  Object.values(landmarks)
    .map((p) => dot(p))
    .join('');

/** From behind: the leg straight down, the heel turned outward by the angle (left foot, outward is to the left). */
function heel(side, deg) {
  const outward = side === 'left' ? 1 : -1;
  const upper = { x: 450, y: 150 };
  const lower = { x: 450, y: 700 };
  const heelUpper = { x: 450, y: 780 };
  const heelLower = from(heelUpper, outward * deg, 240);
  const landmarks = {
    'shin-upper': upper,
    'shin-lower': lower,
    'heel-upper': heelUpper,
    'heel-lower': heelLower,
  };
  return {
    landmarks,
    body:
      thick({ x: 450, y: 40 }, lower, 210) +
      thick(lower, heelUpper, 130) +
      thick(heelUpper, heelLower, 150, SHADE) +
      `<rect y="1090" width="${W}" height="110" fill="#cfc7b4"/>` +
      marks(landmarks),
  };
}

/** From above, toes up the picture: the big toe leans toward the small toes by the angle. */
function hallux(side, deg) {
  const inner = side === 'left' ? 1 : -1;
  const base = { x: 450 + inner * 90, y: 760 };
  const head = from(base, 180, 330);
  const toe = from(head, 180 - inner * deg, 190);
  const landmarks = { base, head, toe };
  const lesser = [0, 1, 2, 3].map((i) => {
    const root = { x: head.x - inner * (85 + i * 62), y: head.y + 20 + i * 28 };
    return thick(root, from(root, 180, 150 - i * 16), 52 - i * 3);
  });
  return {
    landmarks,
    body:
      `<path d="M${base.x - inner * 240} 1080 Q${base.x - inner * 80} 1160 ${base.x + inner * 40} 1040 L${head.x + inner * 55} ${head.y} L${head.x - inner * 320} ${head.y + 110} Z" fill="${SKIN}"/>` +
      lesser.join('') +
      thick(head, toe, 84) +
      `<circle cx="${head.x + inner * 30}" cy="${head.y}" r="58" fill="${SHADE}"/>` +
      marks(landmarks),
  };
}

/** From above: the foot turned out from the line of walking by the angle. */
function toeOut(side, deg) {
  const out = side === 'left' ? -1 : 1;
  const back = { x: 450, y: 1120 };
  const front = { x: 450, y: 120 };
  const heelPoint = { x: 450 + out * 20, y: 960 };
  const second = from(heelPoint, 180 + out * deg, 640);
  const landmarks = { 'line-back': back, 'line-front': front, heel: heelPoint, 'second-toe': second };
  return {
    landmarks,
    body:
      `<line x1="450" y1="1180" x2="450" y2="40" stroke="#8a8272" stroke-width="5" stroke-dasharray="22 16"/>` +
      thick(heelPoint, from(heelPoint, 180 + out * deg, 420), 190) +
      thick(from(heelPoint, 180 + out * deg, 380), second, 250) +
      marks(landmarks),
  };
}

/** From the inner side: a low arch with the navicular at a known height beside a standing ruler of 100 mm. */
function navicular(mm) {
  const px = 5;
  const floor = 1000;
  const mark = { x: 430, y: floor - mm * px };
  const landmarks = {
    'ruler-a': { x: 790, y: floor },
    'ruler-b': { x: 790, y: floor - 100 * px },
    navicular: mark,
    'floor-a': { x: 80, y: floor },
    'floor-b': { x: 720, y: floor },
  };
  const ticks = Array.from(
    { length: 11 },
    (_, i) =>
      `<line x1="770" x2="${i % 5 === 0 ? 830 : 800}" y1="${floor - i * 10 * px}" y2="${floor - i * 10 * px}" stroke="#3d3025" stroke-width="3"/>`,
  );
  return {
    landmarks,
    body:
      `<path d="M120 ${floor} C60 ${floor} 60 860 130 800 L150 200 L340 200 L350 660 C440 720 620 860 690 940 C720 980 700 ${floor} 660 ${floor} L520 ${floor} Q400 ${floor - 90} 300 ${floor} Z" fill="${SKIN}"/><rect x="760" y="${floor - 110 * px}" width="90" height="${110 * px}" fill="#f7f0d6" stroke="#3d3025"/>` +
      ticks.join('') +
      `<rect y="${floor}" width="${W}" height="${H - floor}" fill="#cfc7b4"/>` +
      marks(landmarks),
  };
}

/** From in front: the line down the shin lands on the first toe of a right foot. */
function shinLine(side) {
  const out = side === 'left' ? 1 : -1;
  const upper = { x: 450, y: 120 };
  const lower = { x: 440, y: 720 };
  const inner = { x: 450 - out * 70, y: 1050 };
  const gap = { x: 450 + out * 60, y: 1060 };
  const landmarks = { 'shin-upper': upper, 'shin-lower': lower, 'inner-border': inner, 'second-third': gap };
  return {
    landmarks,
    body:
      thick({ x: 450, y: 20 }, lower, 190) +
      thick(lower, { x: 450, y: 960 }, 150) +
      [0, 1, 2, 3, 4]
        .map(
          (i) =>
            `<ellipse cx="${450 + out * (-32 + i * 62)}" cy="${1050 + i * 4}" rx="${i === 0 ? 40 : 27}" ry="46" fill="${i % 2 ? SHADE : SKIN}"/>`,
        )
        .join('') +
      marks(landmarks),
  };
}

const SAMPLES = [
  {
    file: 'heel.png',
    label: 'Heel turned out, left',
    construction: 'heel-to-shin',
    side: 'left',
    truth: 11,
    rulerMm: null,
    ...heel('left', 11),
  },
  {
    file: 'hallux.png',
    label: 'Leaning big toe, right',
    construction: 'hallux-angle',
    side: 'right',
    truth: 27,
    rulerMm: null,
    ...hallux('right', 27),
  },
  {
    file: 'toe-out.png',
    label: 'Toed out, left',
    construction: 'toe-out',
    side: 'left',
    truth: 19,
    rulerMm: null,
    ...toeOut('left', 19),
  },
  {
    file: 'navicular.png',
    label: 'Low navicular with ruler, left',
    construction: 'navicular-height',
    side: 'left',
    truth: 34,
    rulerMm: 100,
    ...navicular(34),
  },
  {
    file: 'shin-line.png',
    label: 'Shin line on the first toe, right',
    construction: 'shin-line',
    side: 'right',
    truth: 0,
    rulerMm: null,
    ...shinLine('right'),
  },
];

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu'],
});
const page = await browser.newPage({ viewport: { width: W, height: H } });
for (const { file, body } of SAMPLES) {
  await page.setContent(`<style>body{margin:0}</style>${frame(body)}`);
  await page.screenshot({ path: join(ROOT, 'apps/web/public/samples', file) });
}
await browser.close();
const round = (p) => ({ x: Number(p.x.toFixed(2)), y: Number(p.y.toFixed(2)) });
const list = SAMPLES.map(({ body: _body, landmarks, ...rest }) => ({
  ...rest,
  landmarks: Object.fromEntries(Object.entries(landmarks).map(([k, p]) => [k, round(p)])),
}));
writeFileSync(
  join(ROOT, 'apps/web/src/places/visit/photo/samples.json'),
  `${JSON.stringify(list, null, 2)}\n`,
);
