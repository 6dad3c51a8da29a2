import { say } from '@heathstep/core';
import type { PersonRow } from '@heathstep/contracts';
import type { ClinicContent } from '../api/queries.js';
import { finderOf } from '../parts/finder.js';
import { measuresOf } from '../parts/measureFinder.js';

/** Something to go to. */
export interface Hit {
  readonly group: string;
  readonly name: string;
  /** What tells it from others of its name. */
  readonly beside: string;
  readonly to: string;
}

const PLACES: readonly Hit[] = (
  [
    [say('Day'), say('who needs a look today'), '/day'],
    [say('People'), say('find or add someone'), '/people'],
    [say('Add a person'), say('a new one'), '/people?add=1'],
    [say('Exercises'), say('the library on its stairs'), '/library'],
    [say('Protocols'), say('stages, criteria, slots'), '/library/protocols'],
    [say('Bands and equipment'), say('what they pull at, what stands in'), '/library/equipment'],
    [say('Measures'), say('how each is taken'), '/measures'],
    [say('Outcomes'), say('what became of people, by protocol'), '/outcomes'],
    [say('Clinic'), say('who works here, what it says of itself, the log'), '/clinic'],
  ] as const
).map(([name, beside, to]) => ({ group: say('Places'), name, beside, to }));

/** How many of a kind are shown. */
const MOST = 5;

/** Finds in everything that does not change from key to key; made once for the clinic's content. */
export function lookUpOf(content: ClinicContent): (asked: string) => readonly Hit[] {
  const places = finderOf(PLACES, (p) => `${p.name} ${p.beside}`);
  const exercises = finderOf(
    content.exercises,
    (e) => [e.name, ...(e.also ?? []), ...e.parts].join(' '),
    (e) => [e.name, ...(e.also ?? [])].join(' '),
  );
  const measures = measuresOf(content.measures);
  const complaints = finderOf(
    content.pathways.filter((p) => p.protocol !== null),
    (p) => [p.name, p.gloss, ...p.also].join(' '),
  );
  const terms = (x: { readonly also?: readonly string[] | undefined }) =>
    (x.also ?? []).slice(0, 2).join(', ');
  return (asked) =>
    asked.trim() === ''
      ? PLACES
      : [
          ...places(asked).slice(0, MOST),
          ...measures(asked)
            .slice(0, MOST)
            .map((m) => ({
              group: say('Measures'),
              name: m.label,
              beside: terms(m) || m.brief,
              to: `/measures?show=${m.key}`,
            })),
          ...exercises(asked)
            .slice(0, MOST)
            .map((e) => ({
              group: say('Exercises'),
              name: e.name,
              beside: terms(e),
              to: `/library/${e.key}`,
            })),
          ...complaints(asked)
            .slice(0, MOST)
            .map((p) => ({
              group: say('Protocols'),
              name: p.name,
              beside: p.also.slice(0, 2).join(', '),
              to: `/library/protocols/${p.protocol ?? ''}`,
            })),
        ];
}

/** People as something to go to. */
export const peopleHits = (people: readonly PersonRow[]): readonly Hit[] =>
  people.slice(0, MOST).map((p) => ({
    group: say('People'),
    name: p.name,
    beside: p.birthDate === null ? p.occupation : say('born {{birthDate}}', { birthDate: p.birthDate }),
    to: `/people/${p.id}`,
  }));
