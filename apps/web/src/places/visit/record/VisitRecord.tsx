import { say } from '@heathstep/core';
import type { ReactNode } from 'react';
import { useSession } from '../../../api/queries.js';
import { fullDay } from '../../../parts/dates.js';
import { usePrinting } from '../../../parts/usePrinting.js';
import type { LiveVisit } from '../live.js';
import { Amendments } from '../Amend.js';
import {
  conclusionLines,
  findingLines,
  type Line,
  noteLines,
  readingLines,
  safetyLines,
  storyLines,
} from './words.js';

/** Worked out and drawn only when the page goes to paper. */
export function VisitRecord({ live }: { live: LiveVisit }) {
  return usePrinting() ? <OnPaper live={live} /> : null;
}

/** A visit on paper: who, when, what was told, asked, measured, found and judged, and who signed it. */
function OnPaper({ live }: { live: LiveVisit }) {
  const session = useSession();
  const { person } = live.course.episode;
  const { visit } = live;
  const findings = findingLines(live.content.findings, live.reasoning().known, live.readings.entries);
  const readings = readingLines(live);
  const side = live.affected === 'both' ? say('both sides') : live.affected;
  return (
    <article aria-label={say('The visit on paper')} className="hidden text-[10.5pt] leading-snug print:block">
      <header className="flex justify-between border-b-2 border-ink pb-1">
        <div>
          <h1 className="text-xl">{person.name}</h1>
          <p>
            {person.birthDate === null
              ? say('date of birth not known')
              : say('born {{birthDate}}', { birthDate: fullDay(person.birthDate) })}
            {`. ${live.conditionName}, ${say(side)}.`}
          </p>
        </div>
        <div className="text-right">
          <p className="font-semibold">
            {`${visit.kind === 'first' ? say('First visit') : say('Review, visit {{number}}', { number: visit.number })}, ${fullDay(visit.startedAt)}`}
          </p>
          <p>{session.data?.clinic.name}</p>
        </div>
      </header>
      <div className="columns-2 gap-6">
        <Part title={say('Story')} lines={storyLines(live)} />
        <Part title={say('Safety')} lines={safetyLines(live)} />
        <Part title={say('Conclusion')} lines={conclusionLines(live)} />
        <Part title={say('Notes')} lines={noteLines(live)} />
      </div>
      {readings.length > 0 && (
        <Titled title={say('Measured')}>
          <table className="w-full">
            <thead>
              <tr className="text-left">
                <th className="font-normal">{say('Measure')}</th>
                <th className="font-normal">{say('left')}</th>
                <th className="font-normal">{say('right')}</th>
              </tr>
            </thead>
            <tbody>
              {readings.map((r) => (
                <tr key={r.label} className="border-t border-line">
                  <td>{r.label}</td>
                  {r.single === '' ? (
                    <>
                      <td>{r.left}</td>
                      <td>{r.right}</td>
                    </>
                  ) : (
                    <td colSpan={2}>{r.single}</td>
                  )}
                </tr>
              ))}
            </tbody>
          </table>
        </Titled>
      )}
      {findings.present.length + findings.absent.length > 0 && (
        <Titled title={say('Found')}>
          {findings.present.length > 0 && (
            <p>{say('Present: {{list}}.', { list: findings.present.join('; ') })}</p>
          )}
          {findings.absent.length > 0 && (
            <p>{say('Absent: {{list}}.', { list: findings.absent.join('; ') })}</p>
          )}
        </Titled>
      )}
      <Amendments list={visit.amendments} content={live.content} />
      <footer className="mt-4 flex items-end justify-between border-t-2 border-ink pt-2">
        <p className="font-semibold">{signedWords(visit)}</p>
        <p className="w-64 border-b border-ink pt-8 text-right text-sm">{say('Signature')}</p>
      </footer>
    </article>
  );
}

function Titled({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="mt-2 break-inside-avoid">
      <h2 className="text-base">{title}</h2>
      {children}
    </section>
  );
}

function Part({ title, lines }: { title: string; lines: readonly Line[] }) {
  if (lines.length === 0) return null;
  return (
    <Titled title={title}>
      <dl>
        {lines.map(([what, said], i) => (
          <div key={`${what}-${i}`} className="break-inside-avoid">
            <dt className="inline font-semibold">{`${what}: `}</dt>
            <dd className="inline">{said}</dd>
          </div>
        ))}
      </dl>
    </Titled>
  );
}

/** Who answers for it, and since when. */
function signedWords(visit: LiveVisit['visit']): string {
  if (visit.signedAt === null) return say('Not signed: a draft, not a record.');
  return say('Signed by {{signedBy}}{{words}}, {{signedAt}}', {
    signedBy: visit.signedBy ?? '',
    words:
      visit.registration == null
        ? ''
        : say(', registration {{registration}}', { registration: visit.registration }),
    signedAt: fullDay(visit.signedAt),
  });
}
