import {
  type Affected,
  doseSentence,
  prescribe,
  sentenceText,
  type Slot,
  type Stage,
  say,
} from '@heathstep/core';
import type { ClinicContent } from '../api/queries.js';

/** A slot in words: what for, from which exercise, at which dose, and for whom only. */
export function slotLine(slot: Slot, content: ClinicContent, affected: Affected): string {
  const e = content.exercises.find((x) => x.key === slot.start);
  if (e === undefined)
    return say('{{purpose}}: {{start}}, which is not in the library', {
      purpose: slot.purpose,
      start: slot.start,
    });
  const item = prescribe(e, { slot: slot.key, sideRule: slot.sideRule, affected, dose: slot.dose });
  const found = (slot.drivers ?? []).map((k) => content.drivers.find((d) => d.key === k)?.label ?? k);
  const where =
    slot.onlyForDriver === true
      ? say(' Only where found: {{list}}.', { list: found.join(', ').toLowerCase() })
      : '';
  return say('{{purpose}}: from {{name}}. {{sentence}}{{where}}', {
    purpose: slot.purpose,
    name: e.name.toLowerCase(),
    sentence: sentenceText(doseSentence(item, e)),
    where,
  });
}

/** The limits a stage sets to a week, in words. */
export function weekLimits(stage: Stage): string[] {
  const impact = (most: number | null, none: string, some: (n: number) => string) =>
    most === null ? [] : [most === 0 ? none : some(most)];
  return [
    say('Slow load up by at most {{loadRisePercent}} % a week', { loadRisePercent: stage.loadRisePercent }),
    say('Impact up by at most {{impactRisePercent}} % a week', {
      impactRisePercent: stage.impactRisePercent,
    }),
    ...impact(stage.contactsPerWeek, say('No landings'), (n) =>
      say('At most {{n}} landings on a foot', { n }),
    ),
    ...impact(stage.runMinutesPerWeek, say('No running'), (n) =>
      say('At most {{n}} minutes of running', { n }),
    ),
  ];
}
