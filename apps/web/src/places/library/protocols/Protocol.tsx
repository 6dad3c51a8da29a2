import { say } from '@heathstep/core';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { ProtocolView } from '@heathstep/contracts';
import type { ProtocolDefinition } from '@heathstep/core';
import { ApiError, request } from '../../../api/client.js';
import { type ClinicContent, keys, spokenProtocol, useContent, useSession } from '../../../api/queries.js';
import { fullDay } from '../../../parts/dates.js';
import { Failed, Loading } from '../../../parts/Waiting.js';
import { PeopleOn } from './PeopleOn.js';
import { ProtocolEditor } from './ProtocolEditor.js';
import { Changes } from '../../../parts/Changes.js';
import { changesBetween, stageSections } from './protocolLines.js';
import { SetAside } from '../../../parts/SetAside.js';
import { keptDraft, setDraftAside } from './protocolDraft.js';

/** One protocol: as it is used, what the clinic changed of it, and the way to change it. */
export function Protocol() {
  const { key = '' } = useParams();
  const content = useContent();
  const view = useQuery({
    queryKey: keys.protocol(key),
    queryFn: () => request<ProtocolView>('GET', `/api/library/protocols/${key}`),
  });
  if (view.data === undefined || content.data === undefined) {
    const error = view.error ?? content.error;
    return error === null ? (
      <Loading what={say('the protocol')} />
    ) : (
      <Failed error={error} again={() => void view.refetch()} />
    );
  }
  return <Whole key={key} view={view.data} content={content.data} />;
}

function Whole({ view, content }: { view: ProtocolView; content: ClinicContent }) {
  const session = useSession();
  const role = session.data?.user.role;
  const { shipped, published, draft } = view;
  const [editing, setEditing] = useState(() => keptDraft(shipped.key) !== null);
  const used = spokenProtocol(published?.definition ?? shipped);
  const mayChange = role !== 'assistant';
  return (
    <main className="px-6 py-5">
      <Link to="/library/protocols" className="text-action inline-flex min-h-11 items-center">
        {say('All protocols')}
      </Link>
      <div className="flex flex-wrap items-baseline gap-x-6">
        <h1 className="flex-1">{say(shipped.name)}</h1>
        <a
          className="text-action min-h-11 content-center"
          href={`/api/library/protocols/${shipped.key}/file`}
          download={`${shipped.key}.json`}
        >
          {say('Export')}
        </a>
        {mayChange && !editing && (
          <button type="button" className="action-quiet" onClick={() => setEditing(true)}>
            {draft !== null
              ? say('Go on with the draft')
              : published === null
                ? say('Make our own version')
                : say('Change our version')}
          </button>
        )}
      </div>
      <Standing view={view} lead={role === 'lead'} />
      {editing ? (
        <SetAside what={say('The draft of a protocol')} aside={() => setDraftAside(shipped.key)}>
          <ProtocolEditor
            view={view}
            content={content}
            close={() => {
              setEditing(false);
              window.scrollTo(0, 0);
            }}
          />
        </SetAside>
      ) : (
        <>
          {draft !== null && (
            <Changes
              title={say('What the draft of version {{version}} changes', { version: draft.version })}
              changes={changesBetween(used, spokenProtocol(draft.definition), content)}
            />
          )}
          {published !== null && (
            <Changes
              title={say('What our version {{version}} says otherwise than the shipped one', {
                version: published.version,
              })}
              changes={changesBetween(spokenProtocol(shipped), used, content)}
            />
          )}
          <PeopleOn protocolKey={shipped.key} mayMove={mayChange} />
          <Stages protocol={used} content={content} />
        </>
      )}
    </main>
  );
}

/** Which version treats who begins now, who signed it, and what a lead can do about it. */
function Standing({ view, lead }: { view: ProtocolView; lead: boolean }) {
  const { shipped, published, draft } = view;
  const client = useQueryClient();
  const [error, setError] = useState<ApiError | null>(null);
  const act = async (way: 'publish' | 'withdraw', body: object) => {
    setError(null);
    try {
      await request('POST', `/api/library/protocols/${shipped.key}/${way}`, body);
      await client.invalidateQueries({ queryKey: keys.protocols });
    } catch (failure) {
      if (!(failure instanceof ApiError)) throw failure;
      setError(failure);
    }
  };
  const newer = published !== null && published.basedOn < shipped.version;
  return (
    <div className="mt-1 max-w-3xl">
      <p>
        {published === null
          ? say(
              'Used as shipped, version {{version}}: {{statement}}. {{source}} ({{kind}}). Not signed by this clinic.',
              {
                version: shipped.version,
                statement: shipped.evidence.statement,
                source: shipped.evidence.source,
                kind: say(shipped.evidence.kind),
              },
            )
          : say(
              'Our version {{version}}, made by {{by}}, signed by {{signedBy}} on {{signedAt}}. Who began on another version stays on it.',
              {
                version: published.version,
                by: published.by,
                signedBy: published.signedBy,
                signedAt: fullDay(published.signedAt),
              },
            )}
      </p>
      {newer && (
        <p className="mt-1 text-hold-deep" role="status">
          {say(
            'It was made from version {{basedOn}} of the shipped protocol, which is at {{version}} now. Yours was not touched; the difference stands below.',
            { basedOn: published.basedOn, version: shipped.version },
          )}
        </p>
      )}
      {draft !== null && (
        <p className="mt-1 text-ink-2">
          {say('A draft by {{by}} of {{at}} treats nobody yet. {{words}}', {
            by: draft.by,
            at: fullDay(draft.at),
            words: lead ? '' : say('A lead signs it.'),
          })}
        </p>
      )}
      {lead && (
        <div className="mt-2 flex gap-3">
          {draft !== null && (
            <button
              type="button"
              className="action"
              onClick={() => void act('publish', { edition: draft.edition })}
            >
              {say('Sign and publish the draft')}
            </button>
          )}
          {published !== null && (
            <button type="button" className="action-quiet" onClick={() => void act('withdraw', {})}>
              {say('Go back to the shipped one')}
            </button>
          )}
        </div>
      )}
      {error !== null && (
        <p role="alert" className="mt-1 text-sm text-ease-deep">
          {[error.message, ...(error.problem.errors ?? []).map((e) => `${e.pointer}: ${e.detail}`)].join(
            '. ',
          )}
        </p>
      )}
    </div>
  );
}

function Stages({ protocol, content }: { protocol: ProtocolDefinition; content: ClinicContent }) {
  return (
    <ol className="mt-5 grid gap-x-8 gap-y-6 min-[1100px]:grid-cols-2">
      {protocol.stages.map((stage, i) => (
        <li key={stage.key} className="border-t-[3px] border-ink-3 pt-2">
          <h2 className="text-xl">{`${i + 1}. ${stage.name}`}</h2>
          {stageSections(stage, protocol, content).map((section) => (
            <section key={section.title} className="mt-2">
              <h3 className="text-sm text-ink-2">{section.title}</h3>
              <ul className="list-disc pl-5 text-sm">
                {section.lines.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            </section>
          ))}
        </li>
      ))}
    </ol>
  );
}
