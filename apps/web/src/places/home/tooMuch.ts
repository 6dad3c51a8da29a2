import { judgePain } from '@heathstep/core';
import type { HomeView } from '@heathstep/contracts';
import { sessionsToday } from './homeModel.js';
import { answerFor, scoresOf } from './questions.js';

/** Whether a session of today was red by what is known of it already: then only what eases and moves is left of the day. */
export function wasTooMuch(view: HomeView): boolean {
  return sessionsToday(view).some((entry) => {
    const scores = scoresOf(entry);
    const pain = (role: 'before' | 'during' | 'after') => {
      const answer = answerFor(view, scores, role);
      return typeof answer === 'number' ? answer : 0;
    };
    const judged = judgePain({
      school: view.painSchool,
      before: pain('before'),
      during: pain('during'),
      after: pain('after'),
      hourAbove: answerFor(view, scores, 'hour-above') === true,
      stopSign: null,
      nextMorning: null,
      morningBaseline: null,
    });
    return judged.ok && judged.value.state === 'red';
  });
}
