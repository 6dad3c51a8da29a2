import { Injectable } from '@nestjs/common';
import type { Request, Response } from 'express';
import { randomUUID } from 'node:crypto';
import type { SessionView } from '@heathstep/contracts';
import { defaultsOf } from '../clinic/defaults.js';
import { Clock } from '../clock.js';
import { type Actor, audit, Db, type Tx } from '../persistence/db.js';
import { AppUser, Clinic, UserSession } from '../persistence/entities.js';
import { Settings } from '../settings.js';
import { SESSION_COOKIE } from './auth.js';
import { hashToken, sessionToken } from './secrets.js';

const SESSION_HOURS = 12;
const LONGEST_AGENT = 200;

/** An account that proved itself. */
interface Proved {
  readonly id: string;
  readonly clinic_id: string;
}

/** Opens sessions of staff, however they proved themselves, and says who is signed in. */
@Injectable()
export class Sessions {
  constructor(
    private readonly db: Db,
    private readonly settings: Settings,
    private readonly clock: Clock,
  ) {}

  open(user: Proved, request: Request, response: Response): Promise<SessionView> {
    const token = sessionToken();
    const now = this.clock.now();
    const expiresAt = new Date(now.getTime() + SESSION_HOURS * 3_600_000);
    const actor: Actor = { kind: 'user', userId: user.id, clinicId: user.clinic_id };
    return this.db.inClinic(user.clinic_id, async (tx) => {
      await tx.query('DELETE FROM user_session WHERE expires_at < $1', [now]);
      await tx.insert(UserSession, {
        tokenHash: hashToken(token),
        id: randomUUID(),
        agent: (request.get('user-agent') ?? '').slice(0, LONGEST_AGENT),
        address: request.ip ?? '',
        clinicId: user.clinic_id,
        userId: user.id,
        createdAt: now,
        expiresAt,
      });
      const wrongTries = await wrongTriesSince(tx, user.id);
      await audit(tx, actor, { action: 'sign-in', subject: 'session', personId: null });
      response.cookie(SESSION_COOKIE, token, {
        httpOnly: true,
        sameSite: 'strict',
        path: '/',
        expires: expiresAt,
        secure: this.settings.config.secureCookies,
      });
      return { ...(await this.view(tx, user.id)), wrongTries };
    });
  }

  async view(tx: Tx, userId: string): Promise<SessionView> {
    const user = await tx.findOneByOrFail(AppUser, { id: userId });
    const clinic = await tx.findOneByOrFail(Clinic, { id: user.clinicId });
    const initials = user.name
      .split(/\s+/)
      .map((part) => part.charAt(0))
      .join('')
      .slice(0, 2)
      .toUpperCase();
    const { devicesUrl } = this.settings.config;
    const { id, name, role, registration, email } = user;
    const secondStep = user.totpSecret !== null;
    const defaults = defaultsOf(clinic);
    const stepMissing = defaults.secondStep && !secondStep;
    return {
      user: { id, name, role, initials, registration, secondStep, stepMissing, email },
      clinic: { ...clinic, defaults },
      devicesUrl,
    };
  }
}

/** Wrong tries at an account since it last signed in. */
async function wrongTriesSince(tx: Tx, userId: string): Promise<number> {
  const [row] = await tx.query<{ tries: number }[]>(
    `SELECT count(*)::int AS tries FROM audit WHERE user_id = $1 AND action = 'sign-in-failed' AND at >
       coalesce((SELECT max(at) FROM audit WHERE user_id = $1 AND action = 'sign-in'), '-infinity'::timestamptz)`,
    [userId],
  );
  return row?.tries ?? 0;
}
