import { checkExerciseFile, loadContent, writeExercise } from '@heathstep/content';
import { BLANK, typedFrom, writtenFrom } from './typed.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error('content');
const { content } = loaded;
const own = { key: 'own-1', rung: 1, version: 1 };

describe('an exercise in the form', () => {
  it.each(content.exercises.map((e) => [e.key, e] as const))(
    '%s comes out of the form as it went in',
    (key, e) => {
      const figure = content.figures.find((f) => f.exercise === key);
      const exercise = writtenFrom(typedFrom(writeExercise(e)));
      const read = checkExerciseFile(
        { format: 'heathstep exercise', version: 1, exercise, figure },
        own,
        content,
      );
      const changes = e.after.length === 0 ? [] : e.changes;
      expect(read.ok ? read.exercise : read.problems).toEqual({
        ...e,
        key: 'own-1',
        ladder: 'own',
        rung: 1,
        changes,
        evidence: { ...e.evidence, version: 1 },
      });
    },
  );

  it('leaves what is no number as it was typed, so that the answer names its field', () => {
    const typed = typedFrom(BLANK);
    const sent = writtenFrom({ ...typed, text: { ...typed.text, sets: 'many', rest: '' } });
    expect(sent).toMatchObject({ dose: { sets: 'many', rest: '', reps: 10 } });
  });

  it('takes a decimal comma', () => {
    const typed = typedFrom(BLANK);
    expect(writtenFrom({ ...typed, text: { ...typed.text, kg: '2,5' } })).toMatchObject({
      dose: { kg: 2.5 },
    });
  });

  it('reads faults by line, what helps after the first colon', () => {
    const typed = typedFrom(BLANK);
    const faults = 'heel lifts: shorter stance\n\n knee falls in : over the toe: the second ';
    expect(writtenFrom({ ...typed, text: { ...typed.text, faults } })).toMatchObject({
      faults: { 'heel lifts': 'shorter stance', 'knee falls in': 'over the toe: the second' },
    });
  });

  it('sends the range of a hold or of a tempo, not of both', () => {
    const typed = typedFrom(BLANK);
    expect(
      Object.keys(
        (writtenFrom({ ...typed, text: { ...typed.text, way: 'hold', hold: '5' } }) as { range: object })
          .range,
      ),
    ).not.toContain('up');
    expect(Object.keys((writtenFrom(typed) as { range: object }).range)).not.toContain('hold');
  });
});
