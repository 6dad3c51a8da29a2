import { criterionSentences, questionsByKey, type ProtocolDefinition, type Stage } from '@heathstep/core';
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
    { title: 'For', lines: [stage.purpose.clinician, `The patient reads: ${stage.purpose.patient}`] },
    {
      title: 'Time',
      lines: [
        `Usually ${stage.usualWeeks.min} to ${stage.usualWeeks.max} weeks`,
        ...(stage.minimumDays === 0 ? [] : [`At least ${stage.minimumDays} days`]),
        `Reviewed every ${stage.reviewEveryDays} days`,
      ],
    },
    { title: 'Begins here when', lines: stage.entry === null ? [] : criterionSentences(stage.entry, on) },
    {
      title: 'Goes on when all of it holds',
      lines: stage.criteria === null ? [] : criterionSentences(stage.criteria, on),
    },
    {
      title: 'Filled with, most important first',
      lines: stage.slots.map((s) => slotLine(s, content, 'left')),
    },
    { title: 'Beside the exercises', lines: stage.adjuncts.map((a) => a.text) },
    { title: 'A week holds', lines: weekLimits(stage) },
    {
      title: 'Measured again',
      lines: stage.remeasure.map((key) => on.lookup(key)?.label ?? key),
    },
  ];
  return sections.filter((s) => s.lines.length > 0);
}

const firstWords = (line: string): string => (line.split(/[:.]/)[0] ?? line).toLowerCase();

/** What holds for every stage, in words. */
function wholeSections(p: ProtocolDefinition): readonly Section[] {
  return [
    { title: 'Name', lines: [p.name] },
    {
      title: 'How long',
      lines: [
        `Looked at again after ${p.lookAgainWeeks} weeks without gain, referred after ${p.referWeeks}`,
        ...(p.usually === '' ? [] : [`The patient reads: ${p.usually}`]),
      ],
    },
    {
      title: 'Asked at home',
      lines: p.home.map((q) => `${q.name}: ${q.ask} (${q.at}, ${q.kind}, ${q.asked.replaceAll('-', ' ')})`),
    },
    {
      title: 'Chosen for each person',
      lines: p.schools.flatMap((s) =>
        s.options.map(
          (o) => `${s.question}: ${o.label}${o.key === s.default ? ', where nobody chose' : ''}. ${o.reason}`,
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
    const order = `In another order: ${linesOf(is).map(firstWords).join(', ')}`;
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
    ...sectionChanges('All stages', wholeSections(before), wholeSections(after)),
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
