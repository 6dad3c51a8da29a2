import { ENGLISH, filled, phrase, say, sayIf, sayKey, speakBy, spoken } from './tongue.js';

const LOUD = {
  ...ENGLISH,
  say: (text: string, gaps?: Parameters<typeof filled>[1]) => `${filled(text, gaps)}!`,
};

describe('a text with gaps', () => {
  it('has them filled by name, and keeps one that has nothing in it', () =>
    expect(filled('{{n}} of {{m}}, {{n}}', { n: 2 })).toBe('2 of {{m}}, 2'));

  it('is itself without any', () => expect(filled('50 % {{n}}')).toBe('50 % {{n}}'));
});

describe('what clinicians read', () => {
  afterEach(() => speakBy(() => ENGLISH));

  it('is English until someone says otherwise', () => {
    expect([say('{{n}} left', { n: 3 }), spoken()]).toEqual(['3 left', ENGLISH]);
  });

  it('is said in the language of who reads it now, not of when it was written', () => {
    const written = phrase('not yet');
    let now = ENGLISH;
    speakBy(() => now);
    expect(say(written)).toBe('not yet');
    now = LOUD;
    expect([say(written), say('{{n}} left', { n: 3 }), spoken()]).toEqual(['not yet!', '3 left!', LOUD]);
  });

  it('says a key as its words, and nothing of nothing', () => {
    speakBy(() => LOUD);
    expect([sayKey('not-tested'), sayIf('Upkeep'), sayIf(null)]).toEqual(['not tested!', 'Upkeep!', null]);
  });
});
