import { X } from 'lucide-react';
import { useState } from 'react';
import {
  type Criterion,
  criterionSentences,
  homeQuestions,
  type ProtocolDefinition,
  questionsByKey,
  say,
} from '@heathstep/core';
import type { ClinicContent } from '../../../api/queries.js';
import { type Options, SelectField } from '../../../parts/fields.js';
import {
  alternatives,
  type Block,
  BLOCKS,
  criterionOf,
  type Group,
  groupOf,
  type Joined,
  partChanged,
  withParts,
} from './criterionEdit.js';
import { IconButton, NumberField } from './editorFields.js';
import { numbersIn, withNumber } from './protocolEdit.js';

interface CriteriaOn {
  readonly protocol: ProtocolDefinition;
  readonly content: ClinicContent;
}

const sayingsOn = ({ protocol, content }: CriteriaOn) => ({
  lookup: (key: string) => content.measures.find((m) => m.key === key),
  questions: questionsByKey(protocol),
  affected: 'left' as const,
});

const JOINED: Options = [
  ['all', say('all of these')],
  ['any', say('one of these is enough')],
  ['some', say('so many of these')],
];

/** Criteria by building blocks: things asked with their numbers, and groups of them, one within the other. */
export function CriteriaEditor({
  criterion,
  fixed = false,
  onChange,
  ...on
}: CriteriaOn & {
  criterion: Criterion;
  /** Whether the last thing must stay: a stage is never left by itself. */
  fixed?: boolean;
  onChange: (next: Criterion | null) => void;
}) {
  // A single thing asked is a list of one, so that more can be added.
  const group = groupOf(criterion) ?? { joined: 'all' as const, parts: [criterion], atLeast: 1 };
  return <Parts group={group} fixed={fixed} onChange={onChange} on={on} />;
}

function Parts({
  group,
  fixed,
  onChange,
  on,
}: {
  group: Group;
  fixed: boolean;
  onChange: (next: Criterion | null) => void;
  on: CriteriaOn;
}) {
  const { parts } = group;
  return (
    <>
      <ul className="border-t border-line-2">
        {parts.map((part, i) => (
          <Part
            key={i}
            part={part}
            last={fixed && parts.length < 2}
            on={on}
            onChange={(next) => onChange(withParts(group, partChanged(parts, i, next)))}
          />
        ))}
      </ul>
      <AddPart on={on} add={(part) => onChange(criterionOf({ ...group, parts: [...parts, part] }))} />
    </>
  );
}

/** One thing asked, or a group of them. */
function Part({
  part,
  last,
  on,
  onChange,
}: {
  part: Criterion;
  last: boolean;
  on: CriteriaOn;
  onChange: (next: Criterion | null) => void;
}) {
  const group = groupOf(part);
  const words = criterionSentences(part, sayingsOn(on)).join('; ');
  const away = (
    <IconButton
      label={say('Ask no more for {{words}}', { words })}
      disabled={last}
      press={() => onChange(null)}
    >
      <X className="size-4" aria-hidden />
    </IconButton>
  );
  if (group !== null)
    return (
      <li className="border-b border-line-2 py-2">
        <div className="flex items-end gap-4">
          <SelectField
            label={say('Of what follows')}
            options={JOINED}
            value={group.joined}
            onChange={(joined) => onChange(criterionOf({ ...group, joined: joined as Joined, atLeast: 2 }))}
          />
          {group.joined === 'some' && (
            <NumberField
              label={say('how many')}
              min={1}
              max={group.parts.length}
              value={group.atLeast}
              onChange={(atLeast) => onChange(criterionOf({ ...group, atLeast }))}
            />
          )}
          <span className="flex-1" />
          {away}
        </div>
        <div className="ml-2 mt-1 border-l-2 border-heather pl-4">
          <Parts group={group} fixed={false} on={on} onChange={onChange} />
        </div>
      </li>
    );
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto_auto_2.75rem] items-end gap-4 border-b border-line-2 py-2">
      <span className="self-center">{words}</span>
      <span className="flex flex-wrap gap-3">
        {numbersIn(part).map((n) => (
          <NumberField
            key={n.path.join('.')}
            label={n.name}
            value={n.value}
            max={1000}
            step={0.05}
            onChange={(value) => onChange(withNumber(part, n.path, value))}
          />
        ))}
      </span>
      <button
        type="button"
        className="text-action min-h-11 text-sm"
        aria-label={say('Or something else than {{words}}', { words })}
        onClick={() => onChange(alternatives(part))}
      >
        {say('or')}
      </button>
      {away}
    </li>
  );
}

/** What can be chosen for a block. */
function choicesFor({ needs }: Block, { content, protocol }: CriteriaOn): Options {
  if (needs === 'measure') return content.measures.map((m) => [m.key, m.label] as const);
  if (needs === 'question' || needs === 'two questions')
    return homeQuestions(protocol).map((q) => [q.key, say(q.name)] as const);
  return needs === 'skill' ? content.skills.map((s) => [s.key, s.label] as const) : [];
}

function AddPart({ on, add }: { on: CriteriaOn; add: (part: Criterion) => void }) {
  const [key, setKey] = useState('');
  const [chosen, setChosen] = useState('');
  const [beside, setBeside] = useState('');
  const block = BLOCKS.find((b) => b.key === key);
  const two = block?.needs === 'two questions';
  const ready =
    block !== undefined &&
    (block.needs === null || chosen !== '') &&
    (!two || (beside !== '' && beside !== chosen));
  return (
    <div className="mt-2 flex flex-wrap items-end gap-4">
      <SelectField
        label={say('Also ask for')}
        value={key}
        options={[['', say('choose')], ...BLOCKS.map((b) => [b.key, b.name] as const)]}
        onChange={(next) => {
          setKey(next);
          setChosen('');
          setBeside('');
        }}
      />
      {block !== undefined && block.needs !== null && (
        <SelectField
          label={two ? say('What did not happen') : say('Which {{needs}}', { needs: say(block.needs) })}
          value={chosen}
          options={[['', say('choose')], ...choicesFor(block, on)]}
          onChange={setChosen}
        />
      )}
      {block !== undefined && two && (
        <SelectField
          label={say('How often it could have')}
          value={beside}
          options={[['', say('choose')], ...choicesFor(block, on).filter(([k]) => k !== chosen)]}
          onChange={setBeside}
        />
      )}
      <button
        type="button"
        className="action-quiet"
        disabled={!ready}
        onClick={() => {
          if (block === undefined) return;
          add(
            block.make(
              chosen,
              on.content.measures.find((m) => m.key === chosen),
              beside,
            ),
          );
          setKey('');
          setChosen('');
        }}
      >
        {say('Add it')}
      </button>
    </div>
  );
}
