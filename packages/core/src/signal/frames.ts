import { say } from '../quantity/tongue.js';
/** What a device says, one JSON object a line. The format is documented in docs/devices.md. */
export type SignalKind = 'inclinometer' | 'dynamometer' | 'thermometer';

export interface HelloFrame {
  readonly type: 'hello';
  readonly version: 1;
  readonly kind: SignalKind;
  readonly name: string;
  readonly unit: string;
  readonly rateHz: number;
  /** Day of the last calibration; null when the device does not know. */
  readonly calibratedOn: string | null;
  readonly heldBy: 'another' | 'self';
  readonly simulated: boolean;
}

export interface SampleFrame {
  readonly type: 'sample';
  /** Seconds since the hello; always growing. */
  readonly t: number;
  readonly value: number;
  /** Out of the plane of measurement, degrees. */
  readonly tiltDeg?: number;
  readonly heelLiftMm?: number;
}

interface EndFrame {
  readonly type: 'end';
  readonly reason: string;
}

interface BadFrame {
  readonly type: 'bad';
  readonly reason: string;
}

export type Frame = HelloFrame | SampleFrame | EndFrame | BadFrame;

interface KindRule {
  readonly unit: string;
  /** Outside this a sample is not a reading of such a device. */
  readonly min: number;
  readonly max: number;
}

export const KIND_RULES: Readonly<Record<SignalKind, KindRule>> = {
  inclinometer: { unit: 'deg', min: -180, max: 180 },
  dynamometer: { unit: 'N', min: -50, max: 3000 },
  thermometer: { unit: 'C', min: 0, max: 60 },
};

const MOST_CHARACTERS = 2000;
const MOST_RATE_HZ = 1000;

const bad = (reason: string): BadFrame => ({ type: 'bad', reason });
const isNumber = (v: unknown): v is number => typeof v === 'number' && Number.isFinite(v);

function hello(o: Record<string, unknown>): Frame {
  const kind = o['kind'];
  if (typeof kind !== 'string' || !Object.hasOwn(KIND_RULES, kind))
    return bad(say('a kind this bench does not know'));
  const rule = KIND_RULES[kind as SignalKind];
  if (o['version'] !== 1) return bad(say('a version of the format other than 1'));
  if (o['unit'] !== rule.unit)
    return bad(say('a {{kind}} must speak in {{unit}}', { kind, unit: rule.unit }));
  const rateHz = o['rateHz'];
  if (!isNumber(rateHz) || rateHz <= 0 || rateHz > MOST_RATE_HZ)
    return bad(say('a rate that is not from 0 to 1000 Hz'));
  const calibratedOn = o['calibratedOn'];
  return {
    type: 'hello',
    version: 1,
    kind: kind as SignalKind,
    name: typeof o['name'] === 'string' ? o['name'].slice(0, 80) : kind,
    unit: rule.unit,
    rateHz,
    calibratedOn:
      typeof calibratedOn === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(calibratedOn) ? calibratedOn : null,
    heldBy: o['heldBy'] === 'self' ? 'self' : 'another',
    simulated: o['simulated'] === true,
  };
}

function sample(o: Record<string, unknown>): Frame {
  const { t, value, tiltDeg, heelLiftMm } = o;
  if (!isNumber(t) || t < 0) return bad(say('a sample without its time'));
  if (!isNumber(value)) return bad(say('a sample without a number'));
  return {
    type: 'sample',
    t,
    value,
    ...(isNumber(tiltDeg) ? { tiltDeg } : {}),
    ...(isNumber(heelLiftMm) ? { heelLiftMm } : {}),
  };
}

/** Reads one line of a device. Never throws: what is not a frame is a `bad` frame with the reason. */
export function parseFrame(line: string): Frame {
  if (line.length > MOST_CHARACTERS) return bad(say('a line that is too long'));
  let value: unknown;
  try {
    value = JSON.parse(line);
  } catch {
    return bad(say('a line that is not JSON'));
  }
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return bad(say('a line that is not an object'));
  const o = value as Record<string, unknown>;
  if (o['type'] === 'hello') return hello(o);
  if (o['type'] === 'sample') return sample(o);
  if (o['type'] === 'end')
    return { type: 'end', reason: typeof o['reason'] === 'string' ? o['reason'].slice(0, 200) : '' };
  return bad(say('a frame of no known type'));
}
