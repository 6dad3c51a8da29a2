import { Popover } from 'radix-ui';
import { Pane } from '../../parts/Pane.js';
import { BUILDS, say } from '@heathstep/core';
import { CLOTHES, setAppearance, SKINS, useAppearance } from '../../parts/appearance.js';

const CHOICES = [
  ['skin', say('Skin'), Object.keys(SKINS)],
  ['clothes', say('Clothes'), Object.keys(CLOTHES)],
  ['build', say('Build'), Object.keys(BUILDS)],
] as const;

/** How the people in the drawings look on this device, on screen and on what is printed from it. */
export function DrawnAs() {
  const appearance = useAppearance();
  return (
    <Popover.Root>
      <Popover.Trigger className="text-action min-h-11">{say('Drawn as')}</Popover.Trigger>
      <Pane align="end" className="w-72 p-4">
        {CHOICES.map(([part, label, words]) => (
          <label key={part} className="mb-2 block">
            <span className="block text-sm text-ink-2">{label}</span>
            <select
              className="field min-h-11"
              value={appearance[part]}
              onChange={(e) => setAppearance({ ...appearance, [part]: e.target.value })}
            >
              {words.map((w) => (
                <option key={w} value={w}>
                  {w}
                </option>
              ))}
              <option value="mixed">{say('mixed')}</option>
            </select>
          </label>
        ))}
        <p className="text-sm text-ink-2">{say('For this device and what is printed from it.')}</p>
      </Pane>
    </Popover.Root>
  );
}
