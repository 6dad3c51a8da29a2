import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useState } from 'react';
import {
  type Criterion,
  measuresRead,
  prescribe,
  type ProtocolDefinition,
  rungsOf,
  type Slot,
  type Stage,
  say,
} from '@heathstep/core';
import type { ClinicContent } from '../../../api/queries.js';
import { DoseSentence } from '../../../parts/DoseSentence.js';
import { SelectField, TextField } from '../../../parts/fields.js';
import { AdjunctsEditor } from './AdjunctsEditor.js';
import { CriteriaEditor } from './CriteriaEditor.js';
import { IconButton, NumberField } from './editorFields.js';
import { SlotMore } from './SlotMore.js';
import { doseOf, slotAdded, slotChanged, slotMoved, slotRemoved } from './protocolEdit.js';

interface StageEditorProps {
  readonly stage: Stage;
  readonly protocol: ProtocolDefinition;
  readonly content: ClinicContent;
  readonly change: (change: Partial<Stage>) => void;
}

/** One stage to change: its words and times, what it is filled with, what must hold to leave it. */
export function StageEditor(props: StageEditorProps) {
  const { stage, change } = props;
  return (
    <div className="pt-3">
      <div className="grid grid-cols-2 gap-x-6 gap-y-2">
        <TextField
          label={say('Name')}
          maxLength={60}
          value={stage.name}
          onChange={(name) => change({ name })}
        />
        <TextField
          label={say('The patient reads')}
          value={stage.purpose.patient}
          onChange={(patient) => change({ purpose: { ...stage.purpose, patient } })}
        />
        <TextField
          wide
          label={say('What it is for')}
          value={stage.purpose.clinician}
          onChange={(clinician) => change({ purpose: { ...stage.purpose, clinician } })}
        />
      </div>
      <Times {...props} />
      <Criteria {...props} />
      <Entry {...props} />
      <Slots {...props} />
      <AdjunctsEditor adjuncts={stage.adjuncts} change={(adjuncts) => change({ adjuncts })} />
    </div>
  );
}

function Times({ stage, change }: StageEditorProps) {
  const weeks = stage.usualWeeks;
  return (
    <div className="mt-4 flex flex-wrap gap-x-5 gap-y-2">
      <NumberField
        label={say('Usual weeks, from')}
        value={weeks.min}
        max={104}
        onChange={(min) => change({ usualWeeks: { ...weeks, min } })}
      />
      <NumberField
        label={say('to')}
        value={weeks.max}
        max={104}
        onChange={(max) => change({ usualWeeks: { ...weeks, max } })}
      />
      <NumberField
        label={say('At least, days')}
        value={stage.minimumDays}
        max={365}
        onChange={(minimumDays) => change({ minimumDays })}
      />
      <NumberField
        label={say('Reviewed every, days')}
        min={1}
        value={stage.reviewEveryDays}
        max={365}
        onChange={(reviewEveryDays) => change({ reviewEveryDays })}
      />
      <NumberField
        label={say('Slow load up by at most, %')}
        value={stage.loadRisePercent}
        max={100}
        onChange={(loadRisePercent) => change({ loadRisePercent })}
      />
      <NumberField
        label={say('Impact up by at most, %')}
        value={stage.impactRisePercent}
        max={100}
        onChange={(impactRisePercent) => change({ impactRisePercent })}
      />
      <Limit
        label={say('Landings a week, at most')}
        value={stage.contactsPerWeek}
        onChange={(contactsPerWeek) => change({ contactsPerWeek })}
      />
      <Limit
        label={say('Minutes run a week, at most')}
        value={stage.runMinutesPerWeek}
        onChange={(runMinutesPerWeek) => change({ runMinutesPerWeek })}
      />
    </div>
  );
}

/** The most of something in a week; without a limit where none is set. */
function Limit({
  label,
  value,
  onChange,
}: {
  label: string;
  value: number | null;
  onChange: (value: number | null) => void;
}) {
  return value === null ? (
    <button type="button" className="text-action min-h-11 self-end text-sm" onClick={() => onChange(0)}>
      {say('Limit: {{label}}', { label: label.toLowerCase() })}
    </button>
  ) : (
    <span className="flex items-end gap-1">
      <NumberField label={label} max={2000} value={value} onChange={onChange} />
      <IconButton
        label={say('No limit: {{label}}', { label: label.toLowerCase() })}
        disabled={false}
        press={() => onChange(null)}
      >
        <X className="size-4" aria-hidden />
      </IconButton>
    </span>
  );
}

/** Measures a stage's criteria read are measured again in it. */
const readAgain = (stage: Stage, criteria: Criterion): Partial<Stage> => ({
  criteria,
  remeasure: [...new Set([...stage.remeasure, ...measuresRead(criteria)])],
});

function Criteria({ stage, protocol, content, change }: StageEditorProps) {
  if (stage.criteria === null)
    return (
      <p className="mt-5 text-ink-2">{say('Upkeep has no criteria: it goes on as long as it does good.')}</p>
    );
  return (
    <section aria-label={say('Criteria')} className="mt-5">
      <h2 className="text-lg">{say('Goes on when all of it holds')}</h2>
      <CriteriaEditor
        criterion={stage.criteria}
        fixed
        protocol={protocol}
        content={content}
        onChange={(next) => {
          if (next !== null) change(readAgain(stage, next));
        }}
      />
    </section>
  );
}

/** What lets someone begin in this stage at a first visit; the first stage asks for nothing. */
function Entry({ stage, protocol, content, change }: StageEditorProps) {
  if (protocol.stages[0]?.key === stage.key) return null;
  return (
    <section aria-label={say('Entry')} className="mt-6">
      <h2 className="text-lg">{say('A first visit begins here when all of it holds')}</h2>
      {stage.entry === null && (
        <p className="text-sm text-ink-2">{say('Nothing is asked: no one begins here at a first visit.')}</p>
      )}
      <CriteriaEditor
        criterion={stage.entry ?? { all: [] }}
        protocol={protocol}
        content={content}
        onChange={(entry) => change({ entry })}
      />
    </section>
  );
}

function Slots({ stage, protocol, content, change }: StageEditorProps) {
  const { slots } = stage;
  const put = (next: readonly Slot[]) => change({ slots: next });
  const [adding, setAdding] = useState('');
  const added = content.exercises.find((e) => e.key === adding);
  return (
    <section aria-label={say('Slots')} className="mt-6">
      <h2 className="text-lg">{say('Filled with, most important first')}</h2>
      <ol className="border-t border-line-2">
        {slots.map((slot, i) => (
          <SlotRow
            key={slot.key}
            slot={slot}
            number={i + 1}
            last={i === slots.length - 1}
            protocol={protocol}
            content={content}
            change={(change) => put(slotChanged(slots, i, change))}
            move={(by) => put(slotMoved(slots, i, by))}
            remove={() => put(slotRemoved(slots, i))}
          />
        ))}
      </ol>
      <div className="mt-2 flex flex-wrap items-end gap-4">
        <SelectField
          label={say('Also fill with')}
          value={adding}
          options={[
            ['', say('choose an exercise')],
            ...content.exercises.map((e) => [e.key, e.name] as const),
          ]}
          onChange={setAdding}
        />
        <button
          type="button"
          className="action-quiet"
          disabled={added === undefined}
          onClick={() => {
            if (added === undefined) return;
            put(
              slotAdded(slots, {
                purpose: added.name,
                aim: added.aim,
                ladder: added.ladder,
                start: added.key,
                sideRule: 'treated',
              }),
            );
            setAdding('');
          }}
        >
          {say('Add a slot')}
        </button>
      </div>
    </section>
  );
}

/** A slot: what for, from which rung of its ladder, at which dose, and how important. */
function SlotRow({
  slot,
  number,
  last,
  protocol,
  content,
  change,
  move,
  remove,
}: {
  slot: Slot;
  number: number;
  last: boolean;
  protocol: ProtocolDefinition;
  content: ClinicContent;
  change: (change: Partial<Slot>) => void;
  move: (by: -1 | 1) => void;
  remove: () => void;
}) {
  const start = content.exercises.find((e) => e.key === slot.start);
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] items-end gap-x-4 border-b border-line-2 py-2">
      <TextField
        label={say('{{number}}. What for', { number })}
        value={slot.purpose}
        onChange={(purpose) => change({ purpose })}
      />
      <SelectField
        label={say('From')}
        value={slot.start}
        options={rungsOf(content.exercises, slot.ladder).map((e) => [e.key, e.name] as const)}
        onChange={(key) => change({ start: key, dose: undefined, table: undefined })}
      />
      <span className="flex">
        <IconButton
          label={say('{{purpose}}: more important', { purpose: slot.purpose })}
          disabled={number === 1}
          press={() => move(-1)}
        >
          <ArrowUp className="size-4" aria-hidden />
        </IconButton>
        <IconButton
          label={say('{{purpose}}: less important', { purpose: slot.purpose })}
          disabled={last}
          press={() => move(1)}
        >
          <ArrowDown className="size-4" aria-hidden />
        </IconButton>
        <IconButton
          label={say('Take out {{purpose}}', { purpose: slot.purpose })}
          disabled={false}
          press={remove}
        >
          <X className="size-4" aria-hidden />
        </IconButton>
      </span>
      {start !== undefined && (
        <div className="col-span-full text-sm">
          {(slot.table ?? []).length > 0 ? (
            <p className="text-ink-2">{say('Its numbers go by the week of the stage.')}</p>
          ) : (
            <DoseSentence
              prescription={prescribe(start, {
                slot: slot.key,
                sideRule: slot.sideRule,
                affected: 'left',
                dose: slot.dose,
              })}
              exercise={start}
              onChange={(next) => change({ dose: doseOf(next, start) })}
            />
          )}
        </div>
      )}
      {start !== undefined && (
        <SlotMore slot={slot} start={start} protocol={protocol} content={content} change={change} />
      )}
    </li>
  );
}
