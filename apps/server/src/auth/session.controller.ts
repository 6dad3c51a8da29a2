import { Body, Controller, Delete, Get, HttpCode, Post, Req, Res, UseGuards } from '@nestjs/common';
import { Clock } from '../clock.js';
import { Throttle, ThrottlerGuard } from '@nestjs/throttler';
import { hash, verify } from '@node-rs/argon2';
import type { Request, Response } from 'express';
import { SignInBody, type SessionView } from '@heathstep/contracts';
import { ProblemError } from '../http/problem.js';
import { Db } from '../persistence/db.js';
import { AppUser, Clinic, UserSession } from '../persistence/entities.js';
import { Settings } from '../settings.js';
import { cookie, Me, Open, SESSION_COOKIE, type SignedIn } from './auth.js';
import { hashToken, sessionToken } from './secrets.js';

const SESSION_HOURS = 12;

/** Counts tries per address and account, so that one person's typing errors do not lock out a whole clinic. */
class SignInThrottle extends ThrottlerGuard {
  protected override getTracker(request: Record<string, unknown>): Promise<string> {
    const { ip, body } = request as { ip?: string; body?: { email?: unknown } };
    const account = typeof body?.email === 'string' ? body.email.toLowerCase().slice(0, 200) : '';
    return Promise.resolve(`${ip ?? ''} ${account}`);
  }

  protected override throwThrottlingException(): Promise<void> {
    throw new ProblemError(429, 'Too many tries', { detail: 'Wait a minute, then try again' });
  }
}

/** Checked when there is no such account, so that both answers take as long. */
const decoy = hash('no such account');

@Controller('api/session')
export class SessionController {
  constructor(
    private readonly db: Db,
    private readonly settings: Settings,
    private readonly clock: Clock,
  ) {}

  @Open('anyone')
  @UseGuards(SignInThrottle)
  @Throttle({ default: { limit: 20, ttl: 60_000 } })
  @HttpCode(200)
  @Post()
  async signIn(
    @Body() body: SignInBody,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionView> {
    const user = await this.db.lookUp<{ id: string; clinic_id: string; password_hash: string }>(
      'SELECT * FROM find_user($1)',
      [body.email],
    );
    const right = await verify(user?.password_hash ?? (await decoy), body.password);
    if (user === null || !right) {
      throw new ProblemError(401, 'E-mail and password do not match', {
        errors: [{ pointer: '/password', detail: 'E-mail and password do not match' }],
      });
    }
    const token = sessionToken();
    const now = this.clock.now();
    const expiresAt = new Date(now.getTime() + SESSION_HOURS * 3_600_000);
    return this.db.inClinic(user.clinic_id, async (tx) => {
      await tx.query('DELETE FROM user_session WHERE expires_at < $1', [now]);
      await tx.insert(UserSession, {
        tokenHash: hashToken(token),
        clinicId: user.clinic_id,
        userId: user.id,
        createdAt: now,
        expiresAt,
      });
      response.cookie(SESSION_COOKIE, token, {
        httpOnly: true,
        sameSite: 'strict',
        path: '/',
        expires: expiresAt,
        secure: this.settings.config.secureCookies,
      });
      return this.view(tx, user.id);
    });
  }

  @Get()
  current(@Me() me: SignedIn): Promise<SessionView> {
    return this.db.inClinic(me.clinicId, (tx) => this.view(tx, me.userId));
  }

  @Open('anyone')
  @HttpCode(204)
  @Delete()
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = cookie(request, SESSION_COOKIE);
    response.clearCookie(SESSION_COOKIE, { path: '/' });
    if (token === null) return;
    const tokenHash = hashToken(token);
    const row = await this.db.lookUp<{ clinic_id: string }>('SELECT * FROM find_session($1, $2)', [
      tokenHash,
      this.clock.now(),
    ]);
    if (row !== null) await this.db.inClinic(row.clinic_id, (tx) => tx.delete(UserSession, { tokenHash }));
  }

  private async view(tx: Parameters<Parameters<Db['inClinic']>[1]>[0], userId: string): Promise<SessionView> {
    const user = await tx.findOneByOrFail(AppUser, { id: userId });
    const clinic = await tx.findOneByOrFail(Clinic, { id: user.clinicId });
    const initials = user.name
      .split(/\s+/)
      .map((part) => part.charAt(0))
      .join('')
      .slice(0, 2)
      .toUpperCase();
    const { devicesUrl } = this.settings.config;
    return { user: { id: user.id, name: user.name, role: user.role, initials }, clinic, devicesUrl };
  }
}
