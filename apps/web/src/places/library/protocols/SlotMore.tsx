import { X } from 'lucide-react';
import {
  type ExerciseDefinition,
  prescribe,
  type ProtocolDefinition,
  rungsOf,
  type Slot,
  say,
} from '@heathstep/core';
import type { ClinicContent } from '../../../api/queries.js';
import { DoseSentence } from '../../../parts/DoseSentence.js';
import { type Options, SelectField, Several } from '../../../parts/fields.js';
import { CriteriaEditor } from './CriteriaEditor.js';
import { IconButton, NumberField } from './editorFields.js';
import { doseOf } from './protocolEdit.js';

const SIDES: Options = [
  ['treated', say('the treated side')],
  ['both', say('both sides')],
];

interface SlotMoreProps {
  readonly slot: Slot;
  readonly start: ExerciseDefinition;
  readonly protocol: ProtocolDefinition;
  readonly content: ClinicContent;
  readonly change: (change: Partial<Slot>) => void;
}

/** What else a slot says: sides, what asks for it, higher starts by a measure, and its numbers by the week. */
export function SlotMore(props: SlotMoreProps) {
  const { slot, content, change } = props;
  return (
    <details className="col-span-full text-sm">
      <summary className="min-h-9 text-ink-2">
        {say('More: sides, drivers, higher starts, numbers by the week')}
      </summary>
      <div className="grid gap-3 pb-3 pl-4">
        <div className="flex flex-wrap items-end gap-6">
          <SelectField
            label={say('Done on')}
            value={slot.sideRule}
            options={SIDES}
            onChange={(sideRule) => change({ sideRule: sideRule as Slot['sideRule'] })}
          />
          <Tick
            label={say('The dose is the point: filled first and whole')}
            on={slot.whole === true}
            set={(on) => change({ whole: on ? true : undefined })}
          />
          <Tick
            label={say('Only where one of its drivers was found')}
            on={slot.onlyForDriver === true}
            set={(on) => change({ onlyForDriver: on ? true : undefined })}
          />
        </div>
        <Several
          label={say('More important with')}
          options={content.drivers.map((d) => [d.key, d.label.toLowerCase()] as const)}
          value={slot.drivers ?? []}
          onChange={(drivers) => change({ drivers: drivers.length === 0 ? undefined : drivers })}
        />
        <Rungs {...props} />
        <Table {...props} />
      </div>
    </details>
  );
}

function Tick({ label, on, set }: { label: string; on: boolean; set: (on: boolean) => void }) {
  return (
    <label className="inline-flex min-h-11 items-center gap-2">
      <input
        type="checkbox"
        className="size-4 accent-heather"
        checked={on}
        onChange={(e) => set(e.target.checked)}
      />
      {label}
    </label>
  );
}

/** Harder exercises of the ladder that someone starts on when the measures allow. */
function Rungs({ slot, protocol, content, change }: SlotMoreProps) {
  const rungs = slot.rungs ?? [];
  const put = (next: NonNullable<Slot['rungs']>) => change({ rungs: next.length === 0 ? undefined : next });
  const ladder = rungsOf(content.exercises, slot.ladder);
  const free = ladder.filter((e) => e.key !== slot.start && rungs.every((r) => r.exercise !== e.key));
  return (
    <div>
      {rungs.map((rung, i) => (
        <fieldset key={rung.exercise} className="border-l-2 border-line pl-3">
          <legend className="flex items-center gap-2 font-semibold">
            {say('Starts on {{name}} when', {
              name: ladder.find((e) => e.key === rung.exercise)?.name ?? rung.exercise,
            })}
            <IconButton
              label={say('No higher start on {{exercise}}', { exercise: rung.exercise })}
              disabled={false}
              press={() => put(rungs.filter((_, n) => n !== i))}
            >
              <X className="size-4" aria-hidden />
            </IconButton>
          </legend>
          <CriteriaEditor
            criterion={rung.when}
            fixed
            protocol={protocol}
            content={content}
            onChange={(when) => {
              if (when !== null) put(rungs.map((r, n) => (n === i ? { ...r, when } : r)));
            }}
          />
        </fieldset>
      ))}
      {free.length > 0 && (
        <SelectField
          label={say('Start higher, on')}
          value=""
          options={[['', say('choose')], ...free.map((e) => [e.key, e.name] as const)]}
          onChange={(exercise) => {
            if (exercise !== '') put([...rungs, { exercise, when: { minDays: 1 } }]);
          }}
        />
      )}
    </div>
  );
}

/** Other numbers from a week of the stage on. */
function Table({ slot, start, change }: SlotMoreProps) {
  const table = slot.table ?? [];
  const put = (next: NonNullable<Slot['table']>) => change({ table: next.length === 0 ? undefined : next });
  const last = table[table.length - 1];
  return (
    <div>
      {table.map((row, i) => (
        <div key={i} className="flex items-end gap-4 border-b border-line-2 py-1">
          <NumberField
            label={say('From week')}
            min={1}
            max={52}
            value={row.fromWeek}
            onChange={(fromWeek) => put(table.map((r, n) => (n === i ? { ...r, fromWeek } : r)))}
          />
          <span className="flex-1">
            <DoseSentence
              prescription={prescribe(start, {
                slot: slot.key,
                sideRule: slot.sideRule,
                affected: 'left',
                dose: { ...slot.dose, ...row.dose },
              })}
              exercise={start}
              onChange={(next) =>
                put(table.map((r, n) => (n === i ? { ...r, dose: doseOf(next, start) } : r)))
              }
            />
          </span>
          <IconButton
            label={say('No other numbers from week {{fromWeek}}', { fromWeek: row.fromWeek })}
            disabled={false}
            press={() => put(table.filter((_, n) => n !== i))}
          >
            <X className="size-4" aria-hidden />
          </IconButton>
        </div>
      ))}
      <button
        type="button"
        className="text-action min-h-11"
        onClick={() => put([...table, { fromWeek: (last?.fromWeek ?? -1) + 2, dose: last?.dose ?? {} }])}
      >
        {table.length === 0 ? say('Set the numbers by the week') : say('From another week on')}
      </button>
    </div>
  );
}
