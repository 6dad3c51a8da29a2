import { aboutMinutes } from './listing.js';
import { isStop } from '../forbidden.js';
import { memo, useState } from 'react';
import type { Column, FindingDefinition, NextBest, Reasoning, Side } from '@heathstep/core';
import { whyNext, say } from '@heathstep/core';
import { Why } from '../../../parts/Why.js';
import type { LiveVisit } from '../live.js';
import { Also } from '../../../parts/Also.js';
import { Answer } from './Answer.js';
import { TestPicture } from './TestPicture.js';

const FROM_WORDS: Readonly<Record<FindingDefinition['from'], string>> = {
  story: say('ask'),
  look: say('look'),
  measure: say('measure'),
  load: say('watch'),
  feel: say('feel'),
  test: say('test'),
};

/** What an answer would do, in a few words. */
function Effects({ finding, live }: { finding: FindingDefinition; live: LiveVisit }) {
  const nameOf = (key: string) => live.content.conditions.find((c) => c.key === key)?.name ?? key;
  const speaks = Object.entries(finding.ratios).filter(([, r]) => r.present !== 1 || r.absent !== 1);
  const list = (filter: (present: number) => boolean) =>
    speaks
      .filter(([, r]) => filter(r.present))
      .map(([key]) => nameOf(key).toLowerCase())
      .join(', ');
  const pro = list((p) => p > 1);
  const contra = list((p) => p < 1);
  return (
    <p className="text-sm text-ink-2">
      {pro !== '' && say('Present speaks for: {{pro}}. ', { pro })}
      {contra !== '' && say('Present speaks against: {{contra}}.', { contra })}
    </p>
  );
}

export const FindingRow = memo(function FindingRow({
  live,
  finding,
  reasoning,
  next,
  forbidden,
}: {
  live: LiveVisit;
  finding: FindingDefinition;
  reasoning: Reasoning;
  /** How much it would tell, when it is still open. */
  next: NextBest | null;
  /** Why it is not to be tested now; null when it may be. */
  forbidden: string | null;
}) {
  const [open, setOpen] = useState(false);
  const person = finding.sides === 'person';
  const columns: readonly Column[] = person ? ['none'] : ['left', 'right'];
  const cell = (side: Column) => (
    <Answer
      live={live}
      finding={finding}
      side={side}
      known={reasoning.known.at(finding.key, side)}
      quiet={!person && !reasoning.sides.includes(side)}
    />
  );
  const nameOf = (key: string) => live.content.conditions.find((c) => c.key === key)?.name ?? key;
  const shownSide: Side = reasoning.sides[0] === 'right' ? 'right' : 'left';
  return (
    <li
      data-finding={finding.key}
      className="grid grid-cols-[9.5rem_minmax(0,1fr)_9.5rem] items-center gap-x-3 border-b border-line-2 py-1 max-md:grid-cols-2"
    >
      {person ? <span /> : cell('left')}
      <div className="min-w-0 text-center max-md:order-first max-md:col-span-2 max-md:text-left">
        <span className="block font-semibold leading-5">{finding.name}</span>
        {finding.also !== undefined && (
          <span className="block leading-4">
            <Also of={finding} most={2} />
          </span>
        )}
        <span className="text-sm text-ink-2">
          <span>{FROM_WORDS[finding.from]}</span>
          {next !== null && (
            <>
              {', '}
              <Why
                of={() => whyNext(next, finding, nameOf)}
                label={say('{{name}}: why next', { name: finding.name })}
              >
                {aboutMinutes(finding.minutes)}
              </Why>
            </>
          )}
          {', '}
          <button
            type="button"
            className="text-action inline min-h-6 text-sm"
            aria-expanded={open}
            aria-label={say('How: {{name}}', { name: finding.name })}
            onClick={() => setOpen(!open)}
          >
            {say('how')}
          </button>
        </span>
        {forbidden !== null && (
          <span
            className={`block text-sm font-semibold ${isStop(forbidden) ? 'text-ease-deep' : 'text-hold-deep'}`}
          >
            {forbidden}
          </span>
        )}
      </div>
      {person ? cell('none') : cell('right')}
      {open && (
        <HowTested
          finding={finding}
          shownSide={shownSide}
          live={live}
          columns={columns}
          reasoning={reasoning}
        />
      )}
    </li>
  );
});

/** How it is tested, what it would say, and what of it is known already. */
function HowTested({
  finding,
  shownSide,
  live,
  columns,
  reasoning,
}: {
  finding: FindingDefinition;
  shownSide: Side;
  live: LiveVisit;
  columns: readonly Column[];
  reasoning: Reasoning;
}) {
  return (
    <div className="col-span-full mt-1 flex items-start justify-center gap-6 rounded bg-paper px-4 py-3">
      {finding.picture !== null && (
        <TestPicture
          picture={finding.picture}
          side={shownSide}
          label={say('{{name}}: where to press and how to move, {{shownSide}} foot, {{view}} view', {
            name: finding.name,
            shownSide: say(shownSide),
            view: say(finding.picture.view),
          })}
        />
      )}
      <div className="max-w-md">
        <p className="font-semibold">{finding.ask}</p>
        {finding.how.length > 0 && (
          <ol className="ml-5 mt-1 list-decimal">
            {finding.how.map((h) => (
              <li key={h}>{h}</li>
            ))}
          </ol>
        )}
        <Effects finding={finding} live={live} />
        {columns.map((side) => {
          const at = reasoning.known.at(finding.key, side);
          return at.by !== 'record' ? null : (
            <p
              key={side}
              className="text-sm"
            >{`${side === 'none' ? say('Known') : side === 'left' ? say('Left') : say('Right')}: ${at.because.join('; ')}`}</p>
          );
        })}
      </div>
    </div>
  );
}
