// npm run samples: draws the made-up sample pictures of the photo tool, each with a known value, and the walker of the sign-in.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { findChromium } from './lib/chromium.mjs';
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
const LINE = '#a97a60';
const NAIL = '#ecc7b1';
const shape = (d, colour = SKIN) => `<path d="${d}" fill="${colour}"/>`;
const contour = (d, width = 4) =>
  `<path d="${d}" fill="none" stroke="${LINE}" stroke-width="${width}" stroke-linecap="round" opacity="0.55"/>`;
const turned = (at, deg, body) => `<g transform="translate(${at.x} ${at.y}) rotate(${deg})">${body}</g>`;

/** A toe from above in its own place: its root at nothing, its tip `length` up the picture, with its nail. */
const drawnToe = (length, width) => {
  const w = width / 2;
  return (
    shape(
      `M${-w * 0.92} 40 L${-w * 0.86} ${-length * 0.45} C${-w * 1.16} ${-length * 0.7} ${-w * 1.1} ${-length} 0 ${-length} C${w * 1.1} ${-length} ${w * 1.16} ${-length * 0.7} ${w * 0.86} ${-length * 0.45} L${w * 0.92} 40 Z`,
    ) +
    `<rect x="${-w * 0.52}" y="${-length * 0.95}" width="${w * 1.04}" height="${w * 1.05}" rx="${w * 0.4}" fill="${NAIL}"/>` +
    contour(`M${-w * 0.45} ${-length * 0.46} Q0 ${-length * 0.42} ${w * 0.45} ${-length * 0.46}`, 3)
  );
};
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
  const pad =
    shape(
      'M-66 -90 C-74 -20 -104 60 -108 170 C-112 260 -72 306 0 306 C72 306 112 260 108 170 C104 60 74 -20 66 -90 Z',
    ) + contour('M-84 210 C-50 240 50 240 84 210');
  return {
    landmarks,
    body:
      [0, 1, 2]
        .map(
          (i) =>
            `<ellipse cx="${450 - outward * (118 + i * 42)}" cy="${1062 - i * 4}" rx="30" ry="26" fill="${SHADE}"/>`,
        )
        .join('') +
      turned(heelUpper, outward * deg, pad) +
      shape(
        'M318 0 C290 170 300 330 352 480 C378 560 388 620 382 690 C372 720 352 736 352 766 C352 806 390 826 450 826 C510 826 548 806 548 766 C548 736 528 720 518 690 C512 620 522 560 548 480 C600 330 610 170 582 0 Z',
      ) +
      contour('M424 470 C430 600 428 700 432 800') +
      contour('M476 470 C470 600 472 700 468 800') +
      contour(`M${450 - outward * 92} 742 Q${450 - outward * 62} 770 ${450 - outward * 88} 796`) +
      contour(`M${450 + outward * 92} 726 Q${450 + outward * 62} 752 ${450 + outward * 88} 778`) +
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
  const at = (x, y) => `${head.x - inner * x} ${y}`;
  const lesser = [0, 1, 2, 3].map((i) => {
    const root = { x: head.x - inner * (92 + i * 62), y: head.y + 24 + i * 34 };
    return turned(root, -inner * (2 + i * 3), drawnToe(158 - i * 17, 62 - i * 4));
  });
  return {
    landmarks,
    body:
      lesser.reverse().join('') +
      turned(head, -inner * deg, drawnToe(226, 96)) +
      shape(
        `M${at(90, 1140)} C${at(-30, 1140)} ${at(-50, 1010)} ${at(-34, 900)} C${at(-18, 800)} ${at(-30, 700)} ${at(-52, 600)} C${at(-74, 520)} ${at(-86, 470)} ${at(-66, 420)} C${at(-52, 384)} ${at(-12, 376)} ${at(30, 396)} C${at(110, 420)} ${at(220, 468)} ${at(300, 548)} C${at(330, 640)} ${at(318, 760)} ${at(286, 880)} C${at(262, 1000)} ${at(226, 1140)} ${at(90, 1140)} Z`,
      ) +
      shape(
        `M${at(-66, 470)} C${at(-86, 440)} ${at(-74, 400)} ${at(-44, 392)} C${at(-50, 430)} ${at(-50, 450)} ${at(-40, 486)} Z`,
        SHADE,
      ) +
      `<ellipse cx="${head.x - inner * 92}" cy="1000" rx="112" ry="100" fill="${SHADE}" opacity="0.5"/>` +
      [0, 1, 2, 3]
        .map((i) =>
          contour(
            `M${at(60 + i * 22, 900)} C${at(60 + i * 36, 760)} ${at(72 + i * 56, 620)} ${at(92 + i * 62, 500 + i * 34)}`,
            3,
          ),
        )
        .join('') +
      contour(`M${at(40, 900)} C${at(14, 760)} ${at(6, 620)} ${at(4, 470)}`, 3) +
      marks(landmarks),
  };
}

/** A foot from above, its heel at nothing and its second toe's tip 640 up the picture; `inner` is where the big toe is. */
function fromAbove(inner) {
  const at = (x, y) => `${inner * x} ${y}`;
  const toes = [
    [62, -478, 178, 84, -4],
    [0, -496, 144, 54, 0],
    [-54, -478, 134, 50, 4],
    [-102, -448, 118, 47, 8],
    [-144, -408, 104, 46, 13],
  ];
  return (
    toes
      .map(([x, y, length, width, lean]) =>
        turned({ x: inner * x, y }, -inner * lean, drawnToe(length, width)),
      )
      .join('') +
    shape(
      `M${at(0, 96)} C${at(76, 96)} ${at(96, 20)} ${at(88, -70)} C${at(78, -190)} ${at(88, -300)} ${at(112, -400)} C${at(126, -470)} ${at(96, -520)} ${at(40, -514)} C${at(-40, -508)} ${at(-130, -470)} ${at(-174, -402)} C${at(-190, -320)} ${at(-166, -220)} ${at(-132, -120)} C${at(-112, -30)} ${at(-96, 96)} ${at(0, 96)} Z`,
    ) +
    `<ellipse cx="0" cy="-40" rx="88" ry="84" fill="${SHADE}" opacity="0.5"/>` +
    toes
      .map(([x, y]) =>
        contour(`M${at(x * 0.3, -130)} C${at(x * 0.5, -250)} ${at(x * 0.8, -360)} ${at(x, y + 20)}`, 3),
      )
      .join('')
  );
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
      turned(heelPoint, out * deg, fromAbove(-out)) +
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
      shape(
        `M172 60 C182 330 190 520 168 690 C150 764 92 806 82 900 C76 966 100 ${floor} 158 ${floor} L312 ${floor} C390 972 470 962 556 988 C592 ${floor} 640 ${floor} 676 ${floor - 2} C734 ${floor - 4} 752 962 728 930 C700 904 640 884 570 838 C486 782 402 740 376 640 C362 520 366 300 372 60 Z`,
      ) +
      shape(`M318 ${floor} C392 974 470 964 552 988 C470 980 400 984 318 ${floor} Z`, SHADE) +
      `<ellipse cx="286" cy="742" rx="40" ry="46" fill="${SHADE}" opacity="0.55"/>` +
      contour(`M200 470 C204 590 190 690 160 780`) +
      contour(`M596 962 C640 948 690 944 728 946`) +
      contour(`M604 900 C616 926 612 956 596 980`) +
      `<path d="M690 916 C712 922 726 932 732 946 C716 944 700 938 690 930 Z" fill="${NAIL}"/>` +
      `<rect x="760" y="${floor - 110 * px}" width="90" height="${110 * px}" fill="#f7f0d6" stroke="#3d3025"/>` +
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
      shape(
        'M330 0 C300 150 316 320 352 470 C378 600 388 700 384 800 C374 836 372 866 392 892 L508 892 C528 866 526 836 516 800 C512 700 522 600 548 470 C584 320 600 150 570 0 Z',
      ) +
      shape(
        `M${450 + out * -62} 850 C${450 + out * -84} 940 ${450 + out * -92} 990 ${450 + out * -74} 1052 L${450 + out * 238} 1062 C${450 + out * 210} 990 ${450 + out * 120} 940 ${450 + out * 62} 850 Z`,
      ) +
      contour(`M${450 + out * -66} 812 Q${450 + out * -40} 842 ${450 + out * -64} 872`) +
      contour(`M${450 + out * 64} 832 Q${450 + out * 38} 862 ${450 + out * 62} 890`) +
      contour('M446 180 C440 400 436 560 440 720', 3) +
      [4, 3, 2, 1, 0]
        .map((i) => {
          const [x, rx, ry] = [450 + out * (-32 + i * 62), i === 0 ? 46 : 32 - i, i === 0 ? 54 : 44 - i * 3];
          const y = 1050 + i * 4;
          return `<ellipse cx="${x}" cy="${y}" rx="${rx}" ry="${ry}" fill="${SKIN}"/><ellipse cx="${x}" cy="${y - ry * 0.28}" rx="${rx * 0.5}" ry="${ry * 0.34}" fill="${NAIL}"/>${contour(`M${x - rx * 0.9} ${y + ry * 0.3} Q${x} ${y + ry * 1.2} ${x + rx * 0.9} ${y + ry * 0.3}`, 3)}`;
        })
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
  executablePath: findChromium(),
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

// Two of our own figures on the way across the moor, without the floor and the arrows of the exercise.
const { loadContent } = await import('@heathstep/content');
const { drawFigure, drawingMarkup, PAPER_COLOURS } = await import('@heathstep/core');
const { content } = loadContent();
for (const [file, key, moment] of [
  ['walker.svg', 'walk-build', 1],
  ['runner.svg', 'run-easy', 1],
]) {
  const figure = content.figures.find((f) => f.exercise === key);
  const { arrow: _arrow, arrows: _arrows, press: _press, ...bare } = figure;
  const drawing = drawFigure(
    { ...bare, props: figure.props.filter((p) => p.kind === 'shoe') },
    moment,
    false,
  );
  const shapes = drawingMarkup(drawing, (tone) => PAPER_COLOURS[tone]);
  writeFileSync(
    join(ROOT, 'apps/web/public', file),
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${drawing.box}">${shapes}</svg>\n`,
  );
}
