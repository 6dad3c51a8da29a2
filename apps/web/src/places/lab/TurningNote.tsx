import { say, shown, SIDES, type Why as WhyContent } from '@heathstep/core';
import type { CaptureView } from '@heathstep/contracts';
import { readTurning, type Turning, TURNING_LIMITS } from '@heathstep/core/lab';
import { dayHere } from '../../parts/dates.js';
import { sentence } from '../../parts/Judgement.js';
import { Why } from '../../parts/Why.js';
import type { LabReading } from './reading.js';
import { useReading } from './useReading.js';

const WORDS: Readonly<Record<Turning, string>> = {
  tips: say('tips as a whole: the outer ball loses its load'),
  within: say('turns within itself: the heel goes in and the outer ball stays'),
  stays: say('stays: neither heel nor outer ball move much'),
  unclear: say('cannot be told: the heel goes in and part of the outer load goes'),
};

function why(heel: number, kept: number): WhyContent {
  const { heelDeg, lost, kept: stays } = TURNING_LIMITS;
  return {
    statement: say('Whole-foot turning against turning within the foot'),
    inputs: [
      { name: say('Heel against the floor, motion pair'), value: `${shown(heel, 1)}°` },
      { name: say('Outer ball kept, mat'), value: `${shown(kept, 0)} %` },
    ],
    rule: say(
      'Outer ball under {{lost}} %: it tips as a whole. Else the heel under {{heelDeg}} degrees: it stays. Else the outer ball at {{stays}} % or more: it turns within.',
      { lost, heelDeg, stays },
    ),
    arithmetic: [],
    source: say('Convention'),
    reviewKey: null,
  };
}

/** A squat seen by both instruments on one day: whether each foot tips as a whole or turns within itself. */
export function TurningNote({
  capture,
  reading,
  captures,
}: {
  capture: CaptureView;
  reading: LabReading;
  captures: readonly CaptureView[];
}) {
  const partner =
    capture.task !== 'squat'
      ? null
      : (captures.find(
          (c) =>
            c.task === 'squat' &&
            c.kind !== capture.kind &&
            c.wearing === capture.wearing &&
            dayHere(c.at) === dayHere(capture.at),
        ) ?? null);
  const { query } = useReading(partner);
  if (capture.task !== 'squat') return null;
  if (partner === null)
    return (
      <p className="mt-4 text-sm text-ink-2">
        {say(
          'Whether the foot tips as a whole or turns within itself is told when mat and motion pair have both seen a squat on one day.',
        )}
      </p>
    );
  if (query.data === undefined) return null;
  const [mat, pair] = reading.kind === 'pressure-mat' ? [reading, query.data] : [query.data, reading];
  return (
    <section className="mt-4">
      <h3>{say('Mat and motion pair together')}</h3>
      {SIDES.map((side) => {
        const heel = pair.quantities[side]['heelTurn']?.value;
        const kept = mat.quantities[side]['outerKept']?.value;
        if (heel === undefined || kept === undefined) return null;
        return (
          <p key={side}>
            <b style={{ color: `var(--color-${side})` }}>{sentence(say(side))}</b>{' '}
            <Why of={() => why(heel, kept)}>{WORDS[readTurning(heel, kept)]}</Why>
          </p>
        );
      })}
    </section>
  );
}
