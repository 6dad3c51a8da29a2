import {
  type ComposedExercise,
  isDoneAlone,
  joinNext,
  partNext,
  roundSentence,
  soonAgain,
  say,
} from '@heathstep/core';
import type { ClinicContent } from '../../api/queries.js';
import type { PlanLine } from './planModel.js';

type Items = readonly ComposedExercise[];

/** Stands before the first exercise of a round: how it goes, and whether one foot goes through it first. */
export function RoundHead({
  group,
  content,
  items,
  onChange,
}: {
  group: Items;
  content: Pick<ClinicContent, 'exercises'>;
  items: Items;
  onChange: ((items: Items) => void) | undefined;
}) {
  const round = group[0]?.round;
  if (round === undefined) return null;
  const other = round.feet === 'each' ? 'through' : 'each';
  const oneFootCan = group.every((i) => i.sides === 'one-after-other' || i.sides === 'alternating');
  const soon = soonAgain(
    group.flatMap((item) => {
      const exercise = content.exercises.find((e) => e.key === item.exercise);
      return exercise === undefined ? [] : [{ item, exercise }];
    }),
  );
  return (
    <div className="col-span-full mb-2">
      <p className="flex flex-wrap items-center gap-x-4 font-semibold text-heather-deep">
        {roundSentence(group)}
        {onChange !== undefined && oneFootCan && (
          <button
            type="button"
            className="text-action min-h-9 text-sm font-normal"
            onClick={() =>
              onChange(
                items.map((i) =>
                  i.round?.key === round.key ? { ...i, round: { ...round, feet: other } } : i,
                ),
              )
            }
          >
            {other === 'through' ? say('One foot through all first') : say('Both feet in each')}
          </button>
        )}
      </p>
      {soon.map((s) => (
        <p key={s.exercise} className="text-sm text-hold-deep">
          {say(
            '{{exercise}} comes again on the same foot after {{round}} s; by itself it rests {{leastSeconds}} s at least.',
            { exercise: s.exercise, round: Math.round(s.afterSeconds), leastSeconds: s.leastSeconds },
          )}
        </p>
      ))}
    </div>
  );
}

/** Puts an exercise into a round with the next, or ends the round between them. */
export function JoinNext({
  line,
  next,
  items,
  onChange,
}: {
  line: PlanLine;
  next: PlanLine;
  items: Items;
  onChange: (items: Items) => void;
}) {
  if (isDoneAlone(line.exercise) || isDoneAlone(next.exercise)) return null;
  const index = items.indexOf(line.item);
  const joined = line.item.round !== undefined && line.item.round.key === next.item.round?.key;
  const [does, way] = joined
    ? ([say('Part from the next'), partNext] as const)
    : ([say('In a round with the next'), joinNext] as const);
  return (
    <button
      type="button"
      className="text-action inline-flex min-h-[24px] items-center text-sm"
      aria-label={`${does}: ${line.exercise.name}, ${next.exercise.name}`}
      onClick={() => onChange(way(items, index))}
    >
      {does}
    </button>
  );
}
