import { checkExerciseFile, type ExerciseFile, loadContent, writeExercise } from './index.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;
const OWN = { key: 'own-1', rung: 1, version: 1 };

function fileOf(key: string): ExerciseFile {
  const exercise = content.exercises.find((e) => e.key === key);
  const figure = content.figures.find((f) => f.exercise === key);
  if (exercise === undefined || figure === undefined) throw new Error(key);
  return { format: 'heathstep exercise', version: 1, exercise: writeExercise(exercise), figure };
}

describe('an exercise as a file', () => {
  it.each(content.exercises.map((e) => [e.key]))(
    '%s is exported, and read back is the same exercise and figure',
    (key) => {
      const read = checkExerciseFile(JSON.parse(JSON.stringify(fileOf(key))), { ...OWN, key }, content);
      const shipped = content.exercises.find((e) => e.key === key);
      const figure = content.figures.find((f) => f.exercise === key);
      expect(read).toEqual({
        ok: true,
        exercise: { ...shipped, ladder: 'own', rung: 1, evidence: { ...shipped?.evidence, version: 1 } },
        figure,
      });
    },
  );

  it('takes the key, the place and the version it is given, whatever the file says', () => {
    const read = checkExerciseFile(fileOf('pogo'), { key: 'own-9', rung: 4, version: 3 }, content);
    expect(read.ok && read.exercise).toMatchObject({
      key: 'own-9',
      ladder: 'own',
      rung: 4,
      evidence: { version: 3 },
    });
    expect(read.ok && read.figure.exercise).toBe('own-9');
  });

  const pogo = fileOf('pogo');
  const changed = (exercise: object): object => ({ ...pogo, exercise: { ...pogo.exercise, ...exercise } });
  it.each([
    ['something else altogether', { hello: 1 }, '', /format is missing/],
    ['a later version', { ...pogo, version: 2 }, '/version', /must be 1/],
    ['an unknown field', changed({ colour: 'red' }), '/exercise', /unknown field colour/],
    ['no name', changed({ name: '' }), '/exercise/name', /is empty/],
    ['no steps', changed({ steps: [] }), '/exercise/steps', /is empty/],
    [
      'a step too long to read at a glance',
      changed({ steps: [Array(13).fill('word').join(' ')] }),
      '/exercise/steps',
      /words or more/,
    ],
    [
      'a dose beyond its own range',
      changed({ dose: { ...pogo.exercise.dose, sets: 9 } }),
      '/exercise/dose',
      /sets is not/,
    ],
    ['a tag that is none', changed({ tags: ['fun'] }), '/exercise/tags/0', /must be one of/],
    ['a driver that is none', changed({ drivers: ['luck'] }), '/exercise/drivers', /no driver luck/],
    [
      'an easier exercise that is none',
      changed({ after: ['nothing-such'] }),
      '/exercise/after',
      /nothing-such/,
    ],
    [
      'a figure from nowhere',
      { ...pogo, figure: { ...pogo.figure, view: 'inside' } },
      '/figure/view',
      /must be one of/,
    ],
    [
      'a figure without a frame',
      { ...pogo, figure: { ...pogo.figure, frame: [0, 0, 0, 0] } },
      '/figure/frame',
      /no size/,
    ],
  ])('refuses %s, by its field', (_what, file, pointer, detail) => {
    const read = checkExerciseFile(file, OWN, content);
    expect(read.ok ? [] : read.problems).toContainEqual({
      pointer,
      detail: expect.stringMatching(detail) as string,
    });
  });

  it('refuses a joint beyond what it can do at any moment of the movement', () => {
    const { figure } = pogo;
    if (figure.view !== 'side') throw new Error('pogo is drawn from the side');
    const bent = { ...figure, end: { ...figure.end, near: { ...figure.end.near, shin: -60 } } };
    const read = checkExerciseFile({ ...pogo, figure: bent }, OWN, content);
    expect(read.ok ? [] : read.problems.map((p) => p.detail).join()).toMatch(/the near knee is at -/);
  });
});
