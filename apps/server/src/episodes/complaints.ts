import { CLOSED } from './ending.js';
import { type ComplaintView, reportedText, screenedVisit } from '@heathstep/contracts';
import {
  type Affected,
  ageProblem,
  blocksOn,
  endsProtocol,
  localDay,
  type PerSide,
  type Side,
  signText,
  stageOf,
  type Tag,
  say,
  sayIf,
} from '@heathstep/core';
import { type EpisodeRecord, patientPlanOf } from './record.js';

/** What a complaint means for another of the same person. */
function complaintFor(record: EpisodeRecord, affected: Affected): ComplaintView {
  const { view } = record;
  const blocks = (view.safety?.triggered ?? []).filter((t) => blocksOn(t, affected)).map(signText);
  return {
    episodeId: view.id,
    condition: view.condition,
    affected: view.affected,
    stageName: sayIf(stageOf(record.protocol, view.stage)?.name ?? null),
    blocks: [...view.openStops.map(reportedText), ...blocks],
    openGrades: view.openStops.map((s) => s.grade),
    stopIds: record.home.filter((e) => e.kind === 'stop').map((e) => e.id),
    plan: view.plan === null ? null : patientPlanOf(record, view.plan),
  };
}

/** What came back is not treated by what was told before: safety is asked anew, at a visit of its own. */
function askedAnew({ cameBackAt, visits, timeZone }: EpisodeRecord['view']): string[] {
  const asked = screenedVisit(visits);
  if (cameBackAt === null || (asked !== null && asked.startedAt >= cameBackAt)) return [];
  const day = localDay(new Date(cameBackAt), timeZone);
  return [
    visits.some((v) => v.signedAt === null)
      ? say(
          'It came back on {{day}}: sign the visit that was open before, then ask the safety questions anew',
          {
            day,
          },
        )
      : say('It came back on {{day}}: the safety questions are asked anew at a visit', { day }),
  ];
}

const bothOff = (all: readonly PerSide<readonly Tag[]>[]): PerSide<readonly Tag[]> => {
  const on = (side: Side) => [...new Set(all.flatMap((off) => off[side]))];
  return { left: on('left'), right: on('right') };
};

/** The safety of one complaint binds all: what any of them switches off is off, and what blocks one can block another. */
export function bound(record: EpisodeRecord, others: readonly EpisodeRecord[]): EpisodeRecord {
  const { view, protocol } = record;
  const tagsOff = bothOff([view.tagsOff, ...others.map((o) => o.view.tagsOff)]);
  const supervised = bothOff([view.supervised, ...others.map((o) => o.view.supervised)]);
  // Exercises of the other plan are held back by what this complaint says as well.
  const elsewhere = others.map((o) =>
    complaintFor(
      { ...o, view: { ...o.view, tagsOff: bothOff([tagsOff, o.view.tagsOff]), supervised } },
      view.affected,
    ),
  );
  const { safety, person } = view;
  const age = ageProblem(protocol, person.ageYears);
  const reported = [...view.openStops.map(reportedText), ...elsewhere.flatMap((c) => c.blocks)];
  return {
    ...record,
    view: {
      ...view,
      tagsOff,
      supervised,
      elsewhere,
      heldBack: [...reported, ...(safety?.blocking ?? []).map(signText)],
      notPrescribed: [
        ...(view.status === 'closed' ? [CLOSED] : []),
        ...reported,
        ...askedAnew(view),
        ...(safety === null ? [say('The safety questions have not been asked')] : safety.blockedBecause),
        ...endsProtocol(safety?.triggered ?? [], protocol, view.affected).map((t) =>
          say('This protocol ends with it: {{sign}}', { sign: signText(t) }),
        ),
        ...(age === null ? [] : [age]),
      ],
    },
  };
}
