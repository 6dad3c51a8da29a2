import { Injectable } from '@nestjs/common';
import { createHash } from 'node:crypto';
import {
  daysSinceOnset,
  episodeSafety,
  harmlessStops,
  type EpisodeView,
  type HomeEntryView,
  readingsOf,
  workedOnVisits,
  type VisitView,
} from '@heathstep/contracts';
import { BODY_MASS, localDay, localTime, withHeld } from '@heathstep/core';
import { In } from 'typeorm';
import { ageOn, Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { notFound } from '../http/problem.js';
import { languageNow } from '../http/speaking.js';
import { keepNewest } from '../keepNewest.js';
import type { Tx } from '../persistence/db.js';
import { Clinic, EpisodeRow } from '../persistence/entities.js';
import { homeLinkOf, openStopsOf, personOf, ruleClosuresOf } from './shown.js';
import { bound } from './complaints.js';
import { type EpisodeRecord, givenNow, planView } from './record.js';
import { endedOf } from './ending.js';
import { type EpisodeRows, homeOf, namesOf, rowsOf, visitsOf } from './rows.js';
import { recordSignature } from './signatures.js';

/** Of records that are kept to be shown again, so many entries of visits and logs: some 150 MB. */
const MOST_KEPT = 150_000;

/** Whose record an episode is, and where they live by. */
interface Whose {
  readonly personId: string;
  readonly timeZone: string;
}

interface KeptRecord {
  readonly signature: string;
  readonly record: EpisodeRecord;
}

/** About how much room a record takes, in entries. */
const sizeOf = (kept: KeptRecord | undefined): number =>
  kept === undefined
    ? 0
    : 100 + kept.record.home.length + kept.record.view.visits.reduce((sum, v) => sum + v.entries.length, 0);

/** The same of what was judged, which takes less room. */
const MOST_JUDGED = 2000;

interface Judged {
  readonly safety: EpisodeView['safety'];
  readonly off: EpisodeView['tagsOff'];
  readonly reasoning: EpisodeRecord['reasoning'];
}

interface JudgedOn {
  readonly visits: readonly VisitView[];
  readonly measures: EpisodeRecord['measures'];
  readonly ageYears: number | null;
  readonly today: string;
  readonly closures: EpisodeView['closures'];
}

/** What is kept of an episode says its reasons in a language. */
const inLanguage = (id: string): string => `${id} ${languageNow() ?? ''}`;

@Injectable()
export class EpisodeReader {
  private readonly judgements = new Map<string, { readonly signature: string; readonly judged: Judged }>();
  private readonly kept = new Map<string, KeptRecord>();
  private keptSize = 0;

  constructor(
    private readonly content: Content,
    private readonly clock: Clock,
  ) {}

  /** An episode with what other open complaints of the same person mean for it. */
  async read(tx: Tx, id: string): Promise<EpisodeRecord> {
    const row = await tx.findOneBy(EpisodeRow, { id });
    if (row === null) throw notFound();
    const others = (await this.openRows(tx, row.personId)).filter((e) => e.id !== id);
    const [record, ...rest] = await this.records(tx, [row, ...others]);
    if (record === undefined) throw notFound();
    return bound(record, rest);
  }

  /**
   * The same for pages that only show it: kept from before as long as nothing it hangs on has changed. What writes reads
   * anew, since rows changed twice in one transaction look the same.
   */
  async shown(tx: Tx, id: string, at?: Whose): Promise<EpisodeRecord> {
    const { personId, timeZone } = at ?? (await this.whose(tx, id));
    // Of one hour: days pass, and with them what is due.
    const hour = localTime(this.clock.now(), timeZone).slice(0, 13);
    const signature = `${hour} ${await recordSignature(tx, personId)}`;
    const kept = inLanguage(id);
    const before = this.kept.get(kept);
    const record = before?.signature === signature ? before.record : await this.read(tx, id);
    this.keep(kept, { signature, record });
    return record;
  }

  /** Keeps a record, and lets those go that were not asked for longest, so that what is kept has a bounded size. */
  private keep(key: string, value: KeptRecord): void {
    this.keptSize -= sizeOf(this.kept.get(key));
    this.kept.delete(key);
    this.kept.set(key, value);
    this.keptSize += sizeOf(value);
    for (const [oldest, old] of this.kept) {
      if (this.keptSize <= MOST_KEPT || oldest === key) break;
      this.kept.delete(oldest);
      this.keptSize -= sizeOf(old);
    }
  }

  private async whose(tx: Tx, id: string): Promise<Whose> {
    const [row] = await tx.query<Whose[]>(
      `SELECT e.person_id AS "personId", c.time_zone AS "timeZone"
         FROM episode e JOIN clinic c ON c.id = e.clinic_id WHERE e.id = $1`,
      [id],
    );
    if (row === undefined) throw notFound();
    return row;
  }

  /** Open complaints of the person of an episode, that one first, then the oldest. */
  openBeside(tx: Tx, id: string): Promise<(Whose & { readonly id: string })[]> {
    return tx.query(
      `SELECT o.id, o.person_id AS "personId", c.time_zone AS "timeZone"
         FROM episode own JOIN episode o ON o.person_id = own.person_id JOIN clinic c ON c.id = o.clinic_id
        WHERE own.id = $1 AND o.status = 'open' ORDER BY o.id <> own.id, o.started_at, o.id`,
      [id],
    );
  }

  /** Every open episode of the clinic, or of some people of it, in a fixed number of queries. */
  async readOpen(tx: Tx, personIds?: readonly string[]): Promise<EpisodeRecord[]> {
    const rows = await tx.find(EpisodeRow, {
      where: { status: 'open', ...(personIds === undefined ? {} : { personId: In([...personIds]) }) },
      order: { startedAt: 'ASC', id: 'ASC' },
    });
    const records = await this.records(tx, rows);
    return records.map((record) =>
      bound(
        record,
        records.filter((o) => o !== record && o.row.personId === record.row.personId),
      ),
    );
  }

  private openRows(tx: Tx, personId: string): Promise<EpisodeRow[]> {
    return tx.find(EpisodeRow, {
      where: { personId, status: 'open' },
      order: { startedAt: 'ASC', id: 'ASC' },
    });
  }

  names(tx: Tx): Promise<Map<string, string>> {
    return namesOf(tx);
  }

  /** Visits of one episode, oldest first. */
  async visits(tx: Tx, episodeId: string): Promise<readonly VisitView[]> {
    return (await visitsOf(tx, [episodeId], await namesOf(tx))).get(episodeId) ?? [];
  }

  /** The newest version of one home entry of an episode. */
  async homeEntry(tx: Tx, episodeId: string, id: string): Promise<HomeEntryView | undefined> {
    return (await homeOf(tx, [episodeId], id)).get(episodeId)?.[0];
  }

  private async records(tx: Tx, episodes: readonly EpisodeRow[]): Promise<EpisodeRecord[]> {
    const [first] = episodes;
    if (first === undefined) return [];
    const rows = await rowsOf(tx, episodes, first.clinicId);
    const protocols = await this.content.protocolsFor(tx);
    const measures = await this.content.measuresFor(tx);
    const library = await this.content.libraryFor(tx);
    return episodes.map((row) =>
      this.assemble(row, rows, { protocol: protocols.on(row), measures, library }),
    );
  }

  /** What visits say of safety and of what it is; kept as long as they and what was closed stand, whatever is logged at home. */
  private judged(row: EpisodeRow, clinic: Clinic, on: JudgedOn): Judged {
    const { visits, measures, ageYears, today, closures } = on;
    const told = JSON.stringify([
      [row.affected, row.condition, ageYears, today, clinic.timeZone],
      visits.map((v) => [v.id, v.startedAt, v.signedAt, v.entries.map((e) => [e.key, e.version, e.at])]),
      closures,
      measures.slice(this.content.bundle.measures.length),
    ]);
    const signature = createHash('sha256').update(told).digest('base64');
    const kept = inLanguage(row.id);
    const before = this.judgements.get(kept);
    const judged = before?.signature === signature ? before.judged : this.judge(row, clinic, on);
    keepNewest(this.judgements, kept, { signature, judged }, MOST_JUDGED);
    return judged;
  }

  private judge(
    row: EpisodeRow,
    clinic: Clinic,
    { visits, measures, ageYears, today, closures }: JudgedOn,
  ): Judged {
    const safety = episodeSafety({ ...this.content.bundle, measures }, visits, {
      affected: row.affected,
      complaint: row.condition,
      ageYears,
      closures,
    });
    const off = safety?.tagsOff ?? { left: [], right: [] };
    const reasoning = workedOnVisits({ ...this.content.bundle, measures }, visits, {
      affected: row.affected,
      ageYears,
      daysSinceOnset: daysSinceOnset(visits, today, (iso) => localDay(new Date(iso), clinic.timeZone)),
      tagsOff: (side) => (side === 'none' ? [...off.left, ...off.right] : off[side]),
    });
    return { safety, off, reasoning };
  }

  private assemble(
    row: EpisodeRow,
    rows: EpisodeRows,
    { protocol, measures, library }: Pick<EpisodeRecord, 'protocol' | 'measures' | 'library'>,
  ): EpisodeRecord {
    const { clinic } = rows;
    const person = rows.people.get(row.personId);
    if (person === undefined) throw notFound();
    const all = rows.visits.get(row.id) ?? [];
    // What came from a table was measured by others at another time: it is shown, and nothing is judged by it.
    const visits = all.filter((v) => v.imported !== true);
    const plans = (rows.plans.get(row.id) ?? []).map((p) => planView(p, protocol, rows.names));
    const home = rows.home.get(row.id) ?? [];
    const spans = rows.spans.get(row.id) ?? [];
    const closures = rows.closures.get(row.id) ?? [];
    const link = rows.links.get(row.personId);
    const today = localDay(this.clock.now(), clinic.timeZone);
    const ageYears = ageOn(person.birthDate, today);
    const ruleClosures = ruleClosuresOf(closures);
    const { safety, off, reasoning } = this.judged(row, clinic, {
      visits,
      measures,
      ageYears,
      today,
      closures: ruleClosures,
    });
    const view: EpisodeView = {
      id: row.id,
      person: personOf(person, ageYears),
      condition: row.condition,
      protocol: row.protocol,
      affected: row.affected,
      schools: row.schools,
      equipment: row.equipment,
      weightsKg: row.weightsKg,
      minutesPerDay: row.minutesPerDay,
      exerciseTime: row.exerciseTime,
      stage: row.stage,
      stages: spans.map((s) => ({ stage: s.stage, since: s.since.toISOString(), reason: s.reason })),
      startedAt: row.startedAt.toISOString(),
      status: row.status,
      ended: endedOf(row, rows.names),
      cameBackAt: row.cameBackAt?.toISOString() ?? null,
      version: row.version,
      today,
      timeZone: clinic.timeZone,
      refuses: rows.refuses.get(row.personId) ?? [],
      bodyMassKg: readingsOf(visits, measures).value(BODY_MASS, 'none'),
      visits,
      earlier: all.filter((v) => v.imported === true),
      closures: ruleClosures,
      safety,
      tagsOff: withHeld(off, reasoning.held),
      supervised: safety?.supervised ?? { left: [], right: [] },
      held: reasoning.held,
      openStops: openStopsOf(home, closures),
      elsewhere: [],
      heldBack: [],
      notPrescribed: [],
      plan: givenNow(plans, row).at(-1) ?? null,
      draft: plans.find((p) => p.status === 'draft') ?? null,
      taught: rows.taught.get(row.id) ?? [],
      homeLink: homeLinkOf(link),
    };
    return {
      row,
      clinic,
      view,
      reasoning,
      home,
      harmless: harmlessStops(closures),
      plans,
      recorded: rows.recorded.get(row.personId) ?? [],
      measures,
      library,
      protocol,
      tongue: this.content.tongueOf(person.language),
      locale: this.content.languageOf(person.language)?.locale ?? clinic.locale,
    };
  }
}
