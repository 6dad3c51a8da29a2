import { Injectable } from '@nestjs/common';
import {
  type AmendmentView,
  type ComplaintView,
  daysSinceOnset,
  entriesOf,
  type EntryView,
  episodeSafety,
  type EpisodeView,
  type HomeEntryView,
  lastFaults,
  newestEntries,
  type PlanView,
  readingsOf,
  reasonOnVisits,
  reportedText,
  type StopPayload,
  type TaughtView,
  type VisitView,
} from '@heathstep/contracts';
import {
  type Affected,
  ageProblem,
  blocksOn,
  BODY_MASS,
  type ComposedExercise,
  daysBetween,
  type LeftOut,
  localDay,
  lostStage,
  type MeasureDefinition,
  openSigns,
  patientPlan,
  type PerSide,
  type ProtocolDefinition,
  type Reasoning,
  type Side,
  signText,
  type Stage,
  stageOf,
  type Tag,
  withHeld,
} from '@heathstep/core';
import { ageOn, Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import type { Library } from '../content/library.js';
import { notFound } from '../http/problem.js';
import type { Tx } from '../persistence/db.js';
import { Clinic, EpisodeRow, HomeLink, Person, PlanRow, StageSpanRow } from '../persistence/entities.js';

export function planView(
  row: PlanRow,
  protocol: Pick<ProtocolDefinition, 'stages'>,
  names: ReadonlyMap<string, string> = new Map(),
): PlanView {
  return {
    id: row.id,
    episodeId: row.episodeId,
    number: row.number,
    stage: row.stage,
    madeOf: (row.madeOf as Stage | null) ?? stageOf(protocol, row.stage) ?? lostStage(row.stage),
    status: row.status,
    version: row.version,
    items: row.items as ComposedExercise[],
    left: row.leftOut as LeftOut[],
    contentVersion: row.contentVersion,
    givenAt: row.givenAt?.toISOString() ?? null,
    givenBy: row.givenBy === null ? null : (names.get(row.givenBy) ?? null),
  };
}

/** Days since it began, as the newest story tells, with the days since it was told. */
function sinceOnset(visits: readonly VisitView[], today: string, timeZone: string): number | null {
  const told = [...visits]
    .reverse()
    .find((v) => v.entries.some((e) => ['story.since', 'story.days'].includes(e.key) && e.value !== null));
  if (told === undefined) return null;
  const since = Math.max(0, daysBetween(localDay(new Date(told.startedAt), timeZone), today));
  return daysSinceOnset(newestEntries([entriesOf(told.entries)]), since);
}

/** Everything that stands about one episode, read once. */
export interface EpisodeRecord {
  readonly row: EpisodeRow;
  readonly clinic: Clinic;
  readonly view: EpisodeView;
  /** What it is and what keeps it going, from everything the visits say. */
  readonly reasoning: Reasoning;
  readonly home: readonly HomeEntryView[];
  readonly plans: readonly PlanView[];
  /** Shipped measures and the clinic's own. */
  readonly measures: readonly MeasureDefinition[];
  /** Shipped exercises and the clinic's own. */
  readonly library: Library;
  /** In the version the episode is on. */
  readonly protocol: ProtocolDefinition;
}

/** What a complaint means for another of the same person. */
function complaintFor(record: EpisodeRecord, affected: Affected): ComplaintView {
  const { view, library } = record;
  const blocks = (view.safety?.triggered ?? []).filter((t) => blocksOn(t, affected)).map(signText);
  return {
    episodeId: view.id,
    condition: view.condition,
    affected: view.affected,
    stage: stageOf(record.protocol, view.stage)?.name ?? null,
    blocks: [...view.openStops.map(reportedText), ...blocks],
    openGrades: view.openStops.map((s) => s.grade),
    stopIds: record.home.filter((e) => e.kind === 'stop').map((e) => e.id),
    plan:
      view.plan === null
        ? null
        : patientPlan({
            items: view.plan.items,
            exerciseOf: (key) => library.exercise(key),
            stage: view.plan.madeOf,
            schools: view.schools,
            tagsOff: view.tagsOff,
            seenFaults: (exercise) => lastFaults(view.taught, exercise),
          }),
  };
}

const bothOff = (all: readonly PerSide<readonly Tag[]>[]): PerSide<readonly Tag[]> => {
  const on = (side: Side) => [...new Set(all.flatMap((off) => off[side]))];
  return { left: on('left'), right: on('right') };
};

/** The safety of one complaint binds all: what any of them switches off is off, and what blocks one can block another. */
function bound(record: EpisodeRecord, others: readonly EpisodeRecord[]): EpisodeRecord {
  const { view, protocol } = record;
  const tagsOff = bothOff([view.tagsOff, ...others.map((o) => o.view.tagsOff)]);
  // Exercises of the other plan are held back by what this complaint says as well.
  const elsewhere = others.map((o) =>
    complaintFor({ ...o, view: { ...o.view, tagsOff: bothOff([tagsOff, o.view.tagsOff]) } }, view.affected),
  );
  const { safety, person } = view;
  const age = ageProblem(protocol, person.ageYears);
  const reported = [...view.openStops.map(reportedText), ...elsewhere.flatMap((c) => c.blocks)];
  return {
    ...record,
    view: {
      ...view,
      tagsOff,
      elsewhere,
      heldBack: [...reported, ...(safety?.blocking ?? []).map(signText)],
      notPrescribed: [
        ...reported,
        ...(safety === null ? ['The safety questions have not been asked'] : safety.blockedBecause),
        ...(age === null ? [] : [age]),
      ],
    },
  };
}

interface EntryRow {
  visit_id: string;
  key: string;
  version: number;
  value: unknown;
  at: Date;
  author: string;
}

interface AmendedRow {
  visit_id: string;
  key: string;
  value: unknown;
  before: unknown;
  reason: string;
  at: Date;
  author: string;
}

@Injectable()
export class EpisodeReader {
  constructor(
    private readonly content: Content,
    private readonly clock: Clock,
  ) {}

  /** An episode with what other open complaints of the same person mean for it. */
  async read(tx: Tx, id: string): Promise<EpisodeRecord> {
    const record = await this.alone(tx, id);
    const ids = await this.openOf(tx, record.row.personId);
    const others: EpisodeRecord[] = [];
    for (const other of ids) if (other !== id) others.push(await this.alone(tx, other));
    return bound(record, others);
  }

  /** Open episodes of a person, the oldest first. */
  async openOf(tx: Tx, personId: string): Promise<string[]> {
    const rows = await tx.find(EpisodeRow, {
      where: { personId, status: 'open' },
      order: { startedAt: 'ASC', id: 'ASC' },
      select: { id: true },
    });
    return rows.map((r) => r.id);
  }

  private async alone(tx: Tx, id: string): Promise<EpisodeRecord> {
    const row = await tx.findOneBy(EpisodeRow, { id });
    if (row === null) throw notFound();
    const person = await tx.findOneByOrFail(Person, { id: row.personId });
    const clinic = await tx.findOneByOrFail(Clinic, { id: row.clinicId });
    const names = await this.names(tx);
    const visits = await this.visits(tx, id, names);
    const protocol = (await this.content.protocolsFor(tx)).on(row);
    const plans = (await tx.find(PlanRow, { where: { episodeId: id }, order: { number: 'ASC' } })).map((p) =>
      planView(p, protocol, names),
    );
    const home = await this.home(tx, id);
    const measures = await this.content.measuresFor(tx);
    const library = await this.content.libraryFor(tx);
    const spans = await tx.find(StageSpanRow, { where: { episodeId: id }, order: { since: 'ASC' } });
    const closures = await this.closures(tx, id);
    const link = await tx
      .createQueryBuilder(HomeLink, 'l')
      .innerJoin(EpisodeRow, 'e', 'e.id = l.episodeId')
      .where('e.personId = :person', { person: row.personId })
      .orderBy('l.createdAt', 'DESC')
      .getOne();
    const today = localDay(this.clock.now(), clinic.timeZone);
    const ageYears = ageOn(person.birthDate, today);
    const ruleClosures = closures
      .filter((c) => c.subject.startsWith('rule:'))
      .map((c) => ({
        rule: c.subject.slice(5),
        side: c.side,
        kind: c.kind,
        text: c.text,
        visitId: c.visitId,
        at: c.at.toISOString(),
        by: c.author,
      }));
    const safety = episodeSafety({ ...this.content.bundle, measures }, visits, {
      affected: row.affected,
      ageYears,
      closures: ruleClosures,
    });
    const off = safety?.tagsOff ?? { left: [], right: [] };
    const reasoning = reasonOnVisits({ ...this.content.bundle, measures }, visits, {
      affected: row.affected,
      ageYears,
      daysSinceOnset: sinceOnset(visits, today, clinic.timeZone),
      tagsOff: (side) => (side === 'none' ? [...off.left, ...off.right] : off[side]),
      stops: safety === null ? [] : openSigns(safety),
    });
    const view: EpisodeView = {
      id: row.id,
      person: {
        id: person.id,
        name: person.name,
        birthDate: person.birthDate,
        ageYears,
        occupation: person.occupation,
        sex: person.sex,
        version: person.version,
      },
      condition: row.condition,
      protocol: row.protocol,
      affected: row.affected,
      schools: row.schools,
      equipment: row.equipment,
      weightsKg: row.weightsKg,
      minutesPerDay: row.minutesPerDay,
      stage: row.stage,
      stages: spans.map((s) => ({ stage: s.stage, since: s.since.toISOString(), reason: s.reason })),
      startedAt: row.startedAt.toISOString(),
      status: row.status,
      version: row.version,
      today,
      timeZone: clinic.timeZone,
      bodyMassKg: readingsOf(visits, measures).value(BODY_MASS, 'none'),
      visits,
      closures: ruleClosures,
      safety,
      tagsOff: withHeld(off, reasoning.held),
      held: reasoning.held,
      openStops: home
        .filter((e) => e.kind === 'stop' && (e.payload as StopPayload).grade !== 'pause')
        .filter((e) => closures.every((c) => c.subject !== `stop:${e.id}`))
        .map((e) => ({
          id: e.id,
          day: e.day,
          grade: (e.payload as StopPayload).grade,
          sign: (e.payload as StopPayload).sign,
        })),
      elsewhere: [],
      heldBack: [],
      notPrescribed: [],
      plan: [...plans].reverse().find((p) => p.status === 'given') ?? null,
      draft: plans.find((p) => p.status === 'draft') ?? null,
      taught: await this.taught(tx, id),
      homeLink:
        link === null || link.revokedAt !== null
          ? null
          : {
              createdAt: link.createdAt.toISOString(),
              locked: link.lockedAt !== null,
              expiresAt: link.expiresAt.toISOString(),
            },
    };
    return { row, clinic, view, reasoning, home, plans, measures, library, protocol };
  }

  private async taught(tx: Tx, episodeId: string): Promise<TaughtView[]> {
    const rows = await tx.query<(Omit<TaughtView, 'at'> & { at: Date })[]>(
      `SELECT t.id, t.exercise, t.side, t.reps, t.faults, t.at, u.name AS by
         FROM taught_exercise t JOIN app_user u ON u.id = t.author_id WHERE t.episode_id = $1 ORDER BY t.at`,
      [episodeId],
    );
    return rows.map((r) => ({ ...r, at: r.at.toISOString() }));
  }

  async names(tx: Tx): Promise<Map<string, string>> {
    const users = await tx.query<{ id: string; name: string }[]>('SELECT id, name FROM app_user');
    return new Map(users.map((u) => [u.id, u.name]));
  }

  async visits(tx: Tx, episodeId: string, names: ReadonlyMap<string, string>): Promise<VisitView[]> {
    const visits = await tx.query<
      {
        id: string;
        kind: 'first' | 'review';
        started_at: Date;
        signed_at: Date | null;
        signed_by: string | null;
      }[]
    >(
      'SELECT id, kind, started_at, signed_at, signed_by FROM visit WHERE episode_id = $1 ORDER BY started_at',
      [episodeId],
    );
    const entries = await tx.query<EntryRow[]>(
      `SELECT DISTINCT ON (e.visit_id, e.key) e.visit_id, e.key, e.version, e.value, e.at, u.name AS author
         FROM visit_entry e JOIN visit v ON v.id = e.visit_id JOIN app_user u ON u.id = e.author_id
        WHERE v.episode_id = $1 ORDER BY e.visit_id, e.key, e.version DESC`,
      [episodeId],
    );
    const amended = await tx.query<AmendedRow[]>(
      `SELECT e.visit_id, e.key, e.value, b.value AS before, e.reason, e.at, u.name AS author
         FROM visit_entry e JOIN visit v ON v.id = e.visit_id JOIN app_user u ON u.id = e.author_id
         LEFT JOIN visit_entry b ON b.visit_id = e.visit_id AND b.key = e.key AND b.version = e.version - 1
        WHERE v.episode_id = $1 AND e.reason IS NOT NULL ORDER BY e.seq`,
      [episodeId],
    );
    return visits.map((v, i) => ({
      id: v.id,
      episodeId,
      kind: v.kind,
      number: i + 1,
      startedAt: v.started_at.toISOString(),
      signedAt: v.signed_at?.toISOString() ?? null,
      signedBy: v.signed_by === null ? null : (names.get(v.signed_by) ?? null),
      entries: entries
        .filter((e) => e.visit_id === v.id)
        .map((e): EntryView => ({
          key: e.key,
          version: e.version,
          value: e.value,
          at: e.at.toISOString(),
          author: e.author,
        })),
      amendments: amended
        .filter((a) => a.visit_id === v.id)
        .map(({ visit_id: _visit, at, ...a }): AmendmentView => ({ ...a, at: at.toISOString() })),
    }));
  }

  /** The newest version of each home entry, by day. */
  async home(tx: Tx, episodeId: string): Promise<HomeEntryView[]> {
    const rows = await tx.query<(Omit<HomeEntryView, 'at'> & { at: Date })[]>(
      `SELECT DISTINCT ON (id) id, version, kind, to_char(day, 'YYYY-MM-DD') AS day, plan_id AS "planId", payload, at
         FROM home_entry WHERE episode_id = $1 ORDER BY id, version DESC`,
      [episodeId],
    );
    return rows
      .map((r) => ({ ...r, at: r.at.toISOString() }))
      .sort((a, b) => (a.day === b.day ? (a.at < b.at ? -1 : 1) : a.day < b.day ? -1 : 1));
  }

  private closures(tx: Tx, episodeId: string) {
    return tx.query<
      {
        subject: string;
        side: 'left' | 'right' | 'none';
        kind: 'closed' | 'overridden';
        text: string;
        visitId: string | null;
        at: Date;
        author: string;
      }[]
    >(
      `SELECT c.subject, c.side, c.kind, c.text, c.visit_id AS "visitId", c.at, u.name AS author
         FROM closure c JOIN app_user u ON u.id = c.author_id WHERE c.episode_id = $1 ORDER BY c.at DESC`,
      [episodeId],
    );
  }
}
