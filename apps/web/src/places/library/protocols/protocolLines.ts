import {
  criterionSentences,
  questionsByKey,
  type ProtocolDefinition,
  type Stage,
  say,
  sayKey,
} from '@heathstep/core';
import type { Change } from '../../../parts/Changes.js';
import { slotLine, weekLimits } from '../../../parts/stageWords.js';
import type { ClinicContent } from '../../../api/queries.js';

/** What a protocol says under one heading, a line a thing. */
export interface Section {
  readonly title: string;
  readonly lines: readonly string[];
}

/** A stage in words, section by section; the same words wherever a stage is read or compared. */
export function stageSections(
  stage: Stage,
  protocol: ProtocolDefinition,
  content: ClinicContent,
): readonly Section[] {
  const on = {
    lookup: (key: string) => content.measures.find((m) => m.key === key),
    questions: questionsByKey(protocol),
    affected: 'left' as const,
  };
  const sections: Section[] = [
    {
      title: say('For'),
      lines: [
        stage.purpose.clinician,
        say('The patient reads: {{patient}}', { patient: stage.purpose.patient }),
      ],
    },
    {
      title: say('Time'),
      lines: [
        say('Usually {{min}} to {{max}} weeks', { min: stage.usualWeeks.min, max: stage.usualWeeks.max }),
        ...(stage.minimumDays === 0
          ? []
          : [say('At least {{minimumDays}} days', { minimumDays: stage.minimumDays })]),
        say('Reviewed every {{reviewEveryDays}} days', { reviewEveryDays: stage.reviewEveryDays }),
      ],
    },
    {
      title: say('Begins here when'),
      lines: stage.entry === null ? [] : criterionSentences(stage.entry, on),
    },
    {
      title: say('Goes on when all of it holds'),
      lines: stage.criteria === null ? [] : criterionSentences(stage.criteria, on),
    },
    {
      title: say('Filled with, most important first'),
      lines: stage.slots.map((s) => slotLine(s, content, 'left')),
    },
    { title: say('Beside the exercises'), lines: stage.adjuncts.map((a) => a.text) },
    { title: say('A week holds'), lines: weekLimits(stage) },
    {
      title: say('Measured again'),
      lines: stage.remeasure.map((key) => on.lookup(key)?.label ?? key),
    },
  ];
  return sections.filter((s) => s.lines.length > 0);
}

const firstWords = (line: string): string => (line.split(/[:.]/)[0] ?? line).toLowerCase();

/** What holds for every stage, in words. */
function wholeSections(p: ProtocolDefinition): readonly Section[] {
  return [
    { title: say('Name'), lines: [p.name] },
    {
      title: say('How long'),
      lines: [
        say('Looked at again after {{lookAgainWeeks}} weeks without gain, referred after {{referWeeks}}', {
          lookAgainWeeks: p.lookAgainWeeks,
          referWeeks: p.referWeeks,
        }),
        ...(p.usually === '' ? [] : [say('The patient reads: {{usually}}', { usually: p.usually })]),
      ],
    },
    {
      title: say('Asked at home'),
      lines: p.home.map((q) => `${q.name}: ${q.ask} (${q.at}, ${q.kind}, ${sayKey(q.asked)})`),
    },
    {
      title: say('Chosen for each person'),
      lines: p.schools.flatMap((s) =>
        s.options.map(
          (o) =>
            `${s.question}: ${o.label}${o.key === s.default ? say(', where nobody chose') : ''}. ${o.reason}`,
        ),
      ),
    },
  ];
}

/** What some sections say otherwise than before, under one name. */
function sectionChanges(name: string, was: readonly Section[], is: readonly Section[]): readonly Change[] {
  const titles = [...new Set([...is, ...was].map((s) => s.title))];
  return titles.flatMap((title): Change[] => {
    const linesOf = (list: readonly Section[]) => list.find((s) => s.title === title)?.lines ?? [];
    const gone = linesOf(was).filter((l) => !linesOf(is).includes(l));
    const come = linesOf(is).filter((l) => !linesOf(was).includes(l));
    if (gone.length + come.length > 0) return [{ stage: name, title, gone, come }];
    const reordered = linesOf(was).join('\n') !== linesOf(is).join('\n');
    const order = say('In another order: {{list}}', { list: linesOf(is).map(firstWords).join(', ') });
    return reordered ? [{ stage: name, title, gone, come: [order] }] : [];
  });
}

/** What one version says otherwise than another, line by line: of all stages, then stage by stage in the order of the newer. */
export function changesBetween(
  before: ProtocolDefinition,
  after: ProtocolDefinition,
  content: ClinicContent,
): readonly Change[] {
  const keys = [...new Set([...after.stages, ...before.stages].map((s) => s.key))];
  return [
    ...sectionChanges(say('All stages'), wholeSections(before), wholeSections(after)),
    ...keys.flatMap((key) => {
      const sectionsOf = (protocol: ProtocolDefinition) => {
        const stage = protocol.stages.find((s) => s.key === key);
        return stage === undefined ? [] : stageSections(stage, protocol, content);
      };
      const name = [...after.stages, ...before.stages].find((s) => s.key === key)?.name ?? key;
      return sectionChanges(name, sectionsOf(before), sectionsOf(after));
    }),
  ];
}
