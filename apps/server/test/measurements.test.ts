import type { Response } from 'express';
import { parse } from 'csv-parse/sync';
import { Writable } from 'node:stream';
import { loadContent } from '@heathstep/content';
import { MEASUREMENT_HEADS, measurementLine, writeMeasurements } from '../src/exchange/measurements.js';
import type { Db, Tx } from '../src/persistence/db.js';
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

const loaded = loadContent();
if (!loaded.ok) throw new Error('no content');
const { measures } = loaded.content;

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

describe('a table of half a million lines', () => {
  const VISITS = 10_000;
  const KEYS = measures.slice(0, 25).flatMap((m) => [`measure.${m.key}.left`, `measure.${m.key}.right`]);

  /** A clinic that makes its visits up as they are asked for; `asked` counts how often that was. */
  const madeUp = () => {
    const told = { asked: 0 };
    const value = { trials: [30], status: 'taken', pain: null };
    const query = (sql: string, [given]: [string | string[]]) => {
      if (Array.isArray(given))
        return given.flatMap((visit_id) => KEYS.map((key) => ({ visit_id, key, value })));
      told.asked += 1;
      const first = told.asked === 1 ? 0 : Number(given) + 1;
      const few = Math.min(Number(/LIMIT (\d+)/.exec(sql)?.[1]), VISITS - first);
      return Array.from({ length: few }, (_, i) => ({
        visit_id: String(first + i).padStart(6, '0'),
        started_at: new Date(Date.UTC(2026, 0, 5)),
        person_id: 'one',
        name: 'Ada Quill',
        birth_date: null,
        condition: 'made-up',
        affected: 'left',
      }));
    };
    const tx = { query: (...all: Parameters<typeof query>) => Promise.resolve(query(...all)) };
    const db = { inClinic: (_: string, work: (tx: Tx) => unknown) => work(tx as unknown as Tx) };
    return { db: db as unknown as Db, told };
  };

  const write = (db: Db, to: Writable) =>
    writeMeasurements(
      db,
      'a clinic',
      { measures, heads: MEASUREMENT_HEADS, lineOf: measurementLine('UTC') },
      to as unknown as Response,
    );

  it('is written whole, and never more of it read than a reader is ahead by', async () => {
    const { db, told } = madeUp();
    const seen = { lines: 0, pieces: 0, ahead: 0 };
    const slow = new Writable({
      highWaterMark: 1,
      decodeStrings: false,
      write(piece: string, _encoding, done) {
        seen.pieces += 1;
        for (let at = piece.indexOf('\n'); at !== -1; at = piece.indexOf('\n', at + 1)) seen.lines += 1;
        setImmediate(() => {
          seen.ahead = Math.max(seen.ahead, told.asked - seen.pieces);
          done();
        });
      },
    });
    await write(db, slow);
    expect(seen.lines).toBe(VISITS * KEYS.length + 1);
    expect(seen.lines).toBeGreaterThan(500_000);
    expect(told.asked).toBeGreaterThanOrEqual(100);
    // Some hundred visits of ten thousand: what a stream of Node holds ready is sixteen pieces.
    expect(seen.ahead).toBeLessThanOrEqual(17);
  });

  it('is read no further when its reader has gone', async () => {
    const { db, told } = madeUp();
    const gone = new Writable({
      highWaterMark: 1,
      write(_piece, _encoding, done) {
        done();
        gone.destroy();
      },
    });
    await write(db, gone);
    expect(told.asked).toBeLessThan(20);
  });
});
