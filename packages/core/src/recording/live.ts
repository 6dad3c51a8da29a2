import { say } from '../quantity/tongue.js';
import { takeFrame } from './reader.js';
import { readHeader } from './line.js';
import { type FrameSink, RECORDING_LIMITS, type RecordingHeader } from './recording.js';

/** What one line of an instrument was. */
export type LiveLine =
  | { readonly type: 'hello'; readonly header: RecordingHeader }
  | { readonly type: 'frame'; readonly t: number }
  | { readonly type: 'end'; readonly reason: string }
  | { readonly type: 'bad'; readonly reason: string };

const bad = (reason: string): LiveLine => ({ type: 'bad', reason });

/** Reads what an instrument says, a line at a time, and hands on its frames. Never throws. */
export function liveReader(sink: FrameSink): (line: string) => LiveLine {
  let header: RecordingHeader | null = null;
  let cells = new Uint16Array(0);
  let last = -1;
  const frame = (o: Record<string, unknown>, h: RecordingHeader): LiveLine => {
    const found = takeFrame(o, cells, h.kind);
    if (!found.ok) return bad(found.reason);
    const { t, left, right } = found.value;
    if (t <= last) return bad(say('the time does not grow'));
    last = t;
    if (h.kind === 'pressure-mat') sink.mat(t, cells);
    else sink.motion(t, left, right);
    return { type: 'frame', t };
  };
  return (line) => {
    if (line.length > RECORDING_LIMITS.line) return bad(say('a line that is too long'));
    let o: unknown;
    try {
      o = JSON.parse(line);
    } catch {
      return bad(say('a line that is not JSON'));
    }
    if (typeof o !== 'object' || o === null || Array.isArray(o))
      return bad(say('a line that is not an object'));
    const said = o as Record<string, unknown>;
    if (said['type'] === 'end')
      return { type: 'end', reason: typeof said['reason'] === 'string' ? said['reason'].slice(0, 200) : '' };
    if (said['type'] === 'hello') {
      const found = readHeader(said);
      if (!found.ok) return bad(found.reason);
      header = found.value;
      cells = new Uint16Array(header.kind === 'pressure-mat' ? header.columns * header.rows : 0);
      last = -1;
      sink.begin(header);
      return { type: 'hello', header };
    }
    if (said['type'] !== 'frame') return bad(say('a frame of no known type'));
    return header === null ? bad(say('a frame before the hello')) : frame(said, header);
  };
}
