import { ArrowDown, ArrowUp, X } from 'lucide-react';
import { useState } from 'react';
import {
  criterionSentences,
  homeQuestions,
  prescribe,
  type ProtocolDefinition,
  rungsOf,
  type Slot,
  type Stage,
} from '@heathstep/core';
import type { ClinicContent } from '../../../api/queries.js';
import { DoseSentence } from '../../../parts/DoseSentence.js';
import { SelectField, TextField } from '../../../parts/fields.js';
import {
  BLOCKS,
  doseOf,
  numbersIn,
  partsOf,
  slotAdded,
  slotChanged,
  slotMoved,
  slotRemoved,
  withCriterion,
  withNumber,
  withoutCriterion,
} from './protocolEdit.js';

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
        <TextField label="Name" maxLength={60} value={stage.name} onChange={(name) => change({ name })} />
        <TextField
          label="The patient reads"
          value={stage.purpose.patient}
          onChange={(patient) => change({ purpose: { ...stage.purpose, patient } })}
        />
        <TextField
          wide
          label="What it is for"
          value={stage.purpose.clinician}
          onChange={(clinician) => change({ purpose: { ...stage.purpose, clinician } })}
        />
      </div>
      <Times {...props} />
      <Criteria {...props} />
      <Slots {...props} />
    </div>
  );
}

/** A whole number that is taken as soon as it is one within its bounds; anything else stays to be put right. */
function NumberField({
  label,
  value,
  max,
  min = 0,
  step = 1,
  onChange,
}: {
  label: string;
  value: number;
  max: number;
  min?: number;
  step?: number;
  onChange: (value: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const read = (text: string): number | null => {
    const number = Number(text.replace(',', '.'));
    const fits = text.trim() !== '' && Number.isFinite(number) && number >= min && number <= max;
    return fits && (step < 1 || Number.isInteger(number)) ? number : null;
  };
  const wrong = typed !== null && read(typed) === null;
  return (
    <TextField
      label={label}
      field="field w-20 text-right"
      inputMode="decimal"
      maxLength={6}
      value={typed ?? String(value)}
      error={wrong ? `From ${min} to ${max}` : null}
      onBlur={() => {
        if (!wrong) setTyped(null);
      }}
      onChange={(text) => {
        setTyped(text);
        const number = read(text);
        if (number !== null && number !== value) onChange(number);
      }}
    />
  );
}

function Times({ stage, change }: StageEditorProps) {
  const weeks = stage.usualWeeks;
  return (
    <div className="mt-4 flex flex-wrap gap-x-5 gap-y-2">
      <NumberField
        label="Usual weeks, from"
        value={weeks.min}
        max={104}
        onChange={(min) => change({ usualWeeks: { ...weeks, min } })}
      />
      <NumberField
        label="to"
        value={weeks.max}
        max={104}
        onChange={(max) => change({ usualWeeks: { ...weeks, max } })}
      />
      <NumberField
        label="At least, days"
        value={stage.minimumDays}
        max={365}
        onChange={(minimumDays) => change({ minimumDays })}
      />
      <NumberField
        label="Reviewed every, days"
        min={1}
        value={stage.reviewEveryDays}
        max={365}
        onChange={(reviewEveryDays) => change({ reviewEveryDays })}
      />
      <NumberField
        label="Slow load up by at most, %"
        value={stage.loadRisePercent}
        max={100}
        onChange={(loadRisePercent) => change({ loadRisePercent })}
      />
      <NumberField
        label="Impact up by at most, %"
        value={stage.impactRisePercent}
        max={100}
        onChange={(impactRisePercent) => change({ impactRisePercent })}
      />
    </div>
  );
}

function Criteria({ stage, protocol, content, change }: StageEditorProps) {
  if (stage.criteria === null)
    return <p className="mt-5 text-ink-2">Upkeep has no criteria: it goes on as long as it does good.</p>;
  const criteria = stage.criteria;
  const on = {
    lookup: (key: string) => content.measures.find((m) => m.key === key),
    questionNames: Object.fromEntries(homeQuestions(protocol).map((q) => [q.key, q.name])),
    affected: 'left' as const,
  };
  const parts = partsOf(criteria);
  return (
    <section aria-label="Criteria" className="mt-5">
      <h2 className="text-lg">Goes on when all of it holds</h2>
      <ul className="border-t border-line-2">
        {parts.map((part, i) => (
          <li
            key={i}
            className="grid grid-cols-[minmax(0,1fr)_auto_2.75rem] items-end gap-4 border-b border-line-2 py-2"
          >
            <span className="self-center">{criterionSentences(part, on).join('; ')}</span>
            <span className="flex flex-wrap gap-3">
              {numbersIn(part).map((n) => (
                <NumberField
                  key={n.path.join('.')}
                  label={n.name}
                  value={n.value}
                  max={1000}
                  step={0.05}
                  onChange={(value) =>
                    change({
                      criteria: { all: parts.map((p, j) => (j === i ? withNumber(p, n.path, value) : p)) },
                    })
                  }
                />
              ))}
            </span>
            <IconButton
              label={`Ask no more for ${criterionSentences(part, on).join('; ')}`}
              disabled={parts.length < 2}
              press={() => change(withoutCriterion(stage, i))}
            >
              <X className="size-4" aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
      <AddCriterion stage={stage} content={content} change={change} />
    </section>
  );
}

function AddCriterion({ stage, content, change }: Omit<StageEditorProps, 'protocol'>) {
  const [block, setBlock] = useState('');
  const [measure, setMeasure] = useState('');
  const chosen = BLOCKS.find((b) => b.key === block);
  const ready = chosen !== undefined && (!chosen.measure || measure !== '');
  return (
    <div className="mt-2 flex flex-wrap items-end gap-4">
      <SelectField
        label="Also ask for"
        value={block}
        options={[['', 'choose'], ...BLOCKS.map((b) => [b.key, b.name] as const)]}
        onChange={setBlock}
      />
      {chosen?.measure === true && (
        <SelectField
          label="Which measure"
          value={measure}
          options={[['', 'choose'], ...content.measures.map((m) => [m.key, m.label] as const)]}
          onChange={setMeasure}
        />
      )}
      <button
        type="button"
        className="action-quiet"
        disabled={!ready}
        onClick={() => {
          if (chosen === undefined) return;
          change(withCriterion(stage, chosen.make(measure), chosen.measure ? measure : null));
          setBlock('');
          setMeasure('');
        }}
      >
        Add it
      </button>
    </div>
  );
}

function Slots({ stage, content, change }: StageEditorProps) {
  const { slots } = stage;
  const put = (next: readonly Slot[]) => change({ slots: next });
  const [adding, setAdding] = useState('');
  const added = content.exercises.find((e) => e.key === adding);
  return (
    <section aria-label="Slots" className="mt-6">
      <h2 className="text-lg">Filled with, most important first</h2>
      <ol className="border-t border-line-2">
        {slots.map((slot, i) => (
          <SlotRow
            key={slot.key}
            slot={slot}
            number={i + 1}
            last={i === slots.length - 1}
            content={content}
            change={(change) => put(slotChanged(slots, i, change))}
            move={(by) => put(slotMoved(slots, i, by))}
            remove={() => put(slotRemoved(slots, i))}
          />
        ))}
      </ol>
      <div className="mt-2 flex flex-wrap items-end gap-4">
        <SelectField
          label="Also fill with"
          value={adding}
          options={[['', 'choose an exercise'], ...content.exercises.map((e) => [e.key, e.name] as const)]}
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
          Add a slot
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
  content,
  change,
  move,
  remove,
}: {
  slot: Slot;
  number: number;
  last: boolean;
  content: ClinicContent;
  change: (change: Partial<Slot>) => void;
  move: (by: -1 | 1) => void;
  remove: () => void;
}) {
  const start = content.exercises.find((e) => e.key === slot.start);
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] items-end gap-x-4 border-b border-line-2 py-2">
      <TextField
        label={`${number}. What for`}
        value={slot.purpose}
        onChange={(purpose) => change({ purpose })}
      />
      <SelectField
        label="From"
        value={slot.start}
        options={rungsOf(content.exercises, slot.ladder).map((e) => [e.key, e.name] as const)}
        onChange={(key) => change({ start: key, dose: undefined, table: undefined })}
      />
      <span className="flex">
        <IconButton label={`${slot.purpose}: more important`} disabled={number === 1} press={() => move(-1)}>
          <ArrowUp className="size-4" aria-hidden />
        </IconButton>
        <IconButton label={`${slot.purpose}: less important`} disabled={last} press={() => move(1)}>
          <ArrowDown className="size-4" aria-hidden />
        </IconButton>
        <IconButton label={`Take out ${slot.purpose}`} disabled={false} press={remove}>
          <X className="size-4" aria-hidden />
        </IconButton>
      </span>
      {start !== undefined && (
        <div className="col-span-full text-sm">
          {(slot.table ?? []).length > 0 ? (
            <p className="text-ink-2">Its numbers go by the week of the stage.</p>
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
    </li>
  );
}

function IconButton({
  label,
  disabled,
  press,
  children,
}: {
  label: string;
  disabled: boolean;
  press: () => void;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      disabled={disabled}
      className="inline-flex size-11 items-center justify-center text-ink-2 hover:text-heather-deep disabled:opacity-40"
      onClick={press}
    >
      {children}
    </button>
  );
}
