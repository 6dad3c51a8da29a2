import { type Affected, doseSentence, prescribe, sentenceText, type Slot, type Stage } from '@heathstep/core';
import type { ClinicContent } from '../api/queries.js';

/** A slot in words: what for, from which exercise, at which dose, and for whom only. */
export function slotLine(slot: Slot, content: ClinicContent, affected: Affected): string {
  const e = content.exercises.find((x) => x.key === slot.start);
  if (e === undefined) return `${slot.purpose}: ${slot.start}, which is not in the library`;
  const item = prescribe(e, { slot: slot.key, sideRule: slot.sideRule, affected, dose: slot.dose });
  const found = (slot.drivers ?? []).map((k) => content.drivers.find((d) => d.key === k)?.label ?? k);
  const where = slot.onlyForDriver === true ? ` Only where found: ${found.join(', ').toLowerCase()}.` : '';
  return `${slot.purpose}: from ${e.name.toLowerCase()}. ${sentenceText(doseSentence(item, e))}${where}`;
}

/** The limits a stage sets to a week, in words. */
export function weekLimits(stage: Stage): string[] {
  const impact = (most: number | null, none: string, some: (n: number) => string) =>
    most === null ? [] : [most === 0 ? none : some(most)];
  return [
    `Slow load up by at most ${stage.loadRisePercent} % a week`,
    `Impact up by at most ${stage.impactRisePercent} % a week`,
    ...impact(stage.contactsPerWeek, 'No landings', (n) => `At most ${n} landings on a foot`),
    ...impact(stage.runMinutesPerWeek, 'No running', (n) => `At most ${n} minutes of running`),
  ];
}
