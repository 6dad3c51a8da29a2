import { demoIsLoaded, loadDemo, removeDemo } from '../src/demo/loadDemo.js';
import { inWorld } from './harness.js';
import request from 'supertest';

describe('the demo clinic', () => {
  const { world } = inWorld();

  it('shows a person in each state, as the rules themselves judge it', async () => {
    const [lead] = await loadDemo(world.owner, new Date());
    const server = request(world.app.getHttpServer());
    const signedIn = await server
      .post('/api/session')
      .send({ email: lead?.email, password: lead?.password })
      .expect(200);
    const cookie = (signedIn.headers['set-cookie'] as unknown as string[])[0] ?? '';
    const day = (await server.get('/api/day').set('cookie', cookie).expect(200)).body;
    const kinds = Object.fromEntries(day.items.map((i: { name: string; kind: string }) => [i.name, i.kind]));
    expect(kinds).toEqual({
      'Anselm Wray': 'steady',
      'Hedda Lorne': 'steady',
      'Gudrun Vale': 'look-again',
      'Joss Harrap': 'silent',
      'Hanne Rook': 'blocked',
      'Ragna Thirlby': 'slipping',
      'Øyvind Farrow': 'steady',
      'Oskar Thwaite': 'flare',
      'Ilse Venning': 'ready',
      'Pell Aldous': 'new',
      'Corin Fellgate': 'new',
      'Averil Moss': 'unplanned',
      'Marit Osgar': 'steady',
      'Birke Holloway': 'review-due',
      'Einar Combe': 'review-due',
      'Jory Lind': 'steady',
      'Ruben Askew': 'flare',
      'Sunniva Croft': 'steady',
      'Tilda Marsh': 'ready',
    });
  });

  it('can be removed and loaded anew, leaving other clinics alone', async () => {
    await removeDemo(world.owner);
    expect(await demoIsLoaded(world.owner)).toBe(false);
    expect(await world.owner.query('SELECT count(*)::int AS n FROM app_user')).toEqual([{ n: 6 }]);
    await loadDemo(world.owner, new Date());
    expect(await demoIsLoaded(world.owner)).toBe(true);
  });
});
