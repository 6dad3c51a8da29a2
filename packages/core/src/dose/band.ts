import { say } from '../quantity/tongue.js';
import { ok, refused, type Result } from '../result/result.js';

/** The pull of a band measured at one stretch. */
export interface BandPoint {
  /** How much longer than at rest: 100 is twice as long. */
  readonly stretchPercent: number;
  readonly newtons: number;
}

/** Stretches a clinic measures its bands at, in percent. */
export const BAND_STRETCHES = [50, 100, 150, 200] as const;

/** A band's own names for how firm it is; bands are never told by colour. */
export const BANDS = ['light', 'medium', 'firm'] as const;

export type Band = (typeof BANDS)[number];

/** Above this a reading is a slip of the hand, in newtons. */
const MOST_NEWTONS = 500;

/**
 * Checks a calibration: at least two stretches, each once and between 50 and 200 %, and a pull that grows with the stretch.
 *
 * @returns the points from the least stretch on, or what is wrong by its stretch.
 */
export function calibration(points: readonly BandPoint[]): Result<readonly BandPoint[]> {
  const sorted = [...points].sort((a, b) => a.stretchPercent - b.stretchPercent);
  if (sorted.length < 2)
    return refused({ path: 'points', value: points.length, bound: say('at least two stretches') });
  const problems = sorted.flatMap((p, i) => {
    const path = String(p.stretchPercent);
    const before = sorted[i - 1];
    if (!(p.stretchPercent >= 50 && p.stretchPercent <= 200))
      return [{ path, value: p.stretchPercent, bound: say('a stretch of 50 to 200 %') }];
    if (!(p.newtons > 0 && p.newtons <= MOST_NEWTONS))
      return [
        {
          path,
          value: p.newtons,
          bound: say('more than 0 and at most {{mostNewtons}} N', { mostNewtons: MOST_NEWTONS }),
        },
      ];
    if (before?.stretchPercent === p.stretchPercent)
      return [{ path, value: p.newtons, bound: say('measured once for each stretch') }];
    if (before !== undefined && p.newtons <= before.newtons)
      return [
        {
          path,
          value: p.newtons,
          bound: say('more than the {{newtons}} N at less stretch', { newtons: before.newtons }),
        },
      ];
    return [];
  });
  return problems.length > 0 ? refused(...problems) : ok(sorted);
}

/**
 * The pull of a calibrated band at a stretch, straight between what was measured.
 *
 * @returns newtons; refused outside the measured stretches, because a band does not go on as it began.
 * @example 20 N at 50 % and 30 N at 100 %: 24 N at 70 %.
 */
export function bandForce(points: readonly BandPoint[], stretchPercent: number): Result<number> {
  const checked = calibration(points);
  if (!checked.ok) return checked;
  const [first, last] = [checked.value[0], checked.value.at(-1)];
  const above = checked.value.find((p) => p.stretchPercent >= stretchPercent);
  if (
    first === undefined ||
    last === undefined ||
    above === undefined ||
    stretchPercent < first.stretchPercent
  )
    return refused({
      path: 'stretchPercent',
      value: stretchPercent,
      bound: say('between the measured {{stretchPercent}} and {{stretchPercent2}} %', {
        stretchPercent: first?.stretchPercent ?? 0,
        stretchPercent2: last?.stretchPercent ?? 0,
      }),
    });
  const below = checked.value.findLast((p) => p.stretchPercent <= stretchPercent) ?? above;
  const width = above.stretchPercent - below.stretchPercent;
  const share = width === 0 ? 0 : (stretchPercent - below.stretchPercent) / width;
  return ok(below.newtons + share * (above.newtons - below.newtons));
}
