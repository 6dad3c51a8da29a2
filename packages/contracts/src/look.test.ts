import { asEntries } from './entries/values.js';
import { injuredLately } from './look.js';

describe('an injury in these days, by the story', () => {
  it.each<[string, Record<string, unknown>, boolean]>([
    ['of 3 days ago', { 'story.onset': 'injury', 'story.since': 'under-2-weeks', 'story.days': 3 }, true],
    ['of 10 days ago', { 'story.onset': 'injury', 'story.since': 'under-2-weeks', 'story.days': 10 }, true],
    ['of 11 days ago', { 'story.onset': 'injury', 'story.since': 'under-2-weeks', 'story.days': 11 }, false],
    ['of a day that was not told', { 'story.onset': 'injury', 'story.since': 'under-2-weeks' }, true],
    ['of some weeks ago', { 'story.onset': 'injury', 'story.since': '2-to-6-weeks' }, false],
    ['of a time that was not told', { 'story.onset': 'injury' }, false],
    ['that was none', { 'story.onset': 'sudden', 'story.since': 'under-2-weeks', 'story.days': 2 }, false],
    ['of which nothing is told', {}, false],
  ])('%s', (_, told, lately) => {
    const entries = asEntries(Object.entries(told));
    expect(injuredLately(entries)).toBe(lately ? 'An injury in these days' : null);
  });
});
