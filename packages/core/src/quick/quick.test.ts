import fc from 'fast-check';
import { lunge, raise } from '../testing/measures.js';
import type { MeasureDefinition } from '../measure/definition.js';
import { completeQuick } from './complete.js';
import { parseQuick, printQuick, type QuickItem } from './grammar.js';
import { nearest } from './nearest.js';

const grip: MeasureDefinition = {
  ...raise,
  key: 'paper-grip',
  label: 'Paper grip',
  aliases: ['paper'],
  allowed: { min: 0, max: 1 },
  usual: { min: 0, max: 1 },
  levels: [
    { value: 0, word: 'fail' },
    { value: 1, word: 'pass' },
  ],
};
const MEASURES: MeasureDefinition[] = [
  { ...lunge, aliases: ['lunge'] },
  { ...lunge, key: 'lunge-knee-straight', label: 'Lunge, knee straight', aliases: ['lunge straight', 'ks'] },
  { ...raise, aliases: ['raise'] },
  {
    ...lunge,
    key: 'single-leg-stance',
    label: 'Single-leg stance',
    unit: 's',
    unitLabel: 's',
    aliases: ['balance eo'],
    usual: { min: 0, max: 45 },
  },
  {
    ...lunge,
    key: 'lunge-distance',
    label: 'Toe to wall',
    unit: 'cm',
    unitLabel: 'cm',
    aliases: ['wall'],
    allowed: { min: 0, max: 30 },
    usual: { min: 1, max: 18 },
  },
  { ...raise, key: 'five-sit-to-stands', label: 'Five sit-to-stands', sides: 'single', aliases: ['sts'] },
  grip,
];
const items = (line: string) => {
  const result = parseQuick(line, MEASURES);
  if (!result.ok) throw new Error(result.problem.message);
  return result.items;
};
const problem = (line: string) => {
  const result = parseQuick(line, MEASURES);
  if (result.ok) throw new Error('expected a problem');
  return result.problem;
};
const item = (measure: string, side: QuickItem['side'], trials: number[], more: Partial<QuickItem> = {}) => ({
  measure,
  side,
  trials,
  status: 'taken',
  pain: null,
  ...more,
});

describe('the quick line', () => {
  it('reads the examples of its description', () => {
    expect(items('lunge l 34 35 33')).toEqual([item('lunge-knee-bent', 'left', [34, 35, 33])]);
    expect(items('raise r 14 pain 3')).toEqual([item('single-leg-heel-raise', 'right', [14], { pain: 3 })]);
    expect(items('balance eo l 22')).toEqual([item('single-leg-stance', 'left', [22])]);
  });

  it('takes both sides in one, several measures, and the longest name', () => {
    expect(items('lunge l 34 r 31 pain 2; ks b 25')).toEqual([
      item('lunge-knee-bent', 'left', [34]),
      item('lunge-knee-bent', 'right', [31], { pain: 2 }),
      item('lunge-knee-straight', 'left', [25]),
      item('lunge-knee-straight', 'right', [25]),
    ]);
    expect(items('lunge straight l 20')[0]?.measure).toBe('lunge-knee-straight');
    expect(items('single-leg-heel-raise l 3')[0]?.measure).toBe('single-leg-heel-raise');
  });

  it('takes units of the measure’s kind, and a word for a level', () => {
    expect(items('wall l 80 mm 8.5cm 9')[0]?.trials).toEqual([8, 8.5, 9]);
    expect(items('paper l pass fail')[0]?.trials).toEqual([1, 0]);
  });

  it('knows unable, skip and stopped, and measures without sides', () => {
    expect(items('raise l unable r stopped pain 7')).toEqual([
      item('single-leg-heel-raise', 'left', [], { status: 'unable' }),
      item('single-leg-heel-raise', 'right', [], { status: 'stopped-by-pain', pain: 7 }),
    ]);
    expect(items('sts 12')).toEqual([item('five-sit-to-stands', 'none', [12])]);
  });

  it('an empty line says nothing', () => {
    expect(items('  ; ')).toEqual([]);
  });

  it.each([
    ['lung l 34', 'There is no measure called lung', 'lunge l 34', 'lung'],
    ['lunge 34', 'Which side? Say l or r before the value', 'l 34', '34'],
    ['lunge l 340', 'Lunge, knee bent lies between 0 and 70°. Did you mean 34?', '34', '340'],
    ['lunge l 34 cm', 'Lunge, knee bent is in °, not cm', null, '34 cm'],
    ['raise r 14 pian 3', 'pian is neither a number nor a word of this line', 'pain', 'pian'],
    ['raise r 14 pain 12', 'Pain is a whole number from 0 to 10', '10', '12'],
    ['raise r 14 pain', 'Pain is a whole number from 0 to 10', 'pain 3', 'pain'],
    ['sts l 12', 'Five sit-to-stands has no sides', null, 'l'],
    ['raise l', 'A value, unable, skip or stopped is wanted here', null, 'l'],
    ['raise l unable 3', 'Either a value or why there is none, not both', null, 'unable'],
    ['raise', 'Say the side and the value', 'raise l 0', 'raise'],
    ['raise l 3.5', 'Single-leg heel raise is a whole number', null, '3.5'],
  ])('%s: %s', (line, message, near, marked) => {
    const found = problem(line);
    expect(found.message).toBe(message);
    expect(found.nearest).toBe(near);
    expect(line.slice(found.start, found.end)).toBe(marked);
  });

  it('the nearest line it offers can be read', () => {
    for (const line of ['lung l 34', 'raise', 'balnce eo r 20']) {
      const { nearest: near } = problem(line);
      expect(parseQuick(near ?? '', MEASURES).ok).toBe(true);
    }
  });

  it('what is printed reads back to the same', () => {
    const part = fc.oneof(
      fc.record({
        status: fc.constant('taken' as const),
        trials: fc.array(fc.integer({ min: 0, max: 30 }), { minLength: 1, maxLength: 10 }),
        pain: fc.option(fc.integer({ min: 0, max: 10 })),
      }),
      fc.record({
        status: fc.constantFrom('unable' as const, 'not-done' as const, 'stopped-by-pain' as const),
        trials: fc.constant([]),
        pain: fc.option(fc.integer({ min: 0, max: 10 })),
      }),
    );
    const any = fc
      .tuple(fc.constantFrom(...MEASURES), fc.constantFrom('left' as const, 'right' as const), part)
      .map(([m, side, p]): QuickItem => ({
        ...p,
        measure: m.key,
        side: m.sides === 'single' ? 'none' : side,
        trials: m.levels === null ? p.trials : p.trials.map((t) => t % 2),
      }));
    fc.assert(
      fc.property(fc.array(any, { maxLength: 6 }), (list) => {
        expect(items(printQuick(list, MEASURES))).toEqual(list);
      }),
    );
  });

  it('never throws, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (line) => {
        const result = parseQuick(line, MEASURES);
        if (!result.ok) expect(result.problem.end).toBeGreaterThanOrEqual(result.problem.start);
      }),
    );
  });
});

describe('completion', () => {
  const texts = (line: string) => completeQuick(line, MEASURES).map((c) => c.text);

  it('offers names that begin with what was typed, then names with such a word', () => {
    expect(texts('lu')).toEqual(['lunge', 'lunge straight', 'wall']);
    expect(texts('stand')).toEqual(['sts']);
  });

  it('then sides, then pain and why there is no value', () => {
    expect(texts('raise ')).toEqual(['l', 'r']);
    expect(texts('raise l ')).toEqual(['l', 'r', 'pain', 'unable', 'skip', 'stopped']);
    expect(texts('paper l p')).toEqual(['pass', 'pain']);
  });

  it('each completion is the whole line', () => {
    expect(completeQuick('lunge l 34; ra', MEASURES)[0]?.line).toBe('lunge l 34; raise ');
    expect(completeQuick('raise l un', MEASURES)[0]?.line).toBe('raise l unable ');
  });
});

describe('the nearest word', () => {
  it.each([
    ['lugne', 'lunge'],
    ['rase', 'raise'],
    ['balance', 'balance eo'],
    ['xyzxyz', null],
  ])('%s is %s', (typed, word) => {
    expect(nearest(typed, ['lunge', 'raise', 'balance eo'])).toBe(word);
  });
});
