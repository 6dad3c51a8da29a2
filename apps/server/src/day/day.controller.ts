import { Controller, Get } from '@nestjs/common';
import { Clock } from '../clock.js';
import type { DayItem, DayView, EpisodeView } from '@heathstep/contracts';
import { currentRuns, dayOf, daysBetween, signText, stageOf, localDay } from '@heathstep/core';
import { Me, type SignedIn } from '../auth/auth.js';
import { Assessment } from '../episodes/assessment.js';
import { EpisodeReader } from '../episodes/reader.js';
import type { EpisodeRecord } from '../episodes/record.js';
import { ofReview, type Told } from './ofReview.js';
import { auditList, Db, type Tx } from '../persistence/db.js';
import { Clinic, Person } from '../persistence/entities.js';

const SILENT_DAYS = 4;
const ORDER: readonly DayItem['kind'][] = [
  'stop',
  'blocked',
  'refer',
  'flare',
  'ready',
  'look-again',
  'review-due',
  'silent',
  'new',
  'unplanned',
  'steady',
];

/** Someone without a plan: a visit to begin or to finish, or measured with nothing to prescribe by yet. */
function unplanned({ visits, protocol }: EpisodeView): Told {
  if (visits.length === 0)
    return { kind: 'new', headline: 'First visit to begin', detail: 'Nothing recorded yet' };
  if (visits.some((v) => v.signedAt === null))
    return {
      kind: 'new',
      headline: visits.length < 2 ? 'First visit open' : 'Review open',
      detail: protocol === '' ? 'To be finished and signed' : 'No plan given yet',
    };
  return {
    kind: 'unplanned',
    headline: 'Seen, without a plan',
    detail:
      protocol === ''
        ? 'No protocol in the library is for this complaint yet'
        : 'The visit is signed, no plan was given',
  };
}

/** How much of what was planned was done: of a week, or of as many days as there was a plan. */
const doneWords = ({ percent, days }: { readonly percent: number; readonly days: number }): string =>
  days === 1
    ? 'The plan was given today'
    : `${percent.toFixed(0)} % of the planned sessions done ${days < 7 ? `in the ${days} days since the plan was given` : 'this week'}`;

@Controller('api/day')
export class DayController {
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
      const records = await this.reader.readOpen(tx);
      const seen = new Set(records.map((r) => r.row.personId));
      const items: DayItem[] = people
        .filter((p) => !seen.has(p.id))
        .map((p) => ({
          personId: p.id,
          episodeId: null,
          name: p.name,
          stageName: null,
          complaint: null,
          kind: 'new',
          headline: 'New referral',
          detail: 'Nothing recorded yet',
        }));
      const lastDecisions = await this.lastDecisions(tx);
      for (const record of records)
        items.push({
          personId: record.row.personId,
          episodeId: record.row.id,
          name: record.view.person.name,
          stageName: this.stageName(record),
          complaint: { condition: record.row.condition, affected: record.row.affected },
          ...this.tell(record, lastDecisions.get(record.row.id) ?? null),
        });
      items.sort((a, b) => ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind) || a.name.localeCompare(b.name));
      const shown = items.map((i) => i.personId);
      await auditList(tx, me, { action: 'read', subject: 'day', shown });
      return { today: localDay(this.clock.now(), clinic.timeZone), items };
    });
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
    return stageOf(record.protocol, stage)?.name ?? stage;
  }

  private tell(record: EpisodeRecord, lastDecision: Date | null): Told {
    const { view } = record;
    const assessed = this.assessment.assess(record, lastDecision);
    const { review, stage, home } = assessed;
    const [stop] = view.openStops;
    if (stop !== undefined)
      return { kind: 'stop', headline: 'Stop sign reported at home', detail: `${stop.sign}, ${stop.day}` };
    const [blocking] = view.safety?.blocking ?? [];
    const [sign] = view.safety?.stops ?? [];
    const open = blocking ?? sign;
    if (open !== undefined) {
      return {
        kind: 'blocked',
        headline: blocking === undefined ? 'A stop sign is open' : 'Nothing can be prescribed',
        detail: signText(open),
      };
    }
    if (review === null || stage === null) return unplanned(view);
    const { reds } = currentRuns(home.sessions.map((s) => s.state));
    const asked = ofReview(review, reds, stage.name);
    if (asked !== null) return asked;
    const lastSeen = view.visits[view.visits.length - 1]?.startedAt ?? view.startedAt;
    const sinceVisit = daysBetween(localDay(new Date(lastSeen), record.clinic.timeZone), view.today);
    if (sinceVisit >= stage.reviewEveryDays) {
      return {
        kind: 'review-due',
        headline: 'Review due',
        detail: `Last seen ${sinceVisit} days ago, every ${stage.reviewEveryDays} in this stage`,
      };
    }
    const lastLog =
      assessed.facts.sessions[assessed.facts.sessions.length - 1]?.at ?? view.plan?.givenAt ?? view.startedAt;
    const silent = daysBetween(dayOf(lastLog), view.today);
    if (silent >= SILENT_DAYS)
      return {
        kind: 'silent',
        headline: `Nothing logged for ${silent} days`,
        detail: 'Ask whether the plan fits the week',
      };
    const adherence = this.assessment.adherence(assessed, record);
    if (adherence === null)
      return {
        kind: 'unplanned',
        headline: 'Nothing to do at home',
        detail: 'The plan has no sessions in the week',
      };
    return {
      kind: 'steady',
      headline: 'Going as planned',
      detail: doneWords(adherence),
    };
  }
}
