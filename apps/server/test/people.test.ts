import { randomUUID } from 'node:crypto';
import { PEOPLE_AT_ONCE } from '@heathstep/contracts';
import { inWorld } from './harness.js';

describe('finding someone', () => {
  const { who } = inWorld();
  const names = async (query: string): Promise<string[]> =>
    (await who.get(`/api/people?${query}`).expect(200)).body.map((p: { name: string }) => p.name);
  const asked = (q: string) => names(`q=${encodeURIComponent(q)}`);

  beforeAll(async () => {
    for (const [name, birthDate] of [
      ['Ørjan Håkonsen', '1984-03-02'],
      ['Ada Brook', '1991-11-12'],
      ['Ada Brook', '1958-01-30'],
      ['Weiß, Jörg', null],
    ])
      await who.post('/api/people', { id: randomUUID(), name, birthDate, occupation: '' }).expect(201);
  });

  it.each([
    ['orjan', ['Ørjan Håkonsen']],
    ['hakon ørj', ['Ørjan Håkonsen']],
    ['2.3.1984', ['Ørjan Håkonsen']],
    ['1984-03-02', ['Ørjan Håkonsen']],
    ['brook ada', ['Ada Brook', 'Ada Brook']],
    ['ada 1958', ['Ada Brook']],
    ['jorg weiss', ['Weiß, Jörg']],
    ['%', []],
    [',', ['Weiß, Jörg']],
    ['rook', []],
    ['nobody at all', []],
  ])('%s', async (q, found) => expect(await asked(q)).toEqual(found));

  it('brings everyone, so many at once, each once', async () => {
    const many = PEOPLE_AT_ONCE + 3;
    for (let i = 0; i < many; i += 1)
      await who
        .post('/api/people', { id: randomUUID(), name: `Row ${i}`, birthDate: null, occupation: '' })
        .expect(201);
    const first = await names('q=row');
    const rest = await names(`q=row&after=${PEOPLE_AT_ONCE}`);
    expect([first.length, rest.length]).toEqual([PEOPLE_AT_ONCE, 3]);
    expect(new Set([...first, ...rest]).size).toBe(many);
  });

  it.each(['after=-1', 'after=x', 'after=1e9', 'q[]=a'])('takes %s for nothing said', async (query) =>
    expect((await names(query)).length).toBeGreaterThan(0),
  );
});
