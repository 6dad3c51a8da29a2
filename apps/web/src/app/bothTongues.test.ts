import { loadContent } from '@heathstep/content';
import { completeQuick } from '@heathstep/core';
import { indexOf } from '../places/library/libraryModel.js';
import { finderOf } from '../parts/finder.js';
import { measuresOf } from '../parts/measureFinder.js';
import { pathwaysOf } from '../places/people/pathways.js';

const loaded = loadContent();
if (!loaded.ok) throw new Error(loaded.problems.join('\n'));
const { content } = loaded;
const named = <T extends { readonly name: string; readonly also?: readonly string[] | undefined }>(
  list: readonly T[],
) => finderOf(list, (x) => [x.name, ...(x.also ?? [])].join(' '));

const find = {
  measure: measuresOf(content.measures),
  finding: named(content.findings),
  condition: named(content.conditions),
  exercise: indexOf(content.exercises).find,
  complaint: pathwaysOf(content.pathways),
};

/** What a clinician types, and what it must lead to. */
const TERMS: readonly (readonly [kind: keyof typeof find, asked: string, key: string])[] = [
  ['measure', 'dorsiflexion', 'lunge-knee-bent'],
  ['measure', 'knee to wall', 'lunge-distance'],
  ['measure', 'WBLT', 'lunge-knee-bent'],
  ['measure', 'silfverskiold', 'ankle-bend-knee-straight'],
  ['measure', 'eversion strength', 'eversion-force'],
  ['measure', 'inversion rom', 'inversion-range'],
  ['measure', 'plantarflexion strength', 'plantarflexion-force'],
  ['measure', 'tibialis posterior', 'inversion-force'],
  ['measure', 'peroneal strength', 'eversion-force'],
  ['measure', 'calf raise', 'single-leg-heel-raise'],
  ['measure', 'SLHR', 'single-leg-heel-raise'],
  ['measure', 'Y balance', 'reach-anterior'],
  ['measure', 'SEBT', 'reach-anterior'],
  ['measure', 'star excursion', 'reach-composite'],
  ['measure', 'TUG', 'timed-up-and-go'],
  ['measure', '5xSTS', 'five-sit-to-stands'],
  ['measure', 'gait speed', 'walking-speed'],
  ['measure', 'FPI-6', 'foot-posture-index'],
  ['measure', 'navicular drop', 'navicular-drop'],
  ['measure', 'arch height index', 'arch-height-standing'],
  ['measure', 'hallux valgus angle', 'hallux-angle'],
  ['measure', 'hallux limitus', 'big-toe-extension'],
  ['measure', 'Jack test', 'arch-rise'],
  ['measure', 'rearfoot angle', 'heel-angle-standing'],
  ['measure', 'figure-of-eight', 'ankle-girth'],
  ['measure', 'oedema', 'ankle-girth'],
  ['measure', 'monofilament', 'monofilament-felt'],
  ['measure', 'semmes weinstein', 'monofilament-felt'],
  ['measure', 'tuning fork', 'vibration'],
  ['measure', 'capillary refill', 'refill-time'],
  ['measure', 'dorsalis pedis', 'foot-pulses'],
  ['measure', 'short foot', 'foot-shortening-hold'],
  ['measure', 'toe yoga', 'toe-control-big-toe'],
  ['measure', 'FHL strength', 'toe-press-big-toe'],
  ['measure', 'paper grip', 'paper-grip'],
  ['measure', 'hip internal rotation', 'hip-internal-rotation'],
  ['measure', 'Beighton', 'laxity-score'],
  ['measure', 'Ashworth', 'calf-tone'],
  ['measure', 'VISA-A', 'tendon-total'],
  ['measure', 'CAIT', 'instability-total'],
  ['measure', 'PSFS', 'own-activities'],
  ['measure', 'GROC', 'global-change'],
  ['measure', 'orthostatic hypotension', 'pressure-drop-standing'],
  ['measure', 'dorsiflection', 'lunge-knee-bent'],
  ['measure', 'navicullar', 'navicular-drop'],
  ['finding', 'anterior drawer', 'drawer-test'],
  ['finding', 'talar tilt', 'tilt-test'],
  ['finding', 'squeeze test', 'syndesmosis-squeeze'],
  ['finding', 'Kleiger', 'syndesmosis-rotation'],
  ['finding', 'ATFL', 'tender-front-outer-ligament'],
  ['finding', 'AITFL', 'tender-above-joint'],
  ['finding', 'Thompson', 'calf-squeeze-still'],
  ['finding', 'Matles', 'knee-bend-foot-drops'],
  ['finding', 'windlass', 'windlass-test'],
  ['finding', 'Tinel', 'nerve-tap'],
  ['finding', 'Mulder', 'web-click'],
  ['finding', 'Coleman block', 'heel-corrects-on-block'],
  ['finding', 'too many toes', 'too-many-toes'],
  ['finding', 'single heel rise sign', 'cannot-single-raise'],
  ['finding', 'Ottawa', 'ottawa-bone-tender'],
  ['finding', 'Royal London', 'tender-eases-bent-up'],
  ['finding', 'arc sign', 'arc-sign'],
  ['finding', 'Lachman', 'toe-drawer'],
  ['finding', 'grind test', 'big-toe-grind'],
  ['finding', 'piano key', 'midfoot-stress-pain'],
  ['finding', 'SLR', 'leg-raise-test'],
  ['finding', 'low-dye', 'taping-eases'],
  ['finding', 'hop test', 'bone-hurts-on-hop'],
  ['finding', 'calcaneal squeeze', 'heel-squeeze-pain'],
  ['finding', 'pes planus', 'arch-low'],
  ['finding', 'pes cavus', 'arch-high'],
  ['finding', 'hindfoot valgus', 'heel-tilts-out'],
  ['finding', 'Trendelenburg', 'knee-or-pelvis-drops'],
  ['finding', 'dactylitis', 'sausage-toe'],
  ['finding', 'paraesthesia', 'burning-numb'],
  ['finding', 'sickling', 'rise-rolls'],
  ['finding', 'hammer toe', 'toes-curled'],
  ['finding', 'ecchymosis', 'bruise-outer'],
  ['finding', 'crepitus', 'ankle-grates'],
  ['finding', 'taler tilt', 'tilt-test'],
  ['condition', 'plantar fasciitis', 'plantar-heel-pain'],
  ['condition', 'Sever', 'heel-growth-plate'],
  ['condition', 'PTTD', 'posterior-tibial-tendon'],
  ['condition', 'Morton', 'interdigital-nerve'],
  ['condition', 'Haglund', 'retrocalcaneal-bursa'],
  ['condition', 'OLT', 'talar-dome'],
  ['condition', 'DVT', 'deep-vein-clot'],
  ['condition', 'CECS', 'exertional-compartment'],
  ['condition', 'shin splints', 'medial-tibial-stress'],
  ['condition', 'stress fracture', 'bone-stress-injury'],
  ['condition', 'hallux limitus', 'hallux-rigidus'],
  ['condition', 'podagra', 'gout'],
  ['condition', 'Baxter', 'lateral-plantar-branch'],
  ['condition', 'os trigonum', 'posterior-impingement'],
  ['condition', 'tarsal coalition', 'joined-bones'],
  ['condition', 'Charcot-Marie-Tooth', 'hereditary-high-arch'],
  ['condition', 'foot drop', 'fibular-nerve'],
  ['condition', 'metatarsalgia', 'forefoot-overload'],
  ['condition', 'CAI', 'ankle-instability'],
  ['condition', 'radiculopathy', 'lumbar-referral'],
  ['exercise', 'short foot', 'doming-seated'],
  ['exercise', 'doming', 'doming-standing'],
  ['exercise', 'clam', 'side-lying-lift'],
  ['exercise', 'Alfredson', 'raise-step-drop'],
  ['exercise', 'eccentric heel drop', 'raise-step-drop'],
  ['exercise', 'heavy slow resistance', 'raise-towel-one-leg'],
  ['exercise', 'resisted eversion', 'band-out'],
  ['exercise', 'tibialis posterior', 'band-in'],
  ['exercise', 'towel curls', 'towel-gather'],
  ['exercise', 'soleus stretch', 'calf-wall-bent'],
  ['exercise', 'gastrocnemius stretch', 'calf-wall-straight'],
  ['exercise', 'plantar fascia stretch', 'sole-stretch'],
  ['exercise', 'pogo', 'pogo'],
  ['exercise', 'plyometrics', 'hop-place'],
  ['exercise', 'star excursion', 'reach-directions'],
  ['exercise', 'glute bridge', 'bridge'],
  ['exercise', 'RDL', 'barefoot-strength'],
  ['exercise', 'return to run', 'walk-run'],
  ['exercise', 'tib raise', 'toe-raise-wall'],
  ['exercise', 'ankle alphabet', 'ankle-letters'],
  ['complaint', 'plantar fasciitis', 'plantar-heel-pain'],
  ['complaint', 'Achilles tendinopathy', 'achilles-midportion'],
  ['complaint', 'hallux valgus', 'bunion-flat-foot'],
];

describe('in the words of clinicians', () => {
  it('has more than a hundred and twenty of them', () => expect(TERMS.length).toBeGreaterThanOrEqual(120));

  it.each(TERMS)('a %s asked as "%s" is %s', (kind, asked, key) =>
    expect((find[kind](asked) as readonly { readonly key: string }[]).map((x) => x.key)).toContain(key),
  );

  it.each([
    ['dorsiflexion', 'lunge'],
    ['slhr', 'raise'],
    ['brody', 'nav drop'],
  ])('the quick line leads from %s to %s', (typed, name) =>
    expect(completeQuick(typed, content.measures).map((c) => c.text)).toContain(name),
  );

  it('every measure, condition, exercise and driver has some, and every test by hand', () => {
    const bare = [
      ...content.measures,
      ...content.conditions,
      ...content.exercises,
      ...content.drivers,
    ].filter((x) => (x.also ?? []).length === 0);
    const tests = content.findings.filter((f) => f.from === 'test' && (f.also ?? []).length === 0);
    expect([...bare, ...tests].map((x) => x.key)).toEqual([]);
  });
});
