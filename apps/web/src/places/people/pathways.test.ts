import { loadContent } from '@heathstep/content';
import { pathwaysOf } from './pathways.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { pathways } = loaded.content;
const find = pathwaysOf(pathways);
const found = (asked: string) => find(asked).map((p) => p.key);

describe('finding what brings someone', () => {
  it('begins with what is not known yet, and has all of them', () => {
    expect(found('')).toHaveLength(pathways.length);
    expect(found('')[0]).toBe('foot-ankle-complaint');
  });

  it.each([
    ['PTTD', 'posterior-tibial-tendon'],
    ['tibialis posterior', 'posterior-tibial-tendon'],
    ['hallux rigidus', 'stiff-big-toe'],
    ['atfl', 'lateral-ankle-sprain'],
    ['MTSS', 'medial-tibial-stress'],
    ['shin inner', 'medial-tibial-stress'],
    ['pes planus', 'flexible-flat-foot'],
    ['apophysitis', 'heel-growth-plate'],
    ['falls', 'fall-risk-foot'],
    ['  Calf   tear ', 'calf-tear'],
    ['gïving wáy', 'ankle-instability'],
    ['metatarsalga', 'forefoot-pain'],
    ['tibialis posteror', 'posterior-tibial-tendon'],
  ])('%s', (asked, key) => expect(found(asked)).toContain(key));

  it('finds nothing where nothing is meant', () => expect(found('shoulder')).toEqual([]));

  it('knows a clinical name for each that has a protocol', () =>
    expect(pathways.filter((p) => p.protocol !== null && p.also.length < 2).map((p) => p.key)).toEqual([]));
});
