import type { Tongue } from '../quantity/tongue.js';
import type { ExerciseDefinition } from './definition.js';

/** An exercise with everything a patient reads of it in a tongue; keys, numbers and tags stay. */
export const exerciseIn = (t: Tongue, e: ExerciseDefinition): ExerciseDefinition => ({
  ...e,
  name: t.say(e.name),
  steps: e.steps.map((s) => t.say(s)),
  feel: t.say(e.feel),
  faults: e.faults.map((f) => ({ fault: t.say(f.fault), fix: t.say(f.fix) })),
  stops: e.stops.map((s) => t.say(s)),
  equipment: e.equipment.map((s) => t.say(s)),
  place: t.say(e.place),
  beats: [t.say(e.beats[0]), t.say(e.beats[1])],
  variants: e.variants.map((v) => ({ ...v, name: t.say(v.name), how: t.say(v.how) })),
  when: e.when === null ? null : t.say(e.when),
});

/** The texts of an exercise that `exerciseIn` says. */
export const textsOfExercise = (e: ExerciseDefinition): readonly string[] => {
  const texts: string[] = [];
  exerciseIn(
    {
      say: (text) => {
        texts.push(text);
        return text;
      },
      inside: (text) => text,
      number: String,
    },
    e,
  );
  return texts;
};
