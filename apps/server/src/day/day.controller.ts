import { Controller, Get, Logger, type OnModuleDestroy } from '@nestjs/common';
import { In, IsNull, MoreThan } from 'typeorm';
import { Clock } from '../clock.js';
import { type DayItem, type DayView, type EpisodeView, MAY_BE_SET_ASIDE } from '@heathstep/contracts';
import {
  currentRuns,
  dayOf,
  daysBetween,
  signText,
  stageOf,
  localTime,
  say,
  sayIf,
  localDay,
} from '@heathstep/core';
import { Me, type SignedIn } from '../auth/auth.js';
import { type Assessed, Assessment } from '../episodes/assessment.js';
import { EpisodeReader } from '../episodes/reader.js';
import type { EpisodeRecord } from '../episodes/record.js';
import { appointmentsBetween } from './appointments.js';
import { type OpenQuestion, openQuestions } from '../questions/questions.js';
import { besideOf, NOTHING_BESIDE } from './beside.js';
import { ofReview, slipping, type Told, upkeepOver } from './ofReview.js';
import { slipIn } from './slips.js';
import { AsTable, tableOf } from '../http/asTable.js';
import { languageNow } from '../http/speaking.js';
import { keepNewest } from '../keepNewest.js';
import { daySignatures } from '../episodes/signatures.js';
import { audit, auditList, Db, type Tx } from '../persistence/db.js';
import { Clinic, EpisodeRow, Person, SetAside } from '../persistence/entities.js';

/** All but a stop, a block and a referral. */
const MAY_WAIT: readonly DayItem['kind'][] = [...MAY_BE_SET_ASIDE, 'steady'];
const SILENT_DAYS = 4;
const ORDER: readonly DayItem['kind'][] = [
  'stop',
  'blocked',
  'refer',
  'flare',
  'ready',
  'look-again',
  'upkeep-over',
  'review-due',
  'asked',
  'slipping',
  'silent',
  'new',
  'unplanned',
  'steady',
];

/** Someone without a plan: a visit to begin or to finish, or measured with nothing to prescribe by yet. */
function unplanned({ visits, protocol, cameBackAt }: EpisodeView): Told {
  if (cameBackAt !== null && visits.every((v) => v.startedAt < cameBackAt))
    return {
      kind: 'new',
      headline: say('It came back'),
      detail: say('To be seen and asked anew; no plan stands'),
    };
  if (visits.length === 0)
    return { kind: 'new', headline: say('First visit to begin'), detail: say('Nothing recorded yet') };
  if (visits.some((v) => v.signedAt === null))
    return {
      kind: 'new',
      headline: visits.length < 2 ? say('First visit open') : say('Review open'),
      detail: protocol === '' ? say('To be finished and signed') : say('No plan given yet'),
    };
  return {
    kind: 'unplanned',
    headline: say('Seen, without a plan'),
    detail:
      protocol === ''
        ? say('No protocol in the library is for this complaint yet')
        : say('The visit is signed, no plan was given'),
  };
}

/** How much of what was planned was done: of a week, or of as many days as there was a plan. */
const doneWords = ({ percent, days }: { readonly percent: number; readonly days: number }): string =>
  days === 1
    ? say('The plan was given today')
    : say('{{percent}} % of the planned sessions done {{words}}', {
        percent: percent.toFixed(0),
        words: days < 7 ? say('in the {{days}} days since the plan was given', { days }) : say('this week'),
      });

const newReferral = (person: Person): Item => ({
  ...NOTHING_BESIDE,
  personId: person.id,
  episodeId: null,
  name: person.name,
  stageName: null,
  complaint: null,
  weight: 0,
  kind: 'new',
  headline: say('New referral'),
  detail: say('Nothing recorded yet'),
});

/** A row as it is by the record alone; what is set aside is looked up each time. */
type Item = Omit<DayItem, 'aside' | 'asked'>;

/** What was worked out of a person, and on what. */
interface Known {
  readonly signature: string;
  readonly items: readonly Item[];
}

/** Who asked something is no quiet row any more. */
function withQuestion(item: Item, questions: ReadonlyMap<string, OpenQuestion>): Omit<DayItem, 'aside'> {
  const open = item.episodeId === null ? undefined : questions.get(item.episodeId);
  if (open === undefined) return { ...item, asked: null };
  const asked = { day: open.day, text: open.text };
  return item.kind === 'steady'
    ? { ...item, kind: 'asked', weight: open.count, headline: say('Asked a question'), detail: '', asked }
    : { ...item, asked };
}

/** More people than this are not kept: the oldest go. */
const MOST_KEPT = 20_000;

/** So many people are worked out before others get their turn: the first day of a large clinic holds up nobody else. */
const AT_ONCE = 10;
/** And so many in one transaction behind an answer. */
const MOST_BEHIND = 100;

/** What is kept of someone says its reasons in a language. */
const inLanguage = (id: string): string => `${id} ${languageNow() ?? ''}`;

const otherRequests = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));

@Controller('api/day')
export class DayController implements OnModuleDestroy {
  /** By person: of most people nothing has changed since the day was last asked for, and it is asked for all the time. */
  private readonly known = new Map<string, Known>();
  /** Clinics whose day is being worked on behind the answers. */
  private readonly working = new Map<string, Promise<void>>();
  private ending = false;
  private readonly log = new Logger(DayController.name);
  /** So many milliseconds of working out does an answer wait for; the rest is told as pending. */
  patience = 800;

  constructor(
    private readonly db: Db,
    private readonly reader: EpisodeReader,
    private readonly assessment: Assessment,
    private readonly clock: Clock,
  ) {}

  /** Who needs a look today, most pressing first, each with the reason. */
  @Get()
  day(@Me() me: SignedIn): Promise<DayView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const clinic = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
      const people = await tx.find(Person);
      const now = localTime(this.clock.now(), clinic.timeZone);
      const signatures = await daySignatures(tx);
      // Of one day: what is due changes with it, and within it only with what is recorded.
      const signatureOf = (id: string) => `${now.slice(0, 10)} ${signatures.get(id) ?? ''}`;
      const changed = this.changed(people, signatureOf);
      const began = performance.now();
      let done = 0;
      // What is being worked on already is not worked out twice.
      const left = this.working.has(inLanguage(me.clinicId)) ? [] : changed;
      while (done < left.length && (done === 0 || performance.now() - began < this.patience)) {
        await this.refresh(tx, left.slice(done, done + AT_ONCE), signatureOf);
        done += AT_ONCE;
        await otherRequests();
      }
      const pending = new Set(changed.slice(done).map((p) => p.id));
      if (pending.size > 0) this.workOn(me.clinicId);
      const today = now.slice(0, 10);
      const asideOf = await this.asides(tx, today);
      const questions = await openQuestions(tx, clinic.timeZone);
      const items: DayItem[] = people
        .filter((p) => !pending.has(p.id))
        .flatMap((p) =>
          (this.known.get(inLanguage(p.id))?.items ?? []).map((known) => {
            const item = withQuestion(known, questions);
            return { ...item, aside: asideOf(item) };
          }),
        );
      items.sort(
        (a, b) =>
          ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind) ||
          b.weight - a.weight ||
          a.name.localeCompare(b.name),
      );
      const appointments = await appointmentsBetween(tx, today, today);
      const shown = [...new Set([...items, ...appointments].map((i) => i.personId))];
      await auditList(tx, me, { action: 'read', subject: 'day', shown });
      return { today, items, pending: pending.size, appointments };
    });
  }

  /** The same as a table, of everyone: what is still being worked out is waited for. */
  @Get('day.csv')
  @AsTable('day')
  async table(@Me() me: SignedIn): Promise<string> {
    let view = await this.day(me);
    while (view.pending > 0) {
      await this.working.get(inLanguage(me.clinicId));
      view = await this.day(me);
    }
    await this.db.inClinic(me.clinicId, (tx) =>
      audit(tx, me, {
        action: 'export',
        subject: 'day',
        personId: null,
        shown: view.items.map((i) => i.personId),
      }),
    );
    return tableOf(
      ['person', 'complaint', 'side', 'stage', 'what', 'why', 'detail'],
      view.items.map((i) => [
        i.name,
        i.complaint?.condition,
        i.complaint?.affected,
        i.stageName,
        i.kind,
        i.headline,
        i.detail,
      ]),
    );
  }

  /** People whose row hangs on something that changed, those first who were pressing before. */
  private changed(people: readonly Person[], signatureOf: (id: string) => string): readonly Person[] {
    const rank = (p: Person): number =>
      Math.min(
        ...(this.known.get(inLanguage(p.id))?.items ?? []).map((i) => ORDER.indexOf(i.kind)),
        ORDER.length,
      );
    return people
      .filter((p) => this.known.get(inLanguage(p.id))?.signature !== signatureOf(p.id))
      .map((p) => [rank(p), p] as const)
      .toSorted(([a], [b]) => a - b)
      .map(([, p]) => p);
  }

  /** Works on what is left of a clinic's day after an answer, a few people at a time, once for all who asked. */
  private workOn(clinicId: string): void {
    const key = inLanguage(clinicId);
    if (this.working.has(key)) return;
    const work = this.workThrough(clinicId).finally(() => this.working.delete(key));
    this.working.set(
      key,
      // Who asks next works on it again, and is told then.
      work.catch((error: unknown) => {
        this.log.error(error instanceof Error ? error.name : 'The day could not be worked out ahead');
      }),
    );
  }

  private async workThrough(clinicId: string): Promise<void> {
    for (let left = 1; left > 0 && !this.ending;)
      left = await this.db.inClinic(clinicId, async (tx) => {
        const clinic = await tx.findOneByOrFail(Clinic, { id: clinicId });
        const today = localDay(this.clock.now(), clinic.timeZone);
        const signatures = await daySignatures(tx);
        const signatureOf = (id: string) => `${today} ${signatures.get(id) ?? ''}`;
        const changed = this.changed(await tx.find(Person), signatureOf);
        for (let done = 0; done < MOST_BEHIND && !this.ending; done += AT_ONCE) {
          await this.refresh(tx, changed.slice(done, done + AT_ONCE), signatureOf);
          await otherRequests();
        }
        return changed.length - MOST_BEHIND;
      });
  }

  /** Nothing is worked on when the server stops. */
  async onModuleDestroy(): Promise<void> {
    this.ending = true;
    await Promise.all(this.working.values());
  }

  /** What is set aside today, by row: as long as it is what it was, and no worse. */
  private async asides(tx: Tx, today: string): Promise<(item: Omit<DayItem, 'aside'>) => DayItem['aside']> {
    const rows = await tx.find(SetAside, {
      where: { endedAt: IsNull(), until: MoreThan(today) },
      order: { at: 'ASC' },
    });
    if (rows.length === 0) return () => null;
    const names = await this.reader.names(tx);
    const of = (personId: string, episodeId: string | null) => `${personId} ${episodeId ?? ''}`;
    const latest = new Map(rows.map((r) => [of(r.personId, r.episodeId), r]));
    return (item) => {
      const row = latest.get(of(item.personId, item.episodeId));
      if (row === undefined || row.kind !== item.kind || item.weight > row.weight) return null;
      // What was asked meanwhile is not hidden with what was set aside before.
      if (item.asked !== null && item.kind !== 'asked') return null;
      return { id: row.id, until: row.until, reason: row.reason, by: names.get(row.authorId) ?? '' };
    };
  }

  /** Works out anew what of some people is to be looked at. */
  private async refresh(
    tx: Tx,
    people: readonly Person[],
    signatureOf: (id: string) => string,
  ): Promise<void> {
    if (people.length === 0) return;
    const records = await this.reader.readOpen(
      tx,
      people.map((p) => p.id),
    );
    const lastDecisions = await this.lastDecisions(tx);
    const treated = await tx.find(EpisodeRow, {
      where: { personId: In(people.map((p) => p.id)) },
      select: { id: true, personId: true },
    });
    const had = new Set(treated.map((e) => e.personId));
    for (const person of people) {
      const own = records.filter((r) => r.row.personId === person.id);
      const items =
        own.length === 0 && !had.has(person.id)
          ? [newReferral(person)]
          : // Nothing of someone all of whose complaints are closed.
            own.map((r) => this.item(r, lastDecisions.get(r.row.id) ?? null));
      keepNewest(this.known, inLanguage(person.id), { signature: signatureOf(person.id), items }, MOST_KEPT);
    }
  }

  private item(record: EpisodeRecord, lastDecision: Date | null): Item {
    const assessed = this.assessment.assess(record, lastDecision);
    const told = this.tell(record, assessed);
    return {
      personId: record.row.personId,
      episodeId: record.row.id,
      name: record.view.person.name,
      stageName: this.stageName(record),
      complaint: { condition: record.row.condition, affected: record.row.affected },
      weight: 0,
      ...besideOf(record, assessed),
      ...told,
      // Nobody is loaded or taught past an open sign.
      ...(MAY_WAIT.includes(told.kind) ? {} : { toMeasure: [], toTeach: [] }),
    };
  }

  /** When each episode was last decided about. */
  private async lastDecisions(tx: Tx): Promise<Map<string, Date>> {
    const rows = await tx.query<{ episode_id: string; at: Date }[]>(
      'SELECT episode_id, max(at) AS at FROM decision GROUP BY episode_id',
    );
    return new Map(rows.map((r) => [r.episode_id, r.at]));
  }

  private stageName(record: EpisodeRecord): string | null {
    const { stage } = record.row;
    return sayIf(stageOf(record.protocol, stage)?.name ?? stage);
  }

  private tell(record: EpisodeRecord, assessed: Assessed): Told {
    const { view } = record;
    const { review, stage, home } = assessed;
    const [stop] = view.openStops;
    if (stop !== undefined)
      return {
        kind: 'stop',
        headline: say('Stop sign reported at home'),
        detail: `${stop.sign}, ${stop.day}`,
      };
    const [blocking] = view.safety?.blocking ?? [];
    const [sign] = view.safety?.stops ?? [];
    const open = blocking ?? sign;
    if (open !== undefined) {
      return {
        kind: 'blocked',
        headline: blocking === undefined ? say('A stop sign is open') : say('Nothing can be prescribed'),
        detail: signText(open),
      };
    }
    if (review === null || stage === null) return unplanned(view);
    const { reds } = currentRuns(home.sessions.map((s) => s.state));
    const asked = ofReview(review, reds, stage.name);
    const upkeep = this.assessment.upkeep(record, assessed);
    // What upkeep lacks is asked with its end; a sign and a flare come first.
    if (upkeep?.state === 'over' && (asked === null || asked.kind === 'look-again'))
      return upkeepOver(upkeep);
    if (asked !== null) return asked;
    const next = this.assessment.nextReview(record, assessed);
    if (next !== null && next.due <= view.today) {
      return {
        kind: 'review-due',
        headline: say('Review due'),
        detail: say('Last seen {{sinceVisit}} days ago, every {{reviewEveryDays}} in this stage', {
          sinceVisit: next.everyDays + daysBetween(next.due, view.today),
          reviewEveryDays: next.everyDays,
        }),
      };
    }
    const lastLog =
      assessed.facts.sessions[assessed.facts.sessions.length - 1]?.at ?? view.plan?.givenAt ?? view.startedAt;
    const silent = daysBetween(dayOf(lastLog), view.today);
    if (silent >= SILENT_DAYS)
      return {
        kind: 'silent',
        headline: say('Nothing logged for {{silent}} days', { silent }),
        detail: say('Ask whether the plan fits the week'),
      };
    const adherence = this.assessment.adherence(assessed, record);
    if (adherence === null)
      return {
        kind: 'unplanned',
        headline: say('Nothing to do at home'),
        detail: say('The plan has no sessions in the week'),
      };
    const slip = slipIn(record, assessed);
    if (slip !== null) return slipping(slip);
    return {
      kind: 'steady',
      headline: say('Going as planned'),
      detail: doneWords(adherence),
    };
  }
}
