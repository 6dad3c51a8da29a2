import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import type { CourseView, DayView, HomeView, Problem } from '@heathstep/contracts';
// @ts-expect-error The scripts are plain JavaScript, checked by what they do.
import { contentWithMadeUp as untyped } from '../../../scripts/lib/texts.mjs';
import { addPerson, type Caller, makeWorld, openAtHome, treated, type World } from './harness.js';

const contentWithMadeUp = untyped as () => Promise<string>;

describe('a clinician whose pages are in another language', () => {
  let world: World;
  let who: Caller;
  let root = '';
  let episodeId = '';

  /** What is answered to a page in the made-up language, which writes each text between marks. */
  const inMadeUp = async <T>(path: string): Promise<T> =>
    (await who.get(path).set('accept-language', 'eo').expect(200)).body as T;
  const inEnglish = async <T>(path: string): Promise<T> => (await who.get(path).expect(200)).body as T;

  beforeAll(async () => {
    root = await contentWithMadeUp();
    world = await makeWorld(root);
    who = await world.as(0, 'clinician');
    ({ episodeId } = await treated(who));
  });
  afterAll(async () => {
    await world.stop();
    rmSync(root, { recursive: true, force: true });
  });

  it('reads the day and its reasons in it, and who does not reads them in English, from the first time on', async () => {
    const [mine] = (await inMadeUp<DayView>('/api/day')).items;
    const [theirs] = (await inEnglish<DayView>('/api/day')).items;
    expect(mine?.headline).toBe(`‹${theirs?.headline ?? ''}›`);
    expect(theirs?.headline).not.toContain('‹');
    expect((await inMadeUp<DayView>('/api/day')).items[0]?.headline).toBe(mine?.headline);
  });

  it('reads why something is suggested in it, names of the content within the sentences too', async () => {
    const path = `/api/episodes/${episodeId}/course`;
    const [mine, theirs] = [await inMadeUp<CourseView>(path), await inEnglish<CourseView>(path)];
    const [reason] = mine.review?.because ?? [];
    expect(reason?.replaceAll(/[‹›]/g, '')).toBe(theirs.review?.because[0]);
    expect(reason).toMatch(/^‹/);
    expect(JSON.stringify(theirs.review)).not.toContain('‹');
    const criterion = mine.review?.criteria?.parts.find((p) => /heel raise/i.test(p.text));
    expect(criterion?.text).toMatch(/‹Single-leg heel raise[^‹]*›/);
  });

  it('is told in it what is wrong with a field, and who it is not for', async () => {
    const answer = await who
      .post('/api/people', { id: randomUUID(), name: '', birthDate: '1980-05-01', occupation: '' })
      .set('accept-language', 'eo')
      .expect(400);
    const problem = answer.body as Problem;
    expect([problem.title, problem.errors?.[0]?.detail]).toEqual([
      '‹Some of this cannot be taken›',
      '‹Type a name of 1 to 80 characters›',
    ]);
  });

  it('is answered in English where a language is not there, or says only what patients read', async () => {
    for (const language of ['de', 'xx', 'fr-FR, de;q=0.9'])
      expect(
        ((await who.get('/api/day').set('accept-language', language)).body as DayView).items[0]?.headline,
      ).not.toContain('‹');
  });

  it('writes nothing of the content in it: what a patient has been given is said in their own', async () => {
    const person = await addPerson(who, 'Ama Tirrell');
    const made = await treated(
      { ...who, post: (path, body) => who.post(path, body).set('accept-language', 'eo') },
      {},
      person.name,
    );
    const kept = await world.owner.query<{ made_of: unknown }[]>('SELECT made_of FROM plan WHERE id = $1', [
      made.plan.id,
    ]);
    expect(JSON.stringify(kept[0]?.made_of)).not.toContain('‹');
    const phone = await openAtHome(world, who, made.episodeId);
    const home = (await phone.get('/api/home/today').expect(200)).body as HomeView;
    // Why an exercise is in the plan is its clinician's to read, in the language it was filled in.
    expect(JSON.stringify(home, (key, value: unknown) => (key === 'why' ? [] : value))).not.toContain('‹');
  });
});
