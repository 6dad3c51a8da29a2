import { say, shown, SIDES } from '@heathstep/core';
import type { Region } from '@heathstep/core/lab';
import type { LabReading } from './reading.js';

const WORDS: Readonly<Record<Region, string>> = {
  heel: say('heel'),
  midfoot: say('midfoot'),
  m1: say('first metatarsal head'),
  m2: say('second'),
  m3: say('third'),
  m4: say('fourth'),
  m5: say('fifth'),
  bigToe: say('big toe'),
  toes: say('small toes'),
};

const COLUMNS = [
  { key: 'timeShare', word: say('load over time'), unit: ' %' },
  { key: 'peakKpa', word: say('highest'), unit: ' kPa' },
  { key: 'meanKpa', word: say('mean'), unit: ' kPa' },
  { key: 'areaCm2', word: say('area'), unit: ' cm²' },
] as const;

/** What each part of both soles carried: a table, opened when it is wanted. */
export function Parts({ reading }: { reading: LabReading }) {
  const { left, right } = reading.parts;
  const regions = (left.length > 0 ? left : right).map((p) => p.region);
  if (regions.length === 0) return null;
  return (
    <details className="text-sm">
      <summary className="min-h-8 text-ink-2">{say('By part of the sole')}</summary>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label={say('By part of the sole')}>
        <table className="mt-1 text-left">
          <thead>
            <tr>
              <th scope="col" className="pr-4">
                {say('Part')}
              </th>
              {SIDES.flatMap((side) =>
                COLUMNS.map(({ key, word }) => (
                  <th
                    key={`${side}${key}`}
                    scope="col"
                    className="pr-4 font-normal"
                    style={{ color: `var(--color-${side})` }}
                  >
                    {say(side)}, {word}
                  </th>
                )),
              )}
            </tr>
          </thead>
          <tbody>
            {regions.map((region) => (
              <tr key={region} className="border-t border-line-2">
                <th scope="row" className="pr-4 font-normal">
                  {WORDS[region]}
                </th>
                {SIDES.flatMap((side) => {
                  const part = reading.parts[side].find((p) => p.region === region);
                  return COLUMNS.map(({ key, unit }) => (
                    <td key={`${side}${key}`} className="pr-4">
                      {part === undefined ? '–' : `${shown(part[key], 0)}${unit}`}
                    </td>
                  ));
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </details>
  );
}
