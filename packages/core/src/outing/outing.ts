import { say } from '../quantity/tongue.js';
import { issue, ok, refused, type Result } from '../result/result.js';

/** One point of a recorded way. */
export interface TrackPoint {
  /** Milliseconds since 1970, UTC; never before the point before it. */
  readonly at: number;
  /** Degrees, -90 to 90 and -180 to 180. */
  readonly lat: number;
  readonly lon: number;
  /** Metres; null where it was not recorded. */
  readonly altitude: number | null;
}

/** What a run or a walk amounts to. */
export interface OutingFigures {
  /** Milliseconds since 1970, UTC. */
  readonly startedAt: number;
  /** From the first point to the last (s). */
  readonly seconds: number;
  readonly metres: number;
  /** Time at the speed of running (s). */
  readonly runSeconds: number;
  /** Metres up; null where no altitude was recorded. */
  readonly climbMetres: number | null;
}

const EARTH_METRES = 6_371_008.8;

/** From about 2 m/s one runs rather than walks. [P, preferred speed of the change from walking to running] */
export const RUN_METRES_PER_SECOND = 2;
/** Slower than this is standing: what moves is the fix, not the foot. [convention] */
const STANDING = 0.3;
/** No one on foot is faster: a jump of the fix, and as a whole a ride. [convention] */
const FASTEST = 10;
/** Speed is looked at over so many seconds around each moment, since single fixes are off by metres. [convention] */
const WINDOW_SECONDS = 14;
/** After so many seconds without a point the recording had paused. [convention] */
const PAUSE_SECONDS = 45;
/** A rise counts from so many metres on, since altitude is off by as much. [convention] */
const RISE_METRES = 3;

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** Along the earth, by the haversine. */
export function metresBetween(a: TrackPoint, b: TrackPoint): number {
  const [dLat, dLon] = [radians(b.lat - a.lat), radians(b.lon - a.lon)];
  const h =
    Math.sin(dLat / 2) ** 2 + Math.cos(radians(a.lat)) * Math.cos(radians(b.lat)) * Math.sin(dLon / 2) ** 2;
  return 2 * EARTH_METRES * Math.asin(Math.min(1, Math.sqrt(h)));
}

interface Leg {
  readonly from: number;
  readonly seconds: number;
  readonly metres: number;
}

/** From point to point; a jump no one on foot makes has no length. */
const legsOf = (points: readonly TrackPoint[]): Leg[] =>
  points.slice(1).flatMap((b, i) => {
    const a = points[i];
    if (a === undefined) return [];
    const seconds = (b.at - a.at) / 1000;
    if (seconds <= 0) return [];
    const metres = metresBetween(a, b);
    return [{ from: a.at, seconds, metres: metres / seconds > FASTEST ? 0 : metres }];
  });

/** Speed around each leg, over a window of it. */
function speeds(legs: readonly Leg[]): number[] {
  const half = (WINDOW_SECONDS * 1000) / 2;
  const middle = (l: Leg) => l.from + l.seconds * 500;
  let [first, last, metres, seconds] = [0, 0, 0, 0];
  return legs.map((leg) => {
    const at = middle(leg);
    for (let next = legs[last]; next !== undefined && middle(next) <= at + half; next = legs[++last]) {
      metres += next.metres;
      seconds += next.seconds;
    }
    for (let old = legs[first]; old !== undefined && middle(old) < at - half; old = legs[++first]) {
      metres -= old.metres;
      seconds -= old.seconds;
    }
    return seconds <= 0 ? 0 : metres / seconds;
  });
}

function climb(points: readonly TrackPoint[]): number | null {
  const heights = points.flatMap((p) => p.altitude ?? []);
  let [low] = heights;
  if (low === undefined) return null;
  let up = 0;
  for (const height of heights)
    if (height < low) low = height;
    else if (height - low >= RISE_METRES) {
      up += height - low;
      low = height;
    }
  return up;
}

/** Share of the legs that no one on foot makes, from which on it is a ride. [convention] */
const RIDE_SHARE = 0.2;

/**
 * What a recorded way amounts to: how long, how far, how much of it at the speed of running, how far up. Standing and pauses
 * count for time alone.
 *
 * @param points in the order of their time; refused with fewer than two, or where it is no way on foot
 */
export function outingOf(points: readonly TrackPoint[]): Result<OutingFigures> {
  const [first] = points;
  const last = points.at(-1);
  if (first === undefined || last === undefined || last.at <= first.at)
    return refused(issue('points', points.length, say('at least two, with time between them')));
  const legs = legsOf(points);
  const jumps = points.slice(1).filter((b, i) => {
    const a = points[i];
    return a !== undefined && b.at > a.at && metresBetween(a, b) / ((b.at - a.at) / 1000) > FASTEST;
  }).length;
  if (jumps > legs.length * RIDE_SHARE)
    return refused(issue('points', jumps, say('slower than 36 km/h: this is no way on foot')));
  const around = speeds(legs);
  let [metres, runSeconds] = [0, 0];
  legs.forEach((leg, i) => {
    const speed = around[i] ?? 0;
    if (speed < STANDING) return;
    metres += leg.metres;
    if (leg.seconds <= PAUSE_SECONDS && speed >= RUN_METRES_PER_SECOND) runSeconds += leg.seconds;
  });
  return ok({
    startedAt: first.at,
    seconds: (last.at - first.at) / 1000,
    metres,
    runSeconds,
    climbMetres: climb(points),
  });
}
