import { say } from '@heathstep/core';
import { X } from 'lucide-react';
import { useSearchParams } from 'react-router';
import { TableLink } from '../../parts/TableLink.js';
import { SearchField } from '../../parts/fields.js';
import { RadioRow } from '../../parts/RadioRow.js';
import { useMemo, useState } from 'react';
import { measuresOf } from '../../parts/measureFinder.js';
import type { MeasureDefinition, MeasureStep } from '@heathstep/core';
import { type ClinicContent, type OwnMeasureRow, useContent, useSession } from '../../api/queries.js';
import { Failed, Loading } from '../../parts/Waiting.js';
import { Setup } from '../../parts/Setup.js';
import { OwnMeasure } from './OwnMeasure.js';

const STEPS: readonly (readonly [MeasureStep, string])[] = [
  ['story', say('Story')],
  ['look', say('Look')],
  ['measure', say('Measure')],
  ['load', say('Load')],
  ['feel', say('Feel')],
];

/** Every measure of the library and of the clinic: how it is taken, its error, its thresholds and their sources. */
export function Measures() {
  const content = useContent();
  if (content.data === undefined)
    return content.error === null ? (
      <Loading what={say('the measures')} />
    ) : (
      <Failed error={content.error} again={() => void content.refetch()} />
    );
  return <Whole content={content.data} />;
}

function Whole({ content }: { content: ClinicContent }) {
  const session = useSession();
  const [query, setQuery] = useState('');
  const [step, setStep] = useState<MeasureStep | null>(null);
  const [search, setSearch] = useSearchParams();
  const open = search.get('show');
  const setOpen = (key: string) => setSearch({ show: key }, { replace: true });
  const [editing, setEditing] = useState<OwnMeasureRow | 'new' | null>(null);
  const find = useMemo(() => measuresOf(content.measures), [content.measures]);
  const found = find(query).filter((m) => step === null || m.step === step);
  const mayAdd = session.data?.user.role !== 'assistant';
  const chosen = content.measures.find((m) => m.key === open);
  return (
    <main className="grid flex-1 lg:grid-cols-[minmax(0,1fr)_26rem]">
      <section className="min-w-0 px-4 py-5 sm:px-6">
        <div className="flex flex-wrap items-end gap-5">
          <h1 className="flex-1">{say('Measures')}</h1>
          <TableLink href="/api/content/measures.csv">{say('As a table')}</TableLink>
          {mayAdd && (
            <button type="button" className="action-quiet" onClick={() => setEditing('new')}>
              {say('Add one of our own')}
            </button>
          )}
        </div>
        <Narrowing query={query} setQuery={setQuery} step={step} content={content} setStep={setStep} />
        {found.length === 0 && <p className="py-8 text-ink-2">{say('No measure of that name.')}</p>}
        <Found found={found} open={open} setOpen={setOpen} />
      </section>
      <aside
        className={`border-line bg-paper max-lg:sticky max-lg:bottom-0 max-lg:border-t lg:border-l ${chosen === undefined && editing === null ? 'max-lg:hidden' : ''}`}
        aria-label={say('The measure chosen')}
      >
        <div className="sticky top-0 max-h-[60dvh] overflow-y-auto px-5 py-5 lg:max-h-dvh">
          {editing === null && chosen !== undefined && (
            <button
              type="button"
              className="float-right grid size-11 place-items-center lg:hidden"
              aria-label={say('Close')}
              onClick={() => setSearch({}, { replace: true })}
            >
              <X className="size-5" aria-hidden />
            </button>
          )}
          {editing !== null ? (
            <OwnMeasure
              key={editing === 'new' ? 'new' : editing.key}
              row={editing === 'new' ? null : editing}
              done={(key) => {
                setEditing(null);
                if (key !== null) setOpen(key);
              }}
            />
          ) : chosen === undefined ? (
            <p className="text-ink-2">
              {say('{{n}} measures. Choose one to see how it is taken and where its limits come from.', {
                n: content.measures.length,
              })}
            </p>
          ) : (
            <Detail measure={chosen} content={content} edit={mayAdd ? (row) => setEditing(row) : null} />
          )}
        </div>
      </aside>
    </main>
  );
}

/** The measures found, one of them open. */
function Found({
  found,
  open,
  setOpen,
}: {
  found: readonly MeasureDefinition[];
  open: string | null;
  setOpen: (next: string) => void;
}) {
  return (
    <ul className="mt-3">
      {found.map((m) => (
        <li key={m.key}>
          <button
            type="button"
            aria-pressed={open === m.key}
            className={`grid min-h-11 w-full grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4 xl:grid-cols-[15rem_minmax(0,1fr)_8rem] border-b border-line-2 px-2 py-2 text-left ${open === m.key ? 'bg-heather-wash' : 'hover:bg-line-2'}`}
            onClick={() => setOpen(m.key)}
          >
            <span className="font-semibold">{m.label}</span>
            <span className="text-sm text-ink-2 max-xl:order-last max-xl:col-span-2">{m.brief}</span>
            <code className="text-right font-body text-sm text-ink-2">{m.aliases[0] ?? ''}</code>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** What narrows the list: words, and the step of the visit. */
function Narrowing({
  query,
  setQuery,
  step,
  content,
  setStep,
}: {
  query: string;
  setQuery: (next: string) => void;
  step: MeasureStep | null;
  content: ClinicContent;
  setStep: (next: MeasureStep | null) => void;
}) {
  return (
    <div className="mt-3 flex flex-wrap items-end gap-4">
      <SearchField
        className="max-w-xs"
        label={say('Find a measure')}
        placeholder={say('name, region or short name')}
        value={query}
        onChange={setQuery}
      />
      <RadioRow
        label={say('Step of the visit')}
        value={step}
        options={STEPS.map(([key, name]) => ({
          value: key,
          word: (
            <>
              {name} <span className="text-sm">{content.measures.filter((m) => m.step === key).length}</span>
            </>
          ),
        }))}
        onChange={setStep}
        onClear={() => setStep(null)}
        itemClass={(_, on) =>
          `min-h-11 border-b-2 px-3 ${on ? 'border-heather font-semibold' : 'border-transparent text-ink-2'}`
        }
      />
    </div>
  );
}

function Detail({
  measure: m,
  content,
  edit,
}: {
  measure: MeasureDefinition;
  content: ClinicContent;
  edit: ((row: OwnMeasureRow) => void) | null;
}) {
  const review = content.reviews[`measure:${m.key}`];
  const own = content.own.find((o) => o.key === m.key);
  const unit = m.unitLabel === '' ? m.unit : m.unitLabel;
  const facts: readonly (readonly [string, string])[] = [
    [say('Sides'), m.sides === 'each' ? say('left and right') : say('one value')],
    [say('Unit'), unit],
    [
      say('Trials'),
      m.computed === null
        ? `${m.trials.count}, ${m.trials.combine}`
        : say('worked out from {{list}}', {
            list:
              m.computed.from.map((k) => content.measures.find((x) => x.key === k)?.label ?? k).join(', ') ||
              say('the drawings and the story'),
          }),
    ],
    [say('Better'), m.direction === 'target' ? say('within its band') : m.direction],
    [say('Possible'), say('{{min}} to {{max}}', { min: m.allowed.min, max: m.allowed.max })],
    [say('Usual'), say('{{min}} to {{max}}', { min: m.usual.min, max: m.usual.max })],
    [
      say('Detectable change'),
      m.error === null
        ? say('not known')
        : 'mdc' in m.error
          ? `${m.error.mdc} ${unit}`
          : `${m.error.mdcPercent} %`,
    ],
    [say('Methods'), m.methods.map((x) => say(x)).join('; ')],
    [say('Positions'), m.positions.map((x) => say(x)).join('; ')],
    ...(m.also === undefined ? [] : [[say('Also called'), m.also.join(', ')] as const]),
    [say('Quick line'), [...m.aliases, m.key.replaceAll('-', ' ')].join(', ')],
  ];
  return (
    <article>
      <h2>{m.label}</h2>
      <p className="text-ink-2">{m.brief}</p>
      <div className="mt-3 flex gap-4">
        {m.setup !== null && <Setup name={m.setup} label={say(m.positions[0] ?? '')} />}
        <ol className="list-decimal pl-5 text-sm">
          {m.method.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ol>
      </div>
      <dl className="mt-3 grid grid-cols-[8.5rem_minmax(0,1fr)] gap-x-3 gap-y-1 text-sm">
        {facts.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-ink-2">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      <Limits m={m} unit={unit} />
      <Standing m={m} review={review} />
      {own !== undefined && edit !== null && (
        <button type="button" className="action-quiet mt-4" onClick={() => edit(own)}>
          {say('Change it')}
        </button>
      )}
    </article>
  );
}

/** Where it comes from and who of the clinic has looked at it. */
function Standing({
  m,
  review,
}: {
  m: MeasureDefinition;
  review: { readonly reviewer: string; readonly on: string; readonly version: number } | undefined;
}) {
  return (
    <>
      <p className="mt-4 border-t border-line-2 pt-3 text-sm text-ink-2">
        {`${m.evidence.statement}. ${m.evidence.source} (${say(m.evidence.kind)}).`}
        {m.error !== null && say(' Error: {{source}}.', { source: m.error.source })}
      </p>
      <p className="text-sm text-ink-2">
        {review === undefined
          ? say('Not yet reviewed by this clinic.')
          : say('Reviewed by {{reviewer}} on {{on}} for this clinic, version {{version}}.', {
              reviewer: review.reviewer,
              on: review.on,
              version: review.version,
            })}
      </p>
    </>
  );
}

/** From where on it means something, by number, age and side. */
function Limits({ m, unit }: { m: MeasureDefinition; unit: string }) {
  return (
    <>
      {m.thresholds.length > 0 && (
        <>
          <h3 className="mt-4">{say('Thresholds')}</h3>
          <ul className="text-sm">
            {m.thresholds.map((t) => (
              <li key={t.key} className="border-b border-line-2 py-1">
                <b>{`${t.op} ${t.value}`}</b> {t.meaning} <span className="text-ink-2">{t.source}</span>
              </li>
            ))}
          </ul>
        </>
      )}
      {m.byAge !== null && (
        <p className="mt-2 text-sm">
          {say('Usual by age: {{list}}. {{source}}.', {
            list: m.byAge.bands
              .map((b) => say('from {{from}}: {{value}}', { from: b.from, value: b.value }))
              .join('; '),
            source: m.byAge.source,
          })}
        </p>
      )}
      {m.sideFlag !== null && (
        <p className="mt-2 text-sm">
          {m.sideFlag.kind === 'difference'
            ? say('Sides matter when {{words}} {{value}} {{unit}} apart.', {
                words: m.sideFlag.op === '>' ? say('more than') : say('at least'),
                value: m.sideFlag.value,
                unit,
              })
            : say('Sides matter under {{below}} % of the better.', { below: m.sideFlag.below })}{' '}
          <span className="text-ink-2">{m.sideFlag.source}</span>
        </p>
      )}
    </>
  );
}
