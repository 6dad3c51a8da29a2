import { median } from '../quantity/statistics.js';
import { say } from '../quantity/tongue.js';
import { CSV_FIRST, csvHeader, csvLegRow, csvMatRow, type CsvWay, csvWay } from './csv.js';
import { type Read, readAngles, readHeader, readRuns, timeOf } from './line.js';
import {
  type Angles,
  type FrameSink,
  type LineProblem,
  RECORDING_LIMITS,
  type RecordingHeader,
} from './recording.js';

/** What was read of a whole text, with what is odd about it; or the line that is not taken. */
export type ReadEnd =
  | {
      readonly ok: true;
      readonly frames: number;
      /** From the first frame to the last. */
      readonly seconds: number;
      readonly missing: number;
      readonly warnings: readonly LineProblem[];
    }
  | { readonly ok: false; readonly problem: LineProblem };

/** Reads a recording line by line as its text comes, JSON or CSV, and hands on each frame; never holds the whole. */
export interface RecordingReader {
  /** The problem that ends the reading; null while there is none. */
  readonly push: (text: string) => LineProblem | null;
  readonly finish: () => ReadEnd;
}

/** Times looked at before a rate is believed. */
const LOOKED_AT = 50;
const RATE_SLACK = 0.1;
/** A gap of more than this many sample times is missing frames. */
const GAP = 1.6;

interface State {
  line: number;
  rest: string;
  problem: LineProblem | null;
  header: RecordingHeader | null;
  cells: Uint16Array;
  way: CsvWay | null;
  above: string[];
  first: number | null;
  last: number;
  frames: number;
  missing: number;
  below: number;
  belowLine: number;
  gaps: number[];
  ended: boolean;
  empty: number;
  notes: LineProblem[];
}

/** Takes the time of a frame: it must grow, and at the rate that was told. */
function clock(s: State, t: number): string | null {
  if (s.first === null) s.first = t;
  else {
    const gap = t - s.last;
    if (gap <= 0) return say('the time does not grow');
    const rate = s.header?.rateHz ?? 1;
    if (s.gaps.length < LOOKED_AT) {
      s.gaps.push(gap);
      const found = s.gaps.length === LOOKED_AT ? 1 / (median(s.gaps) as number) : rate;
      if (Math.abs(found / rate - 1) > RATE_SLACK)
        return say('the first line tells {{rate}} Hz, the times {{found}} Hz', {
          rate: Math.round(rate),
          found: Math.round(found),
        });
    }
    if (gap * rate > GAP) {
      if (s.missing === 0) s.notes.push({ line: s.line, reason: say('frames are missing from here') });
      s.missing += Math.round(gap * rate) - 1;
    }
  }
  s.last = t;
  s.frames += 1;
  return null;
}

function noteBelow(s: State, below: number): void {
  if (below > 0 && s.below === 0) s.belowLine = s.line;
  s.below += below;
}

function begin(s: State, header: Read<RecordingHeader>, sink: FrameSink): string | null {
  if (!header.ok) return header.reason;
  s.header = header.value;
  if (header.value.kind === 'pressure-mat')
    s.cells = new Uint16Array(header.value.columns * header.value.rows);
  sink.begin(header.value);
  return null;
}

/** One frame that was parsed from JSON. */
export function takeFrame(
  o: Readonly<Record<string, unknown>>,
  cells: Uint16Array,
  kind: RecordingHeader['kind'],
): Read<{ t: number; below: number; left: Angles | null; right: Angles | null }> {
  const t = timeOf(o);
  if (!t.ok) return t;
  if (kind === 'pressure-mat') {
    const below = readRuns(o['runs'], cells);
    return below.ok
      ? { ok: true, value: { t: t.value, below: below.value, left: null, right: null } }
      : below;
  }
  const left = readAngles(o['left']);
  if (!left.ok) return left;
  const right = readAngles(o['right']);
  if (!right.ok) return right;
  return { ok: true, value: { t: t.value, below: 0, left: left.value, right: right.value } };
}

function jsonLine(s: State, text: string, sink: FrameSink): string | null {
  if (s.header === null) {
    if (!text.trimEnd().endsWith('['))
      return say('the first line must be the heading of a recording, up to "frames":[');
    const o = parsed(`${text.trimEnd()}]}`);
    if (o?.['format'] !== CSV_FIRST) return say('not the heading of a recording of this format');
    return begin(s, readHeader(o), sink);
  }
  const trimmed = text.trim();
  if (trimmed === ']}') {
    s.ended = true;
    return null;
  }
  const o = parsed(trimmed.endsWith(',') ? trimmed.slice(0, -1) : trimmed);
  if (o === null) return say('a line that is not a frame');
  const frame = takeFrame(o, s.cells, s.header.kind);
  if (!frame.ok) return frame.reason;
  const { t, below, left, right } = frame.value;
  const late = clock(s, t);
  if (late !== null) return late;
  noteBelow(s, below);
  if (s.header.kind === 'pressure-mat') sink.mat(t, s.cells);
  else sink.motion(t, left, right);
  return null;
}

function parsed(text: string): Record<string, unknown> | null {
  try {
    const o: unknown = JSON.parse(text);
    return typeof o === 'object' && o !== null && !Array.isArray(o) ? (o as Record<string, unknown>) : null;
  } catch {
    return null;
  }
}

const MOST_HEADING_LINES = 40;
/** Lines that say nothing; a file of more is none. */
const MOST_EMPTY = 1000;

const legOf = (a: readonly (number | null)[], from: number): Read<Angles | null> => {
  const three = a.slice(from, from + 3);
  return three.every((v) => v === null) ? { ok: true, value: null } : readAngles(three);
};

function csvLine(s: State, text: string, sink: FrameSink): string | null {
  s.way ??= csvWay(s.above[0] ?? text);
  if (s.header === null) {
    if (!/^t[,;]/.test(text)) {
      s.above.push(text);
      return s.above.length > MOST_HEADING_LINES ? say('no line of column names, beginning with t') : null;
    }
    if (s.way.decimal === ',')
      s.notes.push({ line: 1, reason: say('; between the columns: commas are read as decimal marks') });
    return begin(s, csvHeader(s.above, s.way), sink);
  }
  const end = /^end[,;](\d+)/.exec(text);
  if (end !== null) {
    s.ended = true;
    return Number(end[1]) === s.frames
      ? null
      : say('the file ends with {{told}} frames, {{found}} were found', {
          told: String(end[1]),
          found: s.frames,
        });
  }
  if (s.header.kind === 'pressure-mat') {
    const row = csvMatRow(text, s.way, s.cells);
    if (!row.ok) return row.reason;
    const late = clock(s, row.value.t);
    if (late !== null) return late;
    noteBelow(s, row.value.below);
    sink.mat(row.value.t, s.cells);
    return null;
  }
  const row = csvLegRow(text, s.way);
  if (!row.ok) return row.reason;
  const left = legOf(row.value.angles, 0);
  if (!left.ok) return left.reason;
  const right = legOf(row.value.angles, 3);
  if (!right.ok) return right.reason;
  const late = clock(s, row.value.t);
  if (late !== null) return late;
  sink.motion(row.value.t, left.value, right.value);
  return null;
}

const fresh = (): State => ({
  line: 0,
  rest: '',
  problem: null,
  header: null,
  cells: new Uint16Array(0),
  way: null,
  above: [],
  first: null,
  last: 0,
  frames: 0,
  missing: 0,
  below: 0,
  belowLine: 0,
  gaps: [],
  ended: false,
  empty: 0,
  notes: [],
});

/** Takes one whole line; empty ones are passed over. */
function takeLine(s: State, raw: string, sink: FrameSink): void {
  s.line += 1;
  const text = (s.line === 1 ? raw.replace(/^\uFEFF/, '') : raw).replace(/\r$/, '');
  if (text.trim() === '' || s.ended) {
    s.empty += 1;
    if (s.empty > MOST_EMPTY) s.problem = { line: s.line, reason: say('too many empty lines') };
    return;
  }
  const json = s.header === null ? s.above.length === 0 && text.startsWith('{') : s.above.length === 0;
  if (s.header === null && !json && s.above.length === 0 && !text.startsWith(CSV_FIRST)) {
    s.problem = {
      line: s.line,
      reason: say('not a recording: neither the JSON nor the CSV that is described'),
    };
    return;
  }
  const reason = json ? jsonLine(s, text, sink) : csvLine(s, text, sink);
  if (reason !== null) s.problem = { line: s.line, reason };
}

const LEAST_FRAMES = 20;

function ending(s: State): ReadEnd {
  if (s.problem !== null) return { ok: false, problem: s.problem };
  if (s.header === null)
    return { ok: false, problem: { line: s.line, reason: say('the file ends before its first frame') } };
  if (s.frames < LEAST_FRAMES)
    return {
      ok: false,
      problem: {
        line: s.line,
        reason: say('only {{frames}} frames: too few to work with', { frames: s.frames }),
      },
    };
  const cut = s.ended
    ? []
    : [{ line: s.line, reason: say('the file is cut off here; what stands before it is used') }];
  const below =
    s.below === 0
      ? []
      : [{ line: s.belowLine, reason: say('{{n}} cells below nought, read as nought', { n: s.below }) }];
  return {
    ok: true,
    frames: s.frames,
    seconds: s.last - (s.first ?? 0),
    missing: s.missing,
    warnings: [...s.notes, ...below, ...cut],
  };
}

/** A reader for one recording; `docs/recordings.md` describes both formats. */
export function recordingReader(sink: FrameSink): RecordingReader {
  const s = fresh();
  return {
    push(text) {
      if (s.problem !== null) return s.problem;
      const whole = s.rest + text;
      let from = 0;
      for (let at = whole.indexOf('\n'); at >= 0; at = whole.indexOf('\n', from)) {
        takeLine(s, whole.slice(from, at), sink);
        if (s.problem !== null) return s.problem;
        from = at + 1;
      }
      s.rest = whole.slice(from);
      if (s.rest.length > RECORDING_LIMITS.line)
        s.problem = { line: s.line + 1, reason: say('a line that is too long') };
      return s.problem;
    },
    finish() {
      // A last line without its end was cut off: it is taken if it is whole, and left out if it is not.
      if (s.problem === null && s.rest.trim() !== '') {
        const before = { ...s };
        takeLine(s, s.rest, sink);
        if (s.problem !== null && s.header !== null && before.frames >= LEAST_FRAMES)
          Object.assign(s, before, { problem: null, line: before.line + 1 });
        s.rest = '';
      }
      return ending(s);
    },
  };
}
