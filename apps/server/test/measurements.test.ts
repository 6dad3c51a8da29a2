import { parse } from 'csv-parse/sync';
import {
  addEpisode,
  addPerson,
  type Caller,
  entry,
  inWorld,
  measured,
  openVisit,
  today,
  treated,
} from './harness.js';

type Line = Readonly<Record<string, string>>;

describe('measurements as a table', () => {
  const { world, who } = inWorld();
  let lead: Caller;

  beforeAll(async () => {
    lead = await world.as(0, 'lead');
  });

  const lines = async (of: Caller, path: string): Promise<Line[]> =>
    parse<Line>((await of.get(`/api/exchange/measurements/${path}`).expect(200)).text, { columns: true });

  const oneMeasured = async (name: string, trials: number[]): Promise<string> => {
    const person = await addPerson(who, name);
    const episode = await addEpisode(who, person.id);
    const visit = await openVisit(who, episode.id);
    await who
      .put(`/api/visits/${visit.id}/entries`, {
        entries: [
          ...measured('lunge-knee-bent', trials, [38, 38, 38]),
          entry('measure.foot-shortening-hold.left', {
            trials: [9],
            status: 'taken',
            pain: null,
            simulated: true,
          }),
        ],
      })
      .expect(200);
    return person.id;
  };

  it('tells each value by the measure’s own rule, each side, and none of a simulated device', async () => {
    await oneMeasured('=Ada Quill', [33, 34, 35]);
    const own = (await lines(who, 'measurements.csv')).filter((l) => l['person']?.includes('Ada Quill'));
    // A name that begins as a formula is text in any sheet.
    expect(own[0]?.['person']).toBe("'=Ada Quill");
    expect(own.map((l) => [l['measure'], l['side'], l['value'], l['unit'], l['trials'], l['day']])).toEqual([
      ['lunge-knee-bent', 'left', '34.0', 'deg', '33 34 35', today()],
      ['lunge-knee-bent', 'right', '38.0', 'deg', '38 38 38', today()],
    ]);
  });

  it('tells for research of no complaint with fewer than five people, no name, and no day as it was', async () => {
    await treated(who);
    expect((await lines(lead, 'research.csv')).length).toBe(0);
    const ids: string[] = [];
    for (const name of ['Bo Ek', 'Cy Lund', 'Di Holt', 'Em Moss', 'Fi Rook'])
      ids.push(await oneMeasured(name, [33]));
    const text = (await lead.get('/api/exchange/measurements/research.csv').expect(200)).text;
    for (const word of ['Bo Ek', 'Quill', ...ids]) expect(text).not.toContain(word);
    const told = parse<Line>(text, { columns: true });
    const people = new Set(told.map((l) => l['person']));
    expect(people.size).toBeGreaterThanOrEqual(6);
    // All were seen today; each is moved by days of their own, all of a person together.
    for (const person of people)
      expect(new Set(told.filter((l) => l['person'] === person).map((l) => l['day, moved'])).size).toBe(1);
    expect(new Set(told.map((l) => l['day, moved'])).size).toBeGreaterThan(1);
    // The next table calls them otherwise.
    const again = new Set((await lines(lead, 'research.csv')).map((l) => l['person']));
    expect([...again].some((p) => people.has(p))).toBe(false);
    await who.get('/api/exchange/measurements/research.csv').expect(403);
  });

  it('goes on over many visits, each once', async () => {
    const { episodeId } = await treated(who);
    await world.owner.query(
      `WITH made AS (
         INSERT INTO visit (id, clinic_id, episode_id, kind, started_at)
         SELECT gen_random_uuid(), clinic_id, id, 'review', '2020-01-01'::timestamptz + n / 3 * interval '1 minute'
           FROM episode, generate_series(1, 1203) n WHERE id = $1 RETURNING id, clinic_id)
       INSERT INTO visit_entry (id, clinic_id, visit_id, key, version, value, author_id, at)
       SELECT gen_random_uuid(), made.clinic_id, made.id, 'measure.lunge-knee-bent.left', 1,
              '{"trials": [30], "status": "taken", "pain": null}', u.id, now()
         FROM made JOIN LATERAL (SELECT id FROM app_user WHERE clinic_id = made.clinic_id LIMIT 1) u ON true`,
      [episodeId],
    );
    const old = (await lines(who, 'measurements.csv')).filter((l) => l['day']?.startsWith('2020-01-01'));
    expect(old).toHaveLength(1203);
  });

  it('is of one’s own clinic', async () => {
    expect(await lines(await world.as(1, 'clinician'), 'measurements.csv')).toEqual([]);
  });
});
