import { loadContent } from './index.js';
import {
  judgeVignette,
  loadVignettes,
  missed,
  notInView,
  rightlyLed,
  wronglyAsked,
} from './testing/vignettes.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;
const only = process.env['VIGNETTES'];
const cases = loadVignettes()
  .filter((v) => only === undefined || (only === 'aside') === (v.aside === true))
  .map((v) => ({ v, judged: judgeVignette(v, content) }));

const row = ({ v, judged }: (typeof cases)[number]): string => {
  const [first, second] = judged.reasoning.ranked.filter((r) => r.shownAs === null);
  const told = (r: typeof first) => (r === undefined ? '' : `${r.key} ${r.rank} ${r.weight.toFixed(2)}`);
  return [
    rightlyLed(v, judged) ? 'ok ' : 'NO ',
    v.kind.padEnd(8),
    v.aside === true ? 'aside' : '     ',
    v.key.padEnd(24),
    told(first).padEnd(44),
    told(second).padEnd(44),
    missed(v, judged)
      .map((m) => `MISSED ${m}`)
      .join(' '),
    notInView(v, judged)
      .map((m) => `not in view ${m}`)
      .join(' '),
    wronglyAsked(v, judged).join(' '),
  ].join(' ');
};

const share = (list: typeof cases): string => {
  const right = list.filter(({ v, judged }) => rightlyLed(v, judged)).length;
  return `${right} of ${list.length}`;
};

describe('written cases', () => {
  it('prints how each case is judged, the ones held aside apart', () => {
    const kinds = ['typical', 'atypical', 'mixed', 'red-flag', 'little'] as const;
    const told = kinds.map((kind) => {
      const of = cases.filter(({ v }) => v.kind === kind);
      return `${kind}: ${share(of.filter(({ v }) => v.aside !== true))} seen, ${share(of.filter(({ v }) => v.aside === true))} held aside`;
    });
    process.stdout.write(`\n${cases.map(row).join('\n')}\n${told.join('\n')}\n`);
    expect(cases.length).toBeGreaterThan(0);
  });

  it('lets the right idea lead in at least 85 % of the typical cases, and none where little is known', () => {
    const of = (kind: string) => cases.filter(({ v }) => v.kind === kind);
    const right = (list: typeof cases) => list.filter(({ v, judged }) => rightlyLed(v, judged)).length;
    expect(right(of('typical')) / of('typical').length).toBeGreaterThanOrEqual(0.85);
    expect(of('little').every(({ judged }) => judged.reasoning.cannotTell)).toBe(true);
  });

  it('asks next what is sensible: of the cases seen in nine of ten, and never a handling that could harm', () => {
    const told = cases.filter(({ v }) => v.asks !== undefined || v.asksNot !== undefined);
    const right = (list: typeof cases) =>
      list.filter(({ v, judged }) => wronglyAsked(v, judged).length === 0);
    const seen = told.filter(({ v }) => v.aside !== true);
    expect(told.length).toBeGreaterThan(25);
    expect(right(seen).length / seen.length).toBeGreaterThanOrEqual(0.9);
    expect(right(told).length / told.length).toBeGreaterThanOrEqual(0.85);
    const flags = told.filter(({ v }) => v.kind === 'red-flag');
    expect(flags.flatMap(({ v, judged }) => wronglyAsked({ ...v, asks: undefined }, judged))).toEqual([]);
  });

  it('has what stands beside the leading idea in view', () =>
    expect(
      cases.filter(({ v }) => v.aside !== true).flatMap(({ v, judged }) => notInView(v, judged)),
    ).toEqual([]));

  it.each(cases.map((c) => [c.v.key, c] as const))(
    '%s: what must not be missed is in view',
    (_key, { v, judged }) => expect(missed(v, judged)).toEqual([]),
  );
});
