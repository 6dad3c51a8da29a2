import type { Tongue } from '../quantity/tongue.js';
import type { RecordingKind } from '../recording/recording.js';
import { type Side, SIDES } from '../quantity/side.js';
import type { Quantities } from './report.js';
import type { LabTask } from './task.js';

/** What was captured, in a few plain sentences for whoever stood there; in their language. Nothing is judged, nothing promised. */
export function plainWords(kind: RecordingKind, task: LabTask, q: Quantities, t: Tongue): readonly string[] {
  const of = (side: Side, name: string): number | null => q[side][name]?.value ?? null;
  const foot = (side: Side): string => (side === 'left' ? t.say('left foot') : t.say('right foot'));
  const each = (name: string, words: (foot: string, value: number) => string | null): string[] =>
    SIDES.flatMap((s) => {
      const v = of(s, name);
      const text = v === null ? null : words(foot(s), v);
      return text === null ? [] : [text];
    });
  const whole = Math.round;
  if (kind === 'motion-pair')
    return task === 'walk'
      ? [
          t.say('Your heel turns a little inward with each step. That is how a foot takes up load.'),
          ...each('amplitude', (f, v) => t.say('Your {{foot}}: by {{n}} degrees.', { foot: f, n: whole(v) })),
        ]
      : each('heelTurn', (f, v) =>
          t.say('As you bend your knees the heel of your {{foot}} turns inward by {{n}} degrees.', {
            foot: f,
            n: whole(v),
          }),
        );
  switch (task) {
    case 'stance':
      return [
        t.say('Here you see how you stand. Where it is darker, more weight presses.'),
        ...each('weightShare', (f, v) =>
          t.say('Of 100 parts of your weight your {{foot}} carries {{n}}.', { foot: f, n: whole(v) }),
        ),
      ];
    case 'walk':
      return [
        t.say('Here you see where each foot pressed in walking. Where it is darker, it pressed more.'),
        ...each('pushFirstRay', (f, v) =>
          t.say('At push-off {{n}} of 100 parts go through the big toe side of your {{foot}}.', {
            foot: f,
            n: whole(v),
          }),
        ),
      ];
    case 'balance':
      return each('held', (f, v) =>
        t.say('You stood on your {{foot}} for {{n}} seconds.', { foot: f, n: whole(v) }),
      );
    case 'squat':
      return [
        t.say('A foot stands on three points: heel, big toe side and small toe side.'),
        ...each('outerKept', (f, v) =>
          v >= 60
            ? t.say('As you bend your knees your {{foot}} keeps all three.', { foot: f })
            : t.say('As you bend your knees your {{foot}} gives up part of the small toe side.', { foot: f }),
        ),
      ];
    case 'raise':
      return each('firstHeadHold', (f, v) =>
        t.say('On the way up the big toe side of your {{foot}} presses for {{n}} of 10 parts of the way.', {
          foot: f,
          n: whole(v / 10),
        }),
      );
  }
}
