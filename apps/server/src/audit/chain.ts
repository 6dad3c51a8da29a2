import { createHash } from 'node:crypto';
import type { AuditSealsView } from '@heathstep/contracts';

/** What is asked with: a transaction of a clinic, or the owner of the tables. */
interface Asked {
  query<T>(sql: string, parameters: unknown[]): Promise<T>;
}

interface Seal {
  readonly number: number;
  readonly to_seq: string;
  readonly lines: number;
  readonly hash: string;
  readonly at: Date;
}

interface Line {
  readonly seq: string;
  readonly id: string;
  readonly at: Date;
  readonly actor: string;
  readonly user_id: string | null;
  readonly person_id: string | null;
  readonly action: string;
  readonly subject: string;
  readonly shown: string | null;
}

/** The lowest number there is: a line put in below the first is to be found too. */
const BEFORE_ALL = '-9223372036854775808';

/** Lines held at once while a log is checked. */
const AT_ONCE = 5_000;

const lineText = (l: Line): string =>
  [
    l.seq,
    l.id,
    l.at.toISOString(),
    l.actor,
    l.user_id ?? '',
    l.person_id ?? '',
    l.action,
    l.subject,
    l.shown ?? '',
  ].join('|');

async function* linesOf(db: Asked, clinicId: string, to: string): AsyncGenerator<Line> {
  for (let after = BEFORE_ALL; ;) {
    const lines = await db.query<Line[]>(
      `SELECT seq, id, at, actor, user_id, person_id, action, subject, shown::text AS shown
         FROM audit WHERE clinic_id = $1 AND seq > $2 AND seq <= $3 ORDER BY seq LIMIT ${AT_ONCE}`,
      [clinicId, after, to],
    );
    yield* lines;
    const last = lines.at(-1);
    if (last === undefined || lines.length < AT_ONCE) return;
    after = last.seq;
  }
}

/**
 * Reads the log of a clinic anew against its seals, line by line: each seal must be the SHA-256 of the one before and of as
 * many lines as it says. Worked out here and not by the database that made the seals.
 */
export async function checkAudit(db: Asked, clinicId: string): Promise<AuditSealsView> {
  const seals = await db.query<Seal[]>(
    'SELECT number, to_seq, lines, hash, at FROM audit_seal WHERE clinic_id = $1 ORDER BY number',
    [clinicId],
  );
  const last = seals.at(-1);
  const told = {
    seals: seals.length,
    lines: seals.reduce((n, s) => n + s.lines, 0),
    at: last?.at.toISOString() ?? null,
    hash: last?.hash ?? null,
  };
  const lines = linesOf(db, clinicId, last?.to_seq ?? BEFORE_ALL);
  let next = await lines.next();
  let before = '';
  for (const [i, seal] of seals.entries()) {
    const hash = createHash('sha256').update(before);
    let count = 0;
    while (next.done !== true && BigInt(next.value.seq) <= BigInt(seal.to_seq)) {
      hash.update(`\n${lineText(next.value)}`);
      count += 1;
      next = await lines.next();
    }
    const whole = seal.number === i + 1 && count === seal.lines && hash.digest('hex') === seal.hash;
    if (!whole) return { ...told, brokenAt: seal.number };
    before = seal.hash;
  }
  return { ...told, brokenAt: null };
}
