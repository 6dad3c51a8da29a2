import { clinicianTongueOf, tongueOf } from './tongue.js';

const german = tongueOf({
  code: 'de',
  name: 'Deutsch',
  locale: 'de-DE',
  smallWithin: false,
  texts: {
    Stop: 'Halt',
    'Work: press. Then {{n}} s, "held"': 'Arbeit: drücken. Dann {{n}} s, „gehalten“',
    '{{count}} days a week': 'an {{count}} Tagen die Woche',
    steps_one: 'Schritt',
    steps_other: 'Schritte',
  },
});

describe('a tongue', () => {
  it('says a text, fills its gaps as they are, and leaves in English what it has not', () => {
    expect(german.say('Stop')).toBe('Halt');
    expect(german.say('Work: press. Then {{n}} s, "held"', { n: '<5>' })).toBe(
      'Arbeit: drücken. Dann <5> s, „gehalten“',
    );
    expect(german.say('Not said: {{n}}', { n: 3 })).toBe('Not said: 3');
  });

  it('chooses a form by the number where there are several', () => {
    expect([1, 2].map((count) => german.say('steps', { count }))).toEqual(['Schritt', 'Schritte']);
    expect(german.say('{{count}} days a week', { count: 3 })).toBe('an 3 Tagen die Woche');
  });

  it('writes numbers and the beginnings of texts as the language does', () => {
    expect([german.number(2.5), german.number(60), german.number(1.256, 2)]).toEqual(['2,5', '60', '1,26']);
    expect(german.inside('Arbeit unter dem Fuß')).toBe('Arbeit unter dem Fuß');
  });

  it('is English where no language is chosen', () => {
    const english = tongueOf(null);
    expect(english.say('{{n}} s', { n: 5 })).toBe('5 s');
    expect(english.inside('Work under the arch')).toBe('work under the arch');
    expect(english.number(2.5)).toBe('2.5');
  });
});

describe('a tongue for clinicians', () => {
  const spoken = clinicianTongueOf({
    code: 'de',
    name: 'Deutsch',
    locale: 'de-DE',
    smallWithin: false,
    texts: { 'Heel raise': 'Fersenheben', '{{label}} {{n}} s': '{{label}}, {{n}} Sekunden', left: 'links' },
  });

  it('says what stands in a gap where that is a text by itself', () =>
    expect(spoken.say('{{label}} {{n}} s', { label: 'Heel raise', n: 5 })).toBe('Fersenheben, 5 Sekunden'));

  it('leaves what someone wrote, a number, and what only begins like a text', () => {
    expect(spoken.say('{{label}} {{n}} s', { label: 'Heel raise at work', n: 5 })).toBe(
      'Heel raise at work, 5 Sekunden',
    );
    expect(spoken.say('{{label}} {{n}} s', { label: 'toString', n: 0 })).toBe('toString, 0 Sekunden');
  });

  it('is English where no language is chosen, gaps and all', () =>
    expect(clinicianTongueOf(null).say('{{side}} foot', { side: 'left' })).toBe('left foot'));
});
