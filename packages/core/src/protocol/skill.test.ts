import { shownLevel, shownLevels, type SkillDefinition } from './skill.js';

const toes: SkillDefinition = {
  key: 'toes',
  label: 'Toes',
  brief: '',
  shownBy: { measures: ['big', 'small'], learned: 2, partly: 1 },
};
const reader = (values: Record<string, number | null>) => (measure: string) => values[measure] ?? null;

describe('a skill as measures show it', () => {
  it.each([
    [{ big: 2, small: 2 }, 'learned'],
    [{ big: 2, small: 1 }, 'partial'],
    [{ big: 1, small: 0 }, 'partial'],
    [{ big: 0, small: 0 }, 'none'],
    [{ big: 2, small: null }, null],
    [{ big: 2 }, null],
  ])('%j shows %s', (values, level) => expect(shownLevel(toes, reader(values), 'left')).toBe(level));

  it('is shown by nothing where no measure is named, and only on sides that were measured', () => {
    expect(shownLevel({ key: 'x', label: 'x', brief: '' }, reader({ big: 2 }), 'left')).toBeNull();
    const left = (measure: string, side: string) => (side === 'left' && measure !== 'none' ? 2 : null);
    expect(shownLevels([toes], left)).toEqual({ toes: { left: 'learned' } });
  });
});
