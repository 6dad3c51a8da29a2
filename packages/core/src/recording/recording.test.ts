import fc from 'fast-check';
import { collector, overview, tee } from './collect.js';
import { evened } from './even.js';
import { recordingReader } from './reader.js';
import { isMat, type MatHeader, type MatRecording, type MotionHeader, type Recording } from './recording.js';
import { csvLines, jsonLines } from './write.js';

const spoken = {
  name: 'Mat',
  rateHz: 100,
  calibratedOn: null,
  simulated: true,
  task: null,
  side: null,
} as const;
const MAT: MatHeader = { kind: 'pressure-mat', ...spoken, columns: 4, rows: 4, cellMm: 10, mostKpa: 1200 };
const PAIR: MotionHeader = { kind: 'motion-pair', ...spoken, rateHz: 200, task: 'walk', side: 'both' };

function read(text: string | Iterable<string>, chunk = 0) {
  const kept = collector();
  const reader = recordingReader(kept);
  const whole = typeof text === 'string' ? text : [...text].join('');
  const size = chunk === 0 ? whole.length : chunk;
  for (let i = 0; i < whole.length; i += size) if (reader.push(whole.slice(i, i + size)) !== null) break;
  return { end: reader.finish(), recording: kept.recording() };
}

const matOf = (frames: readonly (readonly number[])[]): MatRecording => ({
  header: MAT,
  times: Float64Array.from(frames, (_, i) => Math.round(i) / 100),
  cells: Uint16Array.from(frames.flat()),
});

const frames = fc.array(fc.array(fc.integer({ min: 0, max: 60_000 }), { minLength: 16, maxLength: 16 }), {
  minLength: 20,
  maxLength: 30,
});

const same = (a: Recording | null, b: Recording) => {
  expect(a?.header).toEqual(b.header);
  expect([...(a?.times ?? [])]).toEqual([...b.times]);
  if (a !== null && isMat(a) && isMat(b)) expect([...a.cells]).toEqual([...b.cells]);
  else expect(a).toEqual(b);
};

describe('a recording, written and read back', () => {
  it('is the same as JSON and as CSV, however its text is cut into pieces', () => {
    fc.assert(
      fc.property(frames, fc.integer({ min: 1, max: 400 }), (f, chunk) => {
        const r = matOf(f);
        for (const lines of [jsonLines, csvLines]) {
          const back = read(lines(r), chunk);
          expect(back.end).toMatchObject({ ok: true, frames: f.length, missing: 0, warnings: [] });
          same(back.recording, r);
        }
      }),
      { numRuns: 40 },
    );
  });

  it('is one JSON document', () => {
    const text = [...jsonLines(matOf(Array.from({ length: 20 }, () => Array<number>(16).fill(5))))].join('');
    expect((JSON.parse(text) as { frames: unknown[] }).frames).toHaveLength(20);
  });

  it('keeps a leg that wears none as none', () => {
    const n = 24;
    const worn = (v: number) => Float32Array.from({ length: n }, (_, i) => v + i / 8);
    const r: Recording = {
      header: PAIR,
      times: Float64Array.from({ length: n }, (_, i) => i / 200),
      left: null,
      right: { shin: worn(1), heel: worn(-2), pitch: worn(10) },
    };
    for (const lines of [jsonLines, csvLines]) same(read(lines(r)).recording, r);
  });
});

const csv = (...rows: string[]): string =>
  [
    'heathstep-recording,1',
    'kind,motion-pair',
    'unit,deg',
    'rate_hz,200',
    't,left_shin,left_heel,left_pitch,right_shin,right_heel,right_pitch',
    ...rows,
    '',
  ].join('\n');
const rows = (n: number, make: (i: number) => string = (i) => `${i / 200},1,2,3,,,`) =>
  Array.from({ length: n }, (_, i) => make(i));
const json = (...lines: string[]) =>
  [
    '{"format":"heathstep-recording","version":1,"kind":"pressure-mat","unit":"kPa","rateHz":100,"columns":4,"rows":4,"cellMm":10,"frames":[',
    ...lines,
  ].join('\n');
const frame = (t: number, runs = '[[0,12]]') => `{"t":${t},"runs":${runs}},`;

describe('a file that is not as it should be', () => {
  it.each([
    ['wrong unit', csv(...rows(30)).replace('unit,deg', 'unit,rad'), 5, 'the unit is rad, deg is wanted'],
    [
      'unknown kind',
      csv(...rows(30)).replace('motion-pair', 'scales'),
      5,
      'not of a pressure mat or a motion pair',
    ],
    [
      'wrong rate',
      csv(...rows(60, (i) => `${i / 50},1,2,3,,,`)),
      56,
      'the first line tells 200 Hz, the times 50 Hz',
    ],
    [
      'no rate',
      csv(...rows(30)).replace('rate_hz,200', 'rate_hz,fast'),
      5,
      'a rate that is not from 0 to 1000 Hz',
    ],
    ['not a number', csv(...rows(25), '0.2,1,NaN,3,,,'), 31, 'an angle that is not a number'],
    ['a turn too far', csv(...rows(25), '0.2,1,400,3,,,'), 31, '400 deg is not from -180 to 180'],
    ['half a leg', csv(...rows(25), '0.2,1,,3,,,'), 31, 'an angle that is not a number'],
    ['time back', csv(...rows(25), '0.1,1,2,3,,,'), 31, 'the time does not grow'],
    [
      'commas as decimals',
      csv(...rows(25), '0,2,1,5,2,2,3,1,,,'),
      31,
      '11 columns, 7 are wanted. Were commas written within the numbers? Then put ; between the columns',
    ],
    ['too few columns', csv(...rows(25), '0.2,1,2'), 31, '3 columns, 7 are wanted'],
    ['too few frames', csv(...rows(5)), 10, 'only 5 frames: too few to work with'],
    [
      'another text',
      'date,weight\n1,2',
      1,
      'not a recording: neither the JSON nor the CSV that is described',
    ],
    ['another JSON', '{"a":1}', 1, 'the first line must be the heading of a recording, up to "frames":['],
    ['a count that is wrong', csv(...rows(25), 'end,40'), 31, 'the file ends with 40 frames, 25 were found'],
    [
      'negative beyond drift',
      json(frame(0), frame(0.01, '[[3,-50]]'), ''),
      3,
      'cell 3: -50 kPa is not from 0 to 6000',
    ],
    ['null for a cell', json(frame(0), frame(0.01, '[[3,1,null]]'), ''), 3, 'cell 4: not a number'],
    ['cells beyond the mat', json(frame(0), frame(0.01, '[[15,1,2]]'), ''), 3, 'more cells than the mat has'],
    ['nothing but lines', `${json(frame(0))}${'\n'.repeat(1100)}`, 1003, 'too many empty lines'],
    ['a broken line', json(frame(0), '{"t":0.01,"ru', ''), 3, 'a line that is not a frame'],
  ])('%s: is refused by its line with the reason', (_, text, line, reason) => {
    expect(read(text).end).toEqual({ ok: false, problem: { line, reason } });
  });

  it('a line without end is refused before it is held', () => {
    const reader = recordingReader(collector());
    expect(reader.push('x'.repeat(80_000))).toEqual({ line: 1, reason: 'a line that is too long' });
    expect(reader.push('more')).not.toBeNull();
  });

  it('commas as decimals are read where ; stands between the columns, and that is told', () => {
    const german = csv(...rows(30, (i) => `${i / 200},1.5,2,3,,,`))
      .replaceAll(/(\d)\.(\d)/g, '$1~$2')
      .replaceAll(',', ';')
      .replaceAll('~', ',');
    const { end, recording } = read(german);
    expect(end).toMatchObject({ ok: true, frames: 30 });
    expect(end.ok && end.warnings.map((w) => w.reason)).toContain(
      '; between the columns: commas are read as decimal marks',
    );
    expect(
      recording?.header.kind === 'motion-pair' &&
        (recording as { left: { shin: Float32Array } }).left.shin[0],
    ).toBe(1.5);
  });

  it('missing frames, drift below nought and a cut end are told, and what is there is used', () => {
    const lines = Array.from({ length: 40 }, (_, i) => i)
      .filter((i) => i < 20 || i > 24)
      .map((i) => frame(i / 100, i === 7 ? '[[0,-2,5]]' : undefined));
    const { end, recording } = read(`${json(...lines)}\n{"t":0.4,"runs":[[0,1`);
    expect(end).toMatchObject({ ok: true, frames: 35, missing: 5 });
    expect(end.ok && end.warnings).toEqual([
      { line: 22, reason: 'frames are missing from here' },
      { line: 9, reason: '1 cells below nought, read as nought' },
      { line: 37, reason: 'the file is cut off here; what stands before it is used' },
    ]);
    expect(recording?.times).toHaveLength(35);
  });
});

describe('a long recording', () => {
  it('is looked over whole while only a stretch is kept', () => {
    const kept = collector({ from: 30, seconds: 5 });
    const all = overview();
    const reader = recordingReader(tee(kept, all));
    const push = (text: string) => expect(reader.push(text)).toBeNull();
    push(json(''));
    for (let i = 0; i < 10_000; i += 1) push(`${frame(i / 100, i > 5000 ? '[[0,100,100]]' : '[]')}\n`);
    push(']}\n');
    expect(reader.finish()).toMatchObject({ ok: true, frames: 10_000 });
    expect(kept.count()).toBe(501);
    expect(kept.recording()?.times[0]).toBeCloseTo(30, 6);
    expect(all.steps()).toHaveLength(200);
    expect([all.steps()[10], all.steps()[150]]).toEqual([0, 20]);
  });

  it('frames that never came are set in between on an even clock', () => {
    const r = matOf(Array.from({ length: 20 }, (_, i) => Array<number>(16).fill(i * 10)));
    const some = [...r.times.keys()].filter((i) => i !== 7 && i !== 8);
    const holed: MatRecording = {
      header: MAT,
      times: Float64Array.from(some, (i) => i / 100),
      cells: Uint16Array.from(some.flatMap((i) => Array<number>(16).fill(i * 10))),
    };
    expect([...evened(holed).cells]).toEqual([...r.cells]);
    expect(evened(r)).toBe(r);
  });
});
