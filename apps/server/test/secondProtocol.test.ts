import { cpSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { tmpdir } from 'node:os';
import { randomUUID } from 'node:crypto';
import type { CourseView, EpisodeView, HomeView, PlanView } from '@heathstep/contracts';
import {
  addPerson,
  type Caller,
  decidedOn,
  makeWorld,
  measured,
  openAtHome,
  openVisit,
  safetyEntries,
  today,
  type World,
} from './harness.js';

const CONTENT = join(__dirname, '..', '..', '..', 'packages', 'content');

const EVIDENCE = 'evidence: { statement: Made up, source: Made up, kind: convention, version: 1 }';

/** Three stages, one home question of its own, one tissue of its own. */
const PROTOCOL = `
- key: made-up-ankle
  name: Stiff ankle
  version: 1
  conditions: [stiff-after-injury]
  excludes: []
  endsOn: []
  lookAgain: What else it could be
  refer: [No change]
  bothSides: The same
  cannotTest: The same
  relapse: Begin again
  fromAge: 16
  lookAgainWeeks: 4
  referWeeks: 8
  ${EVIDENCE}
  schools: []
  tissues: [ankle-front, calf]
  charts: [lunge-knee-bent]
  unableAt: null
  usually: Most ankles bend further within some weeks
  home:
    - { key: catches, at: after, kind: count, ask: How often did the ankle catch today?, name: catches in a day, role: null, asked: always }
  stages:
    - &stage
      key: free
      name: Free the joint
      purpose: { clinician: More bend, patient: Let the ankle bend further }
      usualWeeks: { min: 1, max: 3 }
      minimumDays: 0
      entry: null
      criteria: { answer: catches, op: '<=', value: 1, days: 2 }
      slots:
        - { key: bend, purpose: Bends the ankle, aim: range-static, ladder: calf-range, start: calf-belt, priority: 1, sideRule: treated }
        - { key: stand, purpose: Stands up under it, aim: strength, ladder: squat, start: sit-to-stand-high, priority: 2, sideRule: treated }
      adjuncts: []
      loadRisePercent: 20
      painSchool: next-morning
      remeasure: [lunge-knee-bent]
      skills: []
      reviewEveryDays: 7
      leadingMeasure: lunge-knee-bent
      ${EVIDENCE}
    - { <<: *stage, key: use, name: Use it, entry: { minDays: 5 }, criteria: { minDays: 5 } }
    - { <<: *stage, key: keep, name: Keep it, criteria: null }
`;
const PATHWAY = `
- key: made-up-ankle
  name: Stiff ankle
  gloss: The ankle bends less than it did
  also: []
  place: { one: ankle, both: both ankles }
  storyAsks: null
  skills: []
  protocol: made-up-ankle
  firstVisit: [lunge-knee-bent]
  parts: [ankle]
  look: [pain]
`;
const TISSUE = `
- { key: ankle-front, name: Front of the ankle, unit: body weights at the front of the ankle, model: weights, source: Made up }
`;

describe('a second protocol, added as content files only', () => {
  let folder: string;
  let world: World;
  let who: Caller;
  beforeAll(async () => {
    folder = mkdtempSync(join(tmpdir(), 'heathstep-second-'));
    for (const part of ['data', 'schemas'])
      cpSync(join(CONTENT, part), join(folder, part), { recursive: true });
    writeFileSync(join(folder, 'data', 'protocols', 'made-up-ankle.yaml'), PROTOCOL);
    writeFileSync(join(folder, 'data', 'pathways', 'made-up-ankle.yaml'), PATHWAY);
    writeFileSync(join(folder, 'data', 'tissues', 'ankle.yaml'), TISSUE);
    world = await makeWorld(folder);
    who = await world.as(0, 'clinician');
  });
  afterAll(async () => {
    await world.stop();
    rmSync(folder, { recursive: true });
  });

  it('takes a person from the first visit over the phone to the next stage', async () => {
    const person = await addPerson(who);
    const episode = (
      await who
        .post(`/api/people/${person.id}/episodes`, {
          id: randomUUID(),
          condition: 'made-up-ankle',
          affected: 'right',
        })
        .expect(201)
    ).body as EpisodeView;
    const visit = await openVisit(who, episode.id);
    await who
      .put(`/api/visits/${visit.id}/entries`, {
        entries: [...safetyEntries(), ...measured('lunge-knee-bent', [38], [28])],
      })
      .expect(200);
    const draft = (
      await who
        .post(`/api/episodes/${episode.id}/plans`, { id: randomUUID(), stage: 'free', from: 'stage' })
        .expect(201)
    ).body as PlanView;
    expect(draft.items.map((i) => [i.exercise, i.sides])).toEqual([
      ['calf-belt', 'right'],
      ['sit-to-stand-high', 'together'],
    ]);
    await who.post(`/api/plans/${draft.id}/give`, { version: draft.version }).expect(200);

    const phone = await openAtHome(world, who, episode.id);
    const home = (await phone.get('/api/home/today').expect(200)).body as HomeView;
    expect(home.purpose).toBe('Let the ankle bend further');
    expect(home.questions.map((q) => q.key)).toEqual([
      'morning-pain',
      'catches',
      'before',
      'during',
      'after',
      'hour-above',
    ]);
    expect(home.complaints).toEqual([{ episodeId: episode.id, name: 'your right ankle' }]);
    const log = (day: string, scores: object) =>
      phone.put('/api/home/entries', {
        id: randomUUID(),
        version: 1,
        kind: 'session',
        day,
        planId: home.planId,
        payload: {
          scores: { before: 1, during: 2, after: 1, 'hour-above': false, ...scores },
          exercises: [{ exercise: 'sit-to-stand-high', sets: 2, reps: 8, effort: 5 }],
        },
      });
    const yesterday = new Date(Date.now() - 86_400_000).toISOString().slice(0, 10);
    await log(yesterday, { catches: 100 }).expect(400);
    await log(yesterday, { catches: 1 }).expect(200);
    await log(today(), { catches: 0 }).expect(200);

    const course = (await who.get(`/api/episodes/${episode.id}/course`).expect(200)).body as CourseView;
    expect(course.criteria).toMatchObject([
      { text: 'catches in a day at most 1 for 2 days', state: 'met', because: '1, 0' },
    ]);
    expect(course.protocol.tissues).toEqual(['ankle-front', 'calf']);
    const moved = (
      await who
        .post(`/api/episodes/${episode.id}/decisions`, {
          id: randomUUID(),
          decision: 'progress',
          on: await decidedOn(who, episode.id),
          reason: 'It catches no more',
        })
        .expect(201)
    ).body as CourseView;
    expect(moved.episode).toMatchObject({ stage: 'use', draft: { madeOf: { name: 'Use it' } } });
    const { items } = (await who.get('/api/day').expect(200)).body;
    expect(items[0]).toMatchObject({ stageName: 'Use it' });
  });
});
