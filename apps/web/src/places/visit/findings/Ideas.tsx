import { Octagon } from 'lucide-react';
import { type Column, type RankedCondition, whyRank, say } from '@heathstep/core';
import { Why } from '../../../parts/Why.js';
import type { LiveVisit } from '../live.js';
import { groupIdeas, type Idea, ideaId, ideasOf, lengthOf } from './ideas.js';
import { useSettled } from './useSettled.js';
import { useWhatIf } from './whatIf.js';

/** Passing over a finding is not pointing at it. */
const POINTING_MS = 140;

const weightIn = (ranked: readonly RankedCondition[] | null, r: RankedCondition): number | null =>
  ranked?.find((x) => x.key === r.key && x.side === r.side)?.weight ?? null;

const colorOf = (side: Column): string => (side === 'none' ? 'var(--color-heather)' : `var(--color-${side})`);

/** One idea as a bar from nothing to nearly sure, without a number; marks show what either answer would do. */
export function IdeaBar({
  idea,
  present,
  absent,
}: {
  idea: Idea;
  present: number | null;
  absent: number | null;
}) {
  const { ranked } = idea;
  const at = (weight: number) => `${lengthOf(weight) * 100}%`;
  const tick = (weight: number | null, sign: string) =>
    weight === null || Math.abs(Math.log(weight / ranked.weight)) < 0.02 ? null : (
      <span
        aria-hidden
        className="absolute top-0 z-10 -translate-x-1/2 text-xs font-bold leading-none text-ink"
        style={{ left: at(weight) }}
      >
        <span className="mx-auto block h-2.5 w-0.5 bg-ink" />
        {sign}
      </span>
    );
  return (
    <span className="relative block h-2 rounded-sm bg-line-2">
      <span
        className="block h-2 rounded-sm transition-[width] duration-200 motion-reduce:transition-none"
        style={{
          width: at(ranked.weight),
          background: colorOf(ranked.side),
          opacity: ranked.rank === 'possible' ? 0.55 : 1,
        }}
      />
      {tick(present, '+')}
      {tick(absent, '−')}
    </span>
  );
}

/** Rank in words, opened up by Why down to each ratio. */
export function RankWord({ idea }: { idea: Idea }) {
  return (
    <Why
      of={() => whyRank(idea.condition, idea.ranked)}
      className={`inline-block min-h-7 text-sm ${idea.ranked.rank === 'leading' ? 'font-semibold text-heather-deep' : 'text-ink-2'}`}
      label={`${idea.condition.name}: ${say(idea.ranked.rank)}`}
    >
      {say(idea.ranked.rank)}
    </Why>
  );
}

export function RuleOut() {
  return (
    <span className="flex items-center gap-1 text-sm font-semibold text-ease-deep">
      <Octagon className="size-3.5" aria-hidden />
      {say('rule out first')}
    </span>
  );
}

/** The ranked ideas, moving as answers come. */
export function Ideas({ live, most }: { live: LiveVisit; most: number }) {
  const reasoning = live.reasoning();
  const { supposed: pointed } = useWhatIf();
  const supposed = useSettled(pointed, POINTING_MS);
  const groups = groupIdeas(ideasOf(reasoning, live.content.conditions)).slice(0, most);
  const ifPresent = supposed === null ? null : live.suppose(supposed.finding, supposed.side, 'present');
  const ifAbsent = supposed === null ? null : live.suppose(supposed.finding, supposed.side, 'absent');
  const name = live.content.findings.find((f) => f.key === supposed?.finding)?.name;
  return (
    <div>
      {reasoning.cannotTell && <p className="font-semibold">{say('Cannot tell yet')}</p>}
      {groups.length === 0 && <p className="text-sm text-ink-2">{say('Nothing specific is known yet.')}</p>}
      <ul aria-label={say('Ideas')}>
        {groups.map(({ condition, ideas: sides }) => (
          <li key={condition.key} className="py-1.5" data-idea={condition.key}>
            <span
              className={`block ${sides.some((i) => i.ranked.rank === 'leading') ? 'font-semibold' : ''}`}
            >
              {condition.name}
            </span>
            {sides.map((idea) => (
              <span key={ideaId(idea.ranked)} className="flex items-center gap-2">
                {idea.ranked.side !== 'none' && (
                  <b className="w-3 text-sm" style={{ color: colorOf(idea.ranked.side) }}>
                    {idea.ranked.side === 'left' ? 'L' : 'R'}
                  </b>
                )}
                <span className="min-w-0 flex-1">
                  <IdeaBar
                    idea={idea}
                    present={weightIn(ifPresent, idea.ranked)}
                    absent={weightIn(ifAbsent, idea.ranked)}
                  />
                </span>
                <span className="w-14 shrink-0 text-right">
                  <RankWord idea={idea} />
                </span>
              </span>
            ))}
            {sides.some((i) => i.ruleOut) && <RuleOut />}
          </li>
        ))}
      </ul>
      <p className="min-h-5 text-sm text-ink-2">
        {name === undefined ? '' : say('+ and − : {{name}}, present or absent', { name })}
      </p>
    </div>
  );
}
