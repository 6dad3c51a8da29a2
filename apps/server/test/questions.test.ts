import { randomUUID } from 'node:crypto';
import { type DayView, MOST_OPEN_QUESTIONS, type QuestionView } from '@heathstep/contracts';
import { inWorld, openAtHome, type Phone, today, treated } from './harness.js';

describe('what patients ask from home', () => {
  const { world, who } = inWorld();
  let phone: Phone;
  let episodeId = '';
  let personId = '';
  beforeAll(async () => {
    const made = await treated(who);
    episodeId = made.episodeId;
    personId = made.person.id;
    phone = await openAtHome(world, who, episodeId);
  });

  const ask = (text: string, id: string = randomUUID()) => phone.post('/api/home/questions', { id, text });
  const rowOf = async () => {
    const { items } = (await who.get('/api/day').expect(200)).body as DayView;
    return items.find((i) => i.personId === personId);
  };

  it('stands on the day until it is answered, and the answer on the phone', async () => {
    expect(await rowOf()).toMatchObject({ kind: 'steady', asked: null });
    const id = randomUUID();
    await ask('  May I swim with the tape on? ', id).expect(201);
    await ask('May I swim with the tape on?', id).expect(201);
    expect(await rowOf()).toMatchObject({
      kind: 'asked',
      asked: { day: today(), text: 'May I swim with the tape on?' },
    });
    await who.post(`/api/questions/${id}/answer`, { answer: 'Yes, after the third day' }).expect(200);
    expect(await rowOf()).toMatchObject({ kind: 'steady', asked: null });
    const [own] = (await phone.get('/api/home/questions').expect(200)).body as QuestionView[];
    expect(own).toMatchObject({
      text: 'May I swim with the tape on?',
      answer: { text: 'Yes, after the third day' },
    });
  });

  it('is answered once: the same again changes nothing, another is told', async () => {
    const id = randomUUID();
    await ask('How long will it take?', id).expect(201);
    await who.post(`/api/questions/${id}/answer`, { answer: 'Some weeks' }).expect(200);
    await who.post(`/api/questions/${id}/answer`, { answer: 'Some weeks' }).expect(200);
    const { body } = await who.post(`/api/questions/${id}/answer`, { answer: 'Some months' }).expect(409);
    expect(body.current).toEqual({ answer: 'Some weeks' });
  });

  it.each(['', '   ', 'x'.repeat(501), 7])('refuses the question %j by its field', async (text) => {
    const { body } = await phone.post('/api/home/questions', { id: randomUUID(), text }).expect(400);
    expect(body.errors.map((e: { pointer: string }) => e.pointer)).toContain('/text');
  });

  it('is answered by clinicians; an assistant reads it', async () => {
    const id = randomUUID();
    await ask('Which shoes?', id).expect(201);
    const assistant = await world.as(0, 'assistant');
    await assistant.get(`/api/episodes/${episodeId}/questions`).expect(200);
    await assistant.post(`/api/questions/${id}/answer`, { answer: 'Wide ones' }).expect(403);
    await who.post(`/api/questions/${id}/answer`, { answer: '  ' }).expect(400);
  });

  it('is not for whoever is not signed in, nor at home for a clinician', async () => {
    await world.anonymous.get('/api/home/questions').expect(401);
    await who.get('/api/home/questions').expect(401);
  });

  it('waits in a number that can be read', async () => {
    const { body } = await phone.get('/api/home/questions').expect(200);
    const open = (body as QuestionView[]).filter((q) => q.answer === null).length;
    for (let n = open; n < MOST_OPEN_QUESTIONS; n += 1) await ask(`Number ${n}`).expect(201);
    await ask('One too many').expect(422);
  });
});
