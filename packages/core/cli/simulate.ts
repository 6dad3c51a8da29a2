import { dayOf, issue, ok, refused, type Result } from '@heathstep/core';
import { simulateEpisode, StagePlans } from '@heathstep/core/simulate';
import { type ContentBundle, loadFamilies } from '@heathstep/content';

interface SimulateIn {
  readonly protocol: string;
  readonly seed: number;
  readonly weeks: number;
}

/** A Monday that stands for the first day; nothing here depends on which. */
const FROM = '2026-01-05';

/** One made-up person under a protocol: what they told, what was decided at visits and between them, and what was true. */
export function simulateOn(raw: unknown, content: ContentBundle): Result<unknown> {
  const { protocol: key, seed, weeks } = raw as SimulateIn;
  const protocol = content.protocols.find((p) => p.key === key);
  const family = loadFamilies(content).find((f) => f.protocols.includes(key));
  if (protocol === undefined || family === undefined)
    return refused(issue('protocol', key, `one of ${content.protocols.map((p) => p.key).join(', ')}`));
  const { exercises, measures, ladders } = content;
  const plans = new StagePlans(protocol, { exercises, measures, ladders });
  const e = simulateEpisode({ family, plans, seed, weeks, from: FROM });
  const days = [...new Set([...e.mornings, ...e.sessions, ...e.stops].map((d) => d.day))].sort();
  const on = <T extends { readonly day: string }>(list: readonly T[], day: string): T | undefined =>
    list.find((x) => x.day === day);
  return ok({
    days: days.map((day) => ({
      day,
      morning: on(e.mornings, day)?.scores ?? null,
      session: on(e.sessions, day)?.scores ?? null,
      state: on(e.states, day)?.state ?? null,
      stop: on(e.stops, day)?.grade ?? null,
    })),
    visits: e.reviews.map(({ day, stage, seen, decision, rule, because }) => ({
      day,
      stage,
      seen,
      decision,
      rule,
      because,
      measures: seen ? e.measures.filter((m) => dayOf(m.at) === day) : [],
    })),
    truth: {
      kind: e.person.kind,
      side: e.person.side,
      stages: e.stages,
      healed: e.truth.healed,
      flares: e.truth.flares,
      foundOutOn: e.truth.foundOutOn,
    },
  });
}
