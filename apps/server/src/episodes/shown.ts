import type { EpisodeView, HomeEntryView, StopPayload } from '@heathstep/contracts';
import type { Person } from '../persistence/entities.js';
import type { ClosureText, EpisodeRows } from './rows.js';

/** Closed or overridden safety rules, as the views carry them. */
export const ruleClosuresOf = (closures: readonly ClosureText[]): EpisodeView['closures'] =>
  closures
    .filter((c) => c.subject.startsWith('rule:'))
    .map((c) => ({
      rule: c.subject.slice(5),
      side: c.side,
      kind: c.kind,
      text: c.text,
      visitId: c.visitId,
      at: c.at.toISOString(),
      by: c.author,
    }));

/** Stop signs reported from home that nobody has closed; a pause only ends its exercise and stays out. */
export const openStopsOf = (
  home: readonly HomeEntryView[],
  closures: readonly ClosureText[],
): EpisodeView['openStops'] =>
  home
    .filter((e) => e.kind === 'stop' && (e.payload as StopPayload).grade !== 'pause')
    .filter((e) => closures.every((c) => c.subject !== `stop:${e.id}`))
    .map((e) => ({
      id: e.id,
      day: e.day,
      grade: (e.payload as StopPayload).grade,
      sign: (e.payload as StopPayload).sign,
    }));

/** The person of an episode, with the age on the clinic's day. */
export const personOf = (person: Person, ageYears: number | null): EpisodeView['person'] => ({
  id: person.id,
  name: person.name,
  birthDate: person.birthDate,
  ageYears,
  occupation: person.occupation,
  sex: person.sex,
  language: person.language,
  version: person.version,
});

/** The way to the home page as it stands; null where none was made or it was taken back. */
export const homeLinkOf = (
  link: (EpisodeRows['links'] extends ReadonlyMap<string, infer Link> ? Link : never) | undefined,
): EpisodeView['homeLink'] =>
  link === undefined || link.revokedAt !== null
    ? null
    : {
        createdAt: link.createdAt.toISOString(),
        locked: link.lockedAt !== null,
        expiresAt: link.expiresAt.toISOString(),
      };
