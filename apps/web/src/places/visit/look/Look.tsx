import { say } from '@heathstep/core';
import { Tabs } from 'radix-ui';
import { useState } from 'react';
import type { LookPanel } from '@heathstep/content';
import { BodyMap } from '../../../parts/BodyMap.js';
import { Findings } from '../findings/Findings.js';
import { AddMeasure } from '../AddMeasure.js';
import type { LiveVisit } from '../live.js';
import { panelDone } from '../progress.js';
import { Rows } from '../rows/Rows.js';
import { Legend, Onward, rowsOf } from '../Steps.js';
import { CallusPanel, WearPanel } from './Areas.js';
import { NumbPanel, TenderPanel } from './Feeling.js';
import { PointsPanel } from './Points.js';
import { ToesPanel } from './Toes.js';

const PANELS: Record<
  LookPanel,
  { readonly label: string; readonly draw: (live: LiveVisit) => React.ReactNode }
> = {
  pain: { label: say('Pain'), draw: (live) => <PainPanel live={live} /> },
  points: { label: say('Support points'), draw: (live) => <PointsPanel live={live} /> },
  toes: { label: say('Toe shapes'), draw: (live) => <ToesPanel live={live} /> },
  callus: { label: say('Callus'), draw: (live) => <CallusPanel live={live} /> },
  wear: { label: say('Shoe wear'), draw: (live) => <WearPanel live={live} /> },
  numb: { label: say('Feeling'), draw: (live) => <NumbPanel live={live} /> },
  tender: { label: say('Tender bone'), draw: (live) => <TenderPanel live={live} /> },
};

const LOOK_PANELS: readonly LookPanel[] = ['pain', 'points', 'toes', 'callus', 'wear'];
const FEEL_PANELS: readonly LookPanel[] = ['numb', 'tender', 'pain'];

function PainPanel({ live }: { live: LiveVisit }) {
  return (
    <BodyMap
      wide
      chosen={live.get('story.regions') ?? []}
      onChange={(next) => live.set('story.regions', next)}
    />
  );
}

/** Drawings to mark, one at a time, with what has been marked and what the condition wants. */
function Drawings({ live, panels }: { live: LiveVisit; panels: readonly LookPanel[] }) {
  const [first = 'pain'] = panels;
  const [panel, setPanel] = useState<LookPanel>(
    () => panels.find((p) => live.panels.includes(p) && !panelDone(p, live.readings.entries)) ?? first,
  );
  return (
    <Tabs.Root asChild value={panel} onValueChange={(chosen) => setPanel(chosen as LookPanel)}>
      <section aria-label={say('Drawings')} className="mb-4">
        <Tabs.List aria-label={say('Drawing to mark')} className="flex flex-wrap gap-1 border-b border-line">
          {panels.map((p) => {
            const done = panelDone(p, live.readings.entries);
            const wanted = live.panels.includes(p);
            return (
              <Tabs.Trigger
                key={p}
                value={p}
                className="min-h-11 border-b-2 border-transparent px-3 data-[state=active]:border-heather data-[state=active]:font-semibold data-[state=active]:text-heather-deep"
              >
                {PANELS[p].label}
                <span className="ml-1.5 text-sm text-ink-2">{done ? '✓' : wanted ? say('wanted') : ''}</span>
              </Tabs.Trigger>
            );
          })}
        </Tabs.List>
        <Tabs.Content value={panel} className="pt-3" tabIndex={-1}>
          {PANELS[panel].draw(live)}
        </Tabs.Content>
      </section>
    </Tabs.Root>
  );
}

/** Socks off, both feet: what is seen, marked on drawings, and the shape of the foot as measures. */
export function Look({ live }: { live: LiveVisit }) {
  const measures = rowsOf(live, 'look');
  return (
    <div>
      <Drawings live={live} panels={LOOK_PANELS} />
      {measures.length > 0 && <Legend />}
      <Rows live={live} measures={measures} />
      <AddMeasure live={live} step="look" />
      <Onward live={live} step="look" />
    </div>
  );
}

/** Hands on: feeling, pulses, tender bone, and what else the fingers tell. */
export function Feel({ live }: { live: LiveVisit }) {
  const measures = rowsOf(live, 'feel');
  return (
    <div>
      <Findings live={live} />
      {measures.length > 0 && <Legend />}
      <Rows live={live} measures={measures} />
      <AddMeasure live={live} step="feel" />
      <Drawings live={live} panels={FEEL_PANELS} />
      <Onward live={live} step="feel" />
    </div>
  );
}
