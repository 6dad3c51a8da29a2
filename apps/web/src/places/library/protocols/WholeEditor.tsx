import { say } from '@heathstep/core';
import { X } from 'lucide-react';
import type { HomeQuestion, ProtocolDefinition, School } from '@heathstep/core';
import { type Options, SelectField, TextField } from '../../../parts/fields.js';
import { IconButton, NumberField } from './editorFields.js';
import { itemChanged, optionAdded, questionAdded, schoolAdded } from './protocolEdit.js';

interface WholeEditorProps {
  readonly protocol: ProtocolDefinition;
  readonly change: (change: Partial<ProtocolDefinition>) => void;
}

/** What holds for every stage: its name, how long it waits for gains, what is asked at home, what is chosen. */
export function WholeEditor({ protocol, change }: WholeEditorProps) {
  return (
    <div className="pt-3">
      <div className="grid grid-cols-2 gap-x-6 gap-y-2">
        <TextField
          label={say('Name')}
          maxLength={80}
          value={protocol.name}
          onChange={(name) => change({ name })}
        />
        <TextField
          label={say('How long it usually takes, as the patient reads it')}
          value={protocol.usually}
          onChange={(usually) => change({ usually })}
        />
      </div>
      <div className="mt-4 flex flex-wrap gap-x-5 gap-y-2">
        <NumberField
          label={say('Look again after weeks without gain')}
          min={1}
          max={52}
          value={protocol.lookAgainWeeks}
          onChange={(lookAgainWeeks) => change({ lookAgainWeeks })}
        />
        <NumberField
          label={say('Refer after weeks without gain')}
          min={1}
          max={104}
          value={protocol.referWeeks}
          onChange={(referWeeks) => change({ referWeeks })}
        />
      </div>
      <Home questions={protocol.home} change={(home) => change({ home })} />
      <Schools schools={protocol.schools} change={(schools) => change({ schools })} />
    </div>
  );
}

const MOMENTS: Options = [
  ['morning', say('in the morning')],
  ['before', say('before the exercises')],
  ['after', say('after them')],
  ['later', say('an hour later')],
];

const KINDS: Options = [
  ['score', say('0 to 10')],
  ['yes-no', say('yes or no')],
  ['count', say('a number of times')],
];

const ASKED: Options = [
  ['always', say('always')],
  ['by-criteria', say('where criteria read it')],
];

function Home({
  questions,
  change,
}: {
  questions: readonly HomeQuestion[];
  change: (questions: readonly HomeQuestion[]) => void;
}) {
  return (
    <section aria-label={say('Asked at home')} className="mt-6">
      <h2 className="text-lg">{say('Asked at home, beside what the pain rule asks')}</h2>
      <ul className="border-t border-line-2">
        {questions.map((q, i) => {
          const put = (part: Partial<HomeQuestion>) => change(itemChanged(questions, i, part));
          return (
            <li
              key={q.key}
              className="grid grid-cols-[minmax(0,2fr)_minmax(0,1fr)_2.75rem] items-end gap-x-4 gap-y-1 border-b border-line-2 py-2"
            >
              <TextField label={say('The patient is asked')} value={q.ask} onChange={(ask) => put({ ask })} />
              <TextField label={say('Called')} value={q.name} onChange={(name) => put({ name })} />
              <IconButton
                label={say('Ask no more: {{name}}', { name: q.name })}
                disabled={false}
                press={() => change(questions.filter((_, n) => n !== i))}
              >
                <X className="size-4" aria-hidden />
              </IconButton>
              <div className="col-span-full flex flex-wrap gap-x-4">
                <SelectField
                  label={say('When')}
                  options={MOMENTS}
                  value={q.at}
                  onChange={(at) => put({ at: at as HomeQuestion['at'] })}
                />
                <SelectField
                  label={say('Answered by')}
                  options={KINDS}
                  value={q.kind}
                  onChange={(kind) => put({ kind: kind as HomeQuestion['kind'] })}
                />
                <SelectField
                  label={say('Asked')}
                  options={ASKED}
                  value={q.asked}
                  onChange={(asked) => put({ asked: asked as HomeQuestion['asked'] })}
                />
              </div>
            </li>
          );
        })}
      </ul>
      <button type="button" className="action-quiet mt-2" onClick={() => change(questionAdded(questions))}>
        {say('Ask something more')}
      </button>
    </section>
  );
}

function Schools({
  schools,
  change,
}: {
  schools: readonly School[];
  change: (schools: readonly School[]) => void;
}) {
  return (
    <section aria-label={say('Choices')} className="mt-6">
      <h2 className="text-lg">{say('Chosen for each person')}</h2>
      <ul className="border-t border-line-2">
        {schools.map((school, i) => (
          <OneSchool
            key={school.key}
            school={school}
            put={(part) => change(itemChanged(schools, i, part))}
            remove={() => change(schools.filter((_, n) => n !== i))}
          />
        ))}
      </ul>
      <button type="button" className="action-quiet mt-2" onClick={() => change(schoolAdded(schools))}>
        {say('Add a choice')}
      </button>
    </section>
  );
}

/** A choice: what is asked, the ways there are with a reason each, and the one taken where nobody chose. */
function OneSchool({
  school,
  put,
  remove,
}: {
  school: School;
  put: (part: Partial<School>) => void;
  remove: () => void;
}) {
  const { options } = school;
  return (
    <li className="border-b border-line-2 py-2">
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)_2.75rem] items-end gap-x-4">
        <TextField
          label={say('What is chosen')}
          value={school.question}
          onChange={(question) => put({ question })}
        />
        <SelectField
          label={say('Where nobody chose')}
          options={options.map((o) => [o.key, o.label] as const)}
          value={school.default}
          onChange={(chosen) => put({ default: chosen })}
        />
        <IconButton
          label={say('Take out {{question}}', { question: school.question })}
          disabled={false}
          press={remove}
        >
          <X className="size-4" aria-hidden />
        </IconButton>
      </div>
      <ul className="ml-2 mt-1 border-l-2 border-heather pl-4">
        {options.map((o, i) => (
          <li key={o.key} className="grid grid-cols-[minmax(0,1fr)_minmax(0,2fr)_2.75rem] items-end gap-x-4">
            <TextField
              label={say('A way')}
              value={o.label}
              onChange={(label) => put({ options: itemChanged(options, i, { label }) })}
            />
            <TextField
              label={say('Why')}
              value={o.reason}
              onChange={(reason) => put({ options: itemChanged(options, i, { reason }) })}
            />
            <IconButton
              label={say('Take out {{label}}', { label: o.label })}
              disabled={options.length < 3 || o.key === school.default}
              press={() => put({ options: options.filter((_, n) => n !== i) })}
            >
              <X className="size-4" aria-hidden />
            </IconButton>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="text-action min-h-11 text-sm"
        onClick={() => put({ options: optionAdded(options) })}
      >
        {say('Another way')}
      </button>
    </li>
  );
}
