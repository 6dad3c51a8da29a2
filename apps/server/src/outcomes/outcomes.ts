import { stringify } from 'csv-stringify/sync';
import {
  type ChangeSpread,
  type DecisionsOf,
  FEWEST_PEOPLE,
  type Outcome,
  OUTCOMES,
  type OutcomesView,
  type ProtocolOutcomes,
  type Spread,
} from '@heathstep/contracts';
import { type ProtocolDefinition, say } from '@heathstep/core';
import { type Counts, type OfProtocol, spreadOf } from './counts.js';

const is =
  (of: OfProtocol) =>
  (row: OfProtocol): boolean =>
    row.protocol === of.protocol && row.version === of.version;

const spread = (row: { readonly n: number; readonly q: number[] } | undefined): Spread =>
  row === undefined ? { n: 0, spread: null } : { n: row.n, spread: spreadOf(row.n, row.q) };

const changeSpread = (row: Counts['pain'][number] | undefined): ChangeSpread => ({
  ...spread(row),
  betterPercent: row === undefined || row.n < FEWEST_PEOPLE ? null : percentOf(row.better, row.n),
});

const percentOf = (part: number, whole: number): number => (whole === 0 ? 0 : (part / whole) * 100);

function decisionsOf(counts: Counts, of: OfProtocol, agreed: boolean): DecisionsOf {
  const row = counts.decisions.find((d) => is(of)(d) && d.agreed === agreed);
  const { n, followed, worse } = row ?? { n: 0, followed: 0, worse: 0 };
  return { n, followed, worsePercent: followed < FEWEST_PEOPLE ? null : percentOf(worse, followed) };
}

/** What became of the people on each version of each protocol that has any, the most people first. */
export function outcomesOf(counts: Counts, protocolOn: (of: OfProtocol) => ProtocolDefinition): OutcomesView {
  const protocols = counts.people.map(({ n, ...of }): ProtocolOutcomes => {
    const protocol = protocolOn(of);
    const logged = counts.logged.find(is(of));
    const flares = counts.flares.find(is(of));
    const back = counts.cameBack.find(is(of))?.n ?? 0;
    return {
      ...of,
      name: say(protocol.name),
      people: n,
      stages: protocol.stages.map((s) => ({
        stage: s.key,
        name: say(s.name),
        usualWeeks: { min: s.usualWeeks.min, max: s.usualWeeks.max },
        weeks: spread(counts.stages.find((r) => is(of)(r) && r.stage === s.key)),
      })),
      painChange: changeSpread(counts.pain.find(is(of))),
      functionChange: changeSpread(counts.function.find(is(of))),
      flaresPer100Days:
        flares === undefined || n < FEWEST_PEOPLE ? null : (flares.flares / flares.days) * 100,
      cameBack: back === 0 || back >= FEWEST_PEOPLE ? back : null,
      agreed: decisionsOf(counts, of, true),
      otherwise: decisionsOf(counts, of, false),
      ended: OUTCOMES.flatMap((outcome: Outcome) => {
        const row = counts.ended.find((r) => is(of)(r) && r.outcome === outcome);
        return row === undefined ? [] : [{ outcome, n: row.n < FEWEST_PEOPLE ? null : row.n }];
      }),
      loggedPercent:
        logged === undefined || logged.n < FEWEST_PEOPLE ? null : percentOf(logged.logged, logged.days),
    };
  });
  return { protocols: protocols.sort((a, b) => b.people - a.people || (a.name < b.name ? -1 : 1)) };
}

const shown = (value: number | null | undefined): string =>
  value === null || value === undefined ? '' : String(Math.round(value * 100) / 100);

/** One row a number, for a table of one's own; what is too few is empty. Text cells begin nothing that a sheet would work out. */
export function outcomesCsv({ protocols }: OutcomesView): string {
  const rows = protocols.flatMap((p) => {
    const row = (what: string, stage: string, { n, spread: s }: Spread) => [
      p.name,
      p.version,
      what,
      stage,
      n < FEWEST_PEOPLE ? '' : n,
      shown(s?.low),
      shown(s?.middle),
      shown(s?.high),
    ];
    const single = (what: string, n: number, value: number | null) => [
      p.name,
      p.version,
      what,
      '',
      n < FEWEST_PEOPLE ? '' : n,
      '',
      shown(value),
      '',
    ];
    return [
      ...p.stages.map((s) => row('weeks in stage', s.name, s.weeks)),
      row('change of worst pain', '', p.painChange),
      single('worst pain better by 2 or more, percent', p.painChange.n, p.painChange.betterPercent),
      row('change of own activities', '', p.functionChange),
      single(
        'own activities better by 2 or more, percent',
        p.functionChange.n,
        p.functionChange.betterPercent,
      ),
      single('flares decided about, for each 100 days', p.people, p.flaresPer100Days),
      single('came back after the end', p.people, p.cameBack),
      single(
        'agreed with the rules, then eased back or referred, percent',
        p.agreed.followed,
        p.agreed.worsePercent,
      ),
      single(
        'decided otherwise, then eased back or referred, percent',
        p.otherwise.followed,
        p.otherwise.worsePercent,
      ),
      single('days logged, percent', p.people, p.loggedPercent),
    ];
  });
  return stringify(rows, {
    header: true,
    columns: ['protocol', 'version', 'what', 'stage', 'n', 'lower quarter', 'middle', 'upper quarter'],
    escape_formulas: true,
  });
}
