import { besideOf, criterionSentences, questionsByKey, type Stage, say } from '@heathstep/core';
import type { CourseView } from '@heathstep/contracts';
import type { ClinicContent } from '../../api/queries.js';
import { slotLine, weekLimits } from '../../parts/stageWords.js';

/** One stage of the protocol, also a coming one: what it is for, what it holds, and what must be there to leave it. */
export function StageSheet({
  course,
  content,
  stage,
  close,
}: {
  course: CourseView;
  content: ClinicContent;
  stage: Stage;
  close: () => void;
}) {
  const { episode, protocol } = course;
  const on = {
    lookup: (key: string) => content.measures.find((m) => m.key === key),
    questions: questionsByKey(protocol),
    affected: episode.affected,
  };
  const list = (title: string, lines: readonly string[]) =>
    lines.length === 0 ? null : (
      <section className="mt-3">
        <h4 className="font-head font-semibold">{title}</h4>
        <ul className="mt-0.5 list-disc pl-5 text-sm">
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      </section>
    );
  const slots = stage.slots
    .filter((s) => Object.entries(s.school ?? {}).every(([q, o]) => episode.schools[q] === o))
    .map((slot) => slotLine(slot, content, episode.affected));
  const measures = stage.remeasure.map((key) => on.lookup(key)?.label ?? key);
  return (
    <section
      aria-label={say('Stage {{name}}', { name: stage.name })}
      className="mb-6 rounded-lg bg-paper p-5"
    >
      <div className="flex items-baseline gap-4">
        <h3 className="flex-1 text-xl">{stage.name}</h3>
        <span className="text-sm text-ink-2">
          {say('usually {{min}} to {{max}} weeks', { min: stage.usualWeeks.min, max: stage.usualWeeks.max })}
        </span>
        <button type="button" className="text-action min-h-11" onClick={close}>
          {say('Close')}
        </button>
      </div>
      <p className="text-ink-2">{stage.purpose.clinician}.</p>
      {list(say('Begins here when'), stage.entry === null ? [] : criterionSentences(stage.entry, on))}
      {list(
        say('Goes on when all of it holds'),
        stage.criteria === null
          ? []
          : [
              ...criterionSentences(stage.criteria, on),
              say('At least {{minimumDays}} days in this stage', { minimumDays: stage.minimumDays }),
            ],
      )}
      {list(say('Filled with, most important first'), slots)}
      {list(
        say('Beside'),
        besideOf(stage, episode.schools).map((a) => a.text),
      )}
      {list(say('A week holds'), weekLimits(stage))}
      <p className="mt-3 text-sm text-ink-2">
        {say(
          'Measured again: {{list}}; reviewed every {{reviewEveryDays}} days. Pain is judged by the {{painSchool}} rule.',
          {
            list: measures.join(', ').toLowerCase(),
            reviewEveryDays: stage.reviewEveryDays,
            painSchool: say(stage.painSchool),
          },
        )}
      </p>
      <p className="mt-1 text-xs text-ink-3">
        {say('{{statement}}. {{source}} ({{kind}}). Who signed it stands in the library.', {
          statement: stage.evidence.statement,
          source: stage.evidence.source,
          kind: say(stage.evidence.kind),
        })}
      </p>
    </section>
  );
}
