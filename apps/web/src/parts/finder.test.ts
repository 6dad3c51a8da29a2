import { finderOf } from './finder.js';

const NAMES = [
  'Ankle dorsiflexion, knee bent (knee to wall, weight-bearing lunge)',
  'Ankle plantarflexion',
  'Talar tilt',
  'Heel raises, one leg',
  'Ørjan Håkonsen',
];
const find = finderOf(NAMES, (n) => n);

describe('finding in a list', () => {
  it('finds all where nothing is asked, in the order of the list', () => expect(find(' ')).toEqual(NAMES));

  it.each([
    [
      'flexion',
      ['Ankle dorsiflexion, knee bent (knee to wall, weight-bearing lunge)', 'Ankle plantarflexion'],
    ],
    ['wall knee', ['Ankle dorsiflexion, knee bent (knee to wall, weight-bearing lunge)']],
    ['orjan', ['Ørjan Håkonsen']],
    ['tilt tal', ['Talar tilt']],
  ])('%s, as it is written', (asked, found) => expect(find(asked)).toEqual(found));

  it.each([
    ['dorsiflection', 'Ankle dorsiflexion, knee bent (knee to wall, weight-bearing lunge)'],
    ['taler tilt', 'Talar tilt'],
    ['heal raises', 'Heel raises, one leg'],
  ])('%s, though misspelt', (asked, found) => expect(find(asked)[0]).toBe(found));

  it('finds nothing that is not like it', () => expect(find('zzzzqq')).toEqual([]));

  it('answers the same again after another question', () => {
    const first = find('tilt');
    find('heel');
    expect(find('tilt')).toEqual(first);
  });
});
