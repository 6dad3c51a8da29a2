import fc from 'fast-check';
import { type DeviceMistake, simulateDevice } from '../simulate/device.js';
import {
  captureCut,
  captureFrame,
  type CapturedValue,
  type CaptureState,
  captureTick,
  captureZero,
  START,
} from './capture.js';
import { forceOf, torqueOf } from './force.js';
import { parseFrame, type SignalKind } from './frames.js';

/** Plays a simulated device into a capture for some seconds, as the bench would. */
function play(
  kind: SignalKind,
  truth: number,
  seconds: number,
  mistakes: DeviceMistake[] = [],
): { state: CaptureState; taken: CapturedValue[]; warned: Set<string> } {
  const device = simulateDevice({ kind, truth, seed: 7, mistakes });
  let state = captureFrame(START, parseFrame(device.hello), 0);
  const taken: CapturedValue[] = [];
  const warned = new Set<string>();
  for (let n = 0; n < seconds * device.rateHz; n += 1) {
    const atMs = (n / device.rateHz) * 1000;
    if (device.cutAt !== null && n >= device.cutAt) {
      state = captureCut(state, 'the connection was lost');
      break;
    }
    const line = device.line(n);
    state = line === null ? captureTick(state, atMs) : captureFrame(state, parseFrame(line), atMs);
    if (state.taken !== null) taken.push(state.taken);
    for (const w of state.warnings) warned.add(w);
  }
  return { state, taken, warned };
}

describe('what a device says', () => {
  const hello = { type: 'hello', version: 1, kind: 'inclinometer', unit: 'deg', rateHz: 20 };

  it('reads a hello, a sample and an end', () => {
    expect(parseFrame(JSON.stringify(hello))).toMatchObject({ type: 'hello', heldBy: 'another' });
    expect(parseFrame('{"type":"sample","t":0.05,"value":31.2,"tiltDeg":2}')).toEqual({
      type: 'sample',
      t: 0.05,
      value: 31.2,
      tiltDeg: 2,
    });
    expect(parseFrame('{"type":"end","reason":"off"}')).toEqual({ type: 'end', reason: 'off' });
  });

  it.each([
    ['not json', 'a line that is not JSON'],
    ['[1,2]', 'a line that is not an object'],
    ['{"type":"sample","t":1}', 'a sample without a number'],
    ['{"type":"sample","t":-1,"value":3}', 'a sample without its time'],
    ['{"type":"sample","t":1,"value":"3"}', 'a sample without a number'],
    ['{"type":"dance"}', 'a frame of no known type'],
    [JSON.stringify({ ...hello, kind: 'scales' }), 'a kind this bench does not know'],
    [JSON.stringify({ ...hello, kind: 'constructor' }), 'a kind this bench does not know'],
    [JSON.stringify({ ...hello, unit: 'rad' }), 'a inclinometer must speak in deg'],
    [JSON.stringify({ ...hello, version: 2 }), 'a version of the format other than 1'],
    [JSON.stringify({ ...hello, rateHz: 0 }), 'a rate that is not from 0 to 1000 Hz'],
    ['x'.repeat(3000), 'a line that is too long'],
  ])('%s is bad: %s', (line, reason) => {
    expect(parseFrame(line)).toEqual({ type: 'bad', reason });
  });

  it('never throws, whatever comes', () => {
    fc.assert(fc.property(fc.string(), (line) => void parseFrame(line)));
    fc.assert(fc.property(fc.json(), (line) => void parseFrame(line)));
  });
});

describe('an angle is taken by itself when it is held still', () => {
  it('once for each movement, close to the truth', () => {
    const { taken } = play('inclinometer', 34, 20);
    expect(taken).toHaveLength(4);
    for (const t of taken) {
      expect(Math.abs(t.value - 34)).toBeLessThan(2.5);
      expect(t.spread).toBeLessThanOrEqual(2);
    }
  });

  it.each<[DeviceMistake, string]>([
    ['tilt', 'tilt'],
    ['heel-lift', 'heel-lift'],
  ])('nothing is taken while there is %s, and it is told', (mistake, warning) => {
    const { taken, warned } = play('inclinometer', 34, 20, [mistake]);
    expect(taken).toEqual([]);
    expect(warned).toContain(warning);
  });

  it('a cut connection ends it without a value, in the middle of holding', () => {
    const { taken, state } = play('inclinometer', 34, 20, ['cut']);
    expect(taken).toEqual([]);
    expect(state).toMatchObject({ phase: 'ended', live: null, endReason: 'the connection was lost' });
    const later = captureFrame(state, { type: 'sample', t: 9, value: 30 }, 9000);
    expect(later.taken).toBeNull();
  });

  it('silence is told and drops what was half made', () => {
    const { taken, warned, state } = play('inclinometer', 34, 8, ['silence']);
    expect(taken).toEqual([]);
    expect(warned).toContain('silent');
    expect(state.live).toBeNull();
  });

  it('rubbish starts the window over and is never a value', () => {
    const { warned, state, taken } = play('inclinometer', 34, 20, ['rubbish']);
    expect(warned).toContain('rubbish');
    expect(state.badFrames).toBeGreaterThan(0);
    for (const t of taken) expect(Math.abs(t.value - 34)).toBeLessThan(2.5);
  });

  it('a time that goes back, and a reading no such device can give, are rubbish', () => {
    let state = captureFrame(
      START,
      parseFrame(simulateDevice({ kind: 'inclinometer', truth: 1, seed: 1, mistakes: [] }).hello),
      0,
    );
    state = captureFrame(state, { type: 'sample', t: 1, value: 30 }, 0);
    expect(captureFrame(state, { type: 'sample', t: 1, value: 30 }, 50).warnings).toEqual(['rubbish']);
    expect(captureFrame(state, { type: 'sample', t: 1.05, value: 900 }, 50).warnings).toEqual(['rubbish']);
  });

  it('a sample before the hello is not a reading', () => {
    expect(captureFrame(START, { type: 'sample', t: 0, value: 30 }, 0)).toMatchObject({
      live: null,
      badFrames: 1,
    });
  });

  it('zeroing takes the present reading off from then on', () => {
    let state = captureFrame(
      START,
      parseFrame(simulateDevice({ kind: 'inclinometer', truth: 1, seed: 1, mistakes: [] }).hello),
      0,
    );
    state = captureZero(captureFrame(state, { type: 'sample', t: 1, value: 3 }, 0));
    expect(state.live).toBe(0);
    expect(captureFrame(state, { type: 'sample', t: 1.05, value: 33 }, 50).live).toBe(30);
  });
});

describe('a force is taken when the push is let go', () => {
  it('the mean of the best second, with peak and rate of rise', () => {
    const { taken } = play('dynamometer', 120, 14);
    expect(taken).toHaveLength(3);
    for (const t of taken) {
      expect(Math.abs(t.value - 120)).toBeLessThan(12);
      expect(t.force?.peakN).toBeGreaterThanOrEqual(t.value);
      expect(t.force?.riseNPerS).toBeGreaterThan(100);
    }
  });

  it('a push that began before the capture is not a value; the next one is', () => {
    const { taken, warned } = play('dynamometer', 120, 9, ['late-trigger']);
    expect(warned).toContain('late-trigger');
    expect(taken).toHaveLength(1);
  });

  it('a cut in the middle of a push gives no value', () => {
    expect(play('dynamometer', 120, 9, ['cut']).taken).toEqual([]);
  });

  it('peak, best second and rise of a made push', () => {
    const push = Array.from({ length: 151 }, (_, i) => ({ t: i * 0.02, newton: i < 50 ? i * 2 : 100 }));
    const force = forceOf(push);
    expect(force?.peakN).toBe(100);
    expect(force?.bestSecondN).toBeCloseTo(100, 9);
    expect(force?.riseNPerS).toBeCloseTo(100, 6);
    expect(force?.seconds).toBeCloseTo(3, 9);
    expect(forceOf([])).toBeNull();
  });

  it('torque is force by lever arm, per kg only where the mass is known', () => {
    expect(torqueOf(120, 15, 60)).toEqual({ nm: 18, nmPerKg: 0.3 });
    expect(torqueOf(120, 15, null)).toEqual({ nm: 18, nmPerKg: null });
  });
});

describe('a temperature', () => {
  it('is taken when it has been still for two seconds', () => {
    const { taken } = play('thermometer', 31, 8);
    expect(taken).toHaveLength(1);
    expect(taken[0]?.value).toBeCloseTo(31, 0);
  });
});

describe('the simulated device', () => {
  it('says the same for the same script', () => {
    const script = { kind: 'dynamometer', truth: 90, seed: 3, mistakes: ['drift'] } as const;
    const [a, b] = [simulateDevice(script), simulateDevice(script)];
    const lines = (d: typeof a) => Array.from({ length: 200 }, (_, n) => d.line(n));
    expect(lines(a)).toEqual(lines(b));
  });

  it('says who holds it', () => {
    const held = simulateDevice({ kind: 'inclinometer', truth: 30, seed: 1, mistakes: ['self-held'] });
    expect(parseFrame(held.hello)).toMatchObject({ heldBy: 'self', simulated: true });
  });

  it('loses samples where it drops out', () => {
    const d = simulateDevice({ kind: 'inclinometer', truth: 30, seed: 1, mistakes: ['drop-outs'] });
    const lost = Array.from({ length: 400 }, (_, n) => d.line(n)).filter((l) => l === null).length;
    expect(lost).toBeGreaterThan(60);
    expect(lost).toBeLessThan(140);
  });
});
