import { randomUUID } from 'node:crypto';
import type { CourseView, HandoutContent, HomeView, LetterContent, SessionView } from '@heathstep/contracts';
import { UNDECIDED } from '@heathstep/contracts';
import { bytesOf, codeOf } from './authenticator.js';
import { type Caller, inWorld, openAtHome, PASSWORD, treated } from './harness.js';

describe('what a clinic has decided for all of its work', () => {
  const { world, who } = inWorld();
  let lead: Caller;
  beforeAll(async () => {
    lead = await world.as(0, 'lead');
  });

  const decide = (change: object) => lead.put('/api/clinic/defaults', { ...UNDECIDED, ...change });
  const session = async (caller: Caller) =>
    (await caller.get('/api/session').expect(200)).body as SessionView;

  it('holds from the first day as long as nothing was decided, and only for that clinic', async () => {
    expect((await session(who)).clinic.defaults).toEqual(UNDECIDED);
    await decide({ lockMinutes: 5, contact: ' from 8 to 18 ' }).expect(200);
    expect((await session(who)).clinic.defaults).toEqual({
      ...UNDECIDED,
      lockMinutes: 5,
      contact: 'from 8 to 18',
    });
    expect((await session(await world.as(1, 'lead'))).clinic.defaults).toEqual(UNDECIDED);
  });

  it('holds every stage to its pain rule at least, on the course, the handout and the phone; a stricter one stays', async () => {
    const { episodeId } = await treated(who);
    const course = async () =>
      (await who.get(`/api/episodes/${episodeId}/course`).expect(200)).body as CourseView;
    const before = await course();
    expect(before.painSchool).toBe(before.protocol.stages[0]?.painSchool);
    await decide({ painSchool: 'bone' }).expect(200);
    const home = await openAtHome(world, who, episodeId);
    expect((await course()).painSchool).toBe('bone');
    expect(((await home.get('/api/home/today').expect(200)).body as HomeView).painSchool).toBe('bone');
    const { allRight } = (await who.get(`/api/episodes/${episodeId}/handout`).expect(200))
      .body as HandoutContent;
    await decide({ painSchool: 'none' }).expect(200);
    const own = (await who.get(`/api/episodes/${episodeId}/handout`).expect(200)).body as HandoutContent;
    expect(own.allRight.text).not.toBe(allRight.text);
    expect((await course()).painSchool).toBe(before.painSchool);
  });

  it('stands on its papers and phones: letterhead, beside the telephone, beside the emergency number', async () => {
    const { episodeId } = await treated(who);
    await decide({
      letterhead: 'Mill Lane 4\n\n Thornmoor ',
      contact: 'from 8 to 18',
      emergency: 'The nearest is in Harrowby',
    }).expect(200);
    const letter = (await who.get(`/api/episodes/${episodeId}/letter`).expect(200)).body as LetterContent;
    expect(letter.letterhead).toEqual(['Mill Lane 4', 'Thornmoor']);
    const paper = (await who.get(`/api/episodes/${episodeId}/handout`).expect(200)).body as HandoutContent;
    expect(paper.stop.notes).toEqual(['The nearest is in Harrowby', 'from 8 to 18']);
    expect((await who.get(`/api/episodes/${episodeId}/handout.txt`).expect(200)).text).toContain(
      'from 8 to 18',
    );
    const home = await openAtHome(world, who, episodeId);
    expect(((await home.get('/api/home/today').expect(200)).body as HomeView).clinic).toMatchObject({
      contact: 'from 8 to 18',
      emergency: 'The nearest is in Harrowby',
    });
  });

  const day = { from: '08:00', to: '18:00' };
  it.each([
    [{ lockMinutes: 7 }, '/lockMinutes'],
    [{ painSchool: 'next-morning' }, '/painSchool'],
    [{ letterhead: 'x'.repeat(401) }, '/letterhead'],
    [{ secondStep: 'yes' }, '/secondStep'],
    [{ hours: [day, day] }, '/hours/2'],
    [{ hours: [day, { from: '18:00', to: '08:00' }, day, day, day, null, null] }, '/hours/1'],
    [{ hours: [day, day, day, day, day, null, 'noon'] }, '/hours/6'],
    [{ hours: Array(8).fill(null) }, '/hours'],
  ])('is refused by its field where it cannot be: %j', async (change, pointer) => {
    expect((await decide(change).expect(400)).body.errors).toMatchObject([{ pointer }]);
  });
});

describe('a clinic that asks everyone for a second step', () => {
  const { world, who } = inWorld();

  const setUp = async (caller: Caller): Promise<void> => {
    const { secret } = (await caller.post('/api/session/second-step', { current: PASSWORD }).expect(201))
      .body as {
      secret: string;
    };
    const code = codeOf(bytesOf(secret), Date.now() / 1000);
    await caller.post('/api/session/second-step/first', { code }).expect(201);
  };

  it('lets who has none do nothing but set one up, and then everything; it is not ended again', async () => {
    const lead = await world.as(0, 'lead');
    const ask = () => lead.put('/api/clinic/defaults', { ...UNDECIDED, secondStep: true });
    // Who asks it of others has one.
    expect((await ask().expect(400)).body.errors).toMatchObject([{ pointer: '/secondStep' }]);
    await who.get('/api/day').expect(200);
    await setUp(lead);
    await ask().expect(200);
    await lead.get('/api/day').expect(200);

    for (const path of ['/api/day', '/api/people', '/api/content', `/api/people/${randomUUID()}`]) {
      const refused = await who.get(path).expect(403);
      expect(refused.body.title).toBe('Set up the second step of signing in first');
    }
    await who
      .post('/api/people', { id: randomUUID(), name: 'A', birthDate: null, occupation: '' })
      .expect(403);
    expect(((await who.get('/api/session').expect(200)).body as SessionView).user.stepMissing).toBe(true);
    await setUp(who);
    await who.get('/api/day').expect(200);
    expect(((await who.get('/api/session').expect(200)).body as SessionView).user.stepMissing).toBe(false);
    await who.post('/api/session/second-step/end', { current: PASSWORD }).expect(422);
    // Another clinic asks nobody.
    await (await world.as(1, 'assistant')).get('/api/day').expect(200);
  });
});
