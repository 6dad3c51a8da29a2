import { DataSource } from 'typeorm';
import { databaseAway } from '../src/http/databaseAway.js';
import { inWorld } from './harness.js';

describe('a database that is slow or away', () => {
  const { who, world } = inWorld();
  const people = () => who.get('/api/people?q=a');

  it('is told as such when someone else holds what is needed, and is there again after', async () => {
    const holder = world.owner.createQueryRunner();
    await holder.startTransaction();
    try {
      await holder.query('LOCK TABLE person IN ACCESS EXCLUSIVE MODE');
      const answer = await people().expect(503);
      expect(answer.headers['retry-after']).toBe('3');
      expect(answer.body).toMatchObject({
        title: 'The records cannot be reached at present',
        detail: expect.stringContaining('Nothing was kept'),
      });
    } finally {
      await holder.rollbackTransaction();
      await holder.release();
    }
    await people().expect(200);
  });

  it('is never our fault when all connections are cut, and is used again by itself', async () => {
    await people().expect(200);
    await world.owner.query(
      'SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()',
    );
    const statuses: number[] = [];
    // More requests than there are connections, so that each one has been replaced.
    for (let i = 0; i < 12; i += 1) statuses.push((await people()).status);
    expect(statuses.filter((status) => status !== 200 && status !== 503)).toEqual([]);
    expect(statuses.at(-1)).toBe(200);
  });

  it('is waited for no longer than a browser waits', async () => {
    const source = world.app.get(DataSource);
    const shown = async (name: string): Promise<string> => {
      const [row] = await source.query<Record<string, string>[]>(`SHOW ${name}`);
      return row?.[name] ?? '';
    };
    expect(await shown('lock_timeout')).toBe('3s');
    expect(await shown('statement_timeout')).toBe('10s');
    expect(await shown('idle_in_transaction_session_timeout')).toBe('30s');
  });
});

describe('which failures are the database being away', () => {
  const failure = (message: string, code?: string): Error => Object.assign(new Error(message), { code });

  it.each([
    ['a lock waited for too long', failure('', '55P03'), 'not-kept'],
    ['a statement that ran too long', failure('', '57014'), 'not-kept'],
    ['a disk that is full', failure('could not extend file', '53100'), 'no-room'],
    ['no connection left', failure('timeout exceeded when trying to connect'), 'not-kept'],
    ['a database that is not there', failure('connect', 'ECONNREFUSED'), 'not-kept'],
    ['a database that stands still', failure('Query read timeout'), 'uncertain'],
    ['a connection lost in the middle', failure('Connection terminated unexpectedly'), 'uncertain'],
    ['an administrator who stopped it', failure('', '57P01'), 'uncertain'],
    ['a value the table refuses', failure('Connection of values', '23514'), null],
    ['a fault of ours', new TypeError('x is not a function'), null],
    ['something that is no error', 'Query read timeout', null],
  ])('%s', (_, error, away) => {
    expect(databaseAway(error)).toBe(away);
  });
});
