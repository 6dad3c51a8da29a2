import { say } from '@heathstep/core';
import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post, Req, Res } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import type { Request, Response } from 'express';
import { Not } from 'typeorm';
import { AccountPatch, type DeviceView, SignInBody, type SessionView } from '@heathstep/contracts';
import { Clock } from '../clock.js';
import { notFound, ProblemError } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { type Actor, audit, Db } from '../persistence/db.js';
import { AppUser, UserSession } from '../persistence/entities.js';
import { BeforeSecondStep, cookie, Me, Open, SESSION_COOKIE, type SignedIn } from './auth.js';
import { takeCode } from './secondStep.js';
import { hashToken } from './secrets.js';
import { Sessions } from './sessions.js';
import { type CountedBy, SignInLimits } from './signInLimits.js';

/** Checked when there is no such account, so that both answers take as long. */
const decoy = hash('no such account');

interface Account {
  readonly id: string;
  readonly clinic_id: string;
  readonly password_hash: string;
}

const asActor = ({ id, clinic_id }: Pick<Account, 'id' | 'clinic_id'>): Actor => ({
  kind: 'user',
  userId: id,
  clinicId: clinic_id,
});

const addressOf = (request: Request): string => request.ip ?? '';

@BeforeSecondStep()
@Controller('api/session')
export class SessionController {
  private readonly limits: SignInLimits;

  constructor(
    private readonly db: Db,
    private readonly sessions: Sessions,
    private readonly clock: Clock,
  ) {
    this.limits = new SignInLimits(() => clock.now().getTime());
  }

  @Open('anyone')
  @HttpCode(200)
  @Post()
  async signIn(
    @Body() body: SignInBody,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionView> {
    const address = addressOf(request);
    const account = body.email.toLowerCase();
    const names = { accountHere: `${address} ${account}`, account, address };
    const user = await this.db.lookUp<Account>('SELECT * FROM find_user($1)', [body.email]);
    await this.refuseTooMany(names, user, response);
    const right = await verify(user?.password_hash ?? (await decoy), body.password);
    if (user === null || !right) {
      this.limits.wrong(names);
      if (user !== null)
        await this.db.inClinic(user.clinic_id, (tx) =>
          audit(tx, asActor(user), { action: 'sign-in-failed', subject: 'session', personId: null }),
        );
      throw new ProblemError(401, say('E-mail and password do not match'), {
        errors: [{ pointer: '/password', detail: say('E-mail and password do not match') }],
      });
    }
    await this.secondStep(user, body.code, names);
    this.limits.right(names);
    return this.sessions.open(user, request, response);
  }

  /** Asks for the code where the account has a second step; a wrong one counts as a wrong try. */
  private async secondStep(
    { id, clinic_id }: Pick<Account, 'id' | 'clinic_id'>,
    code: string | undefined,
    names: Readonly<Record<CountedBy, string>>,
  ): Promise<void> {
    const typed = (code ?? '').trim();
    const found = await this.db.inClinic(clinic_id, async (tx) => {
      const user = await tx.findOneByOrFail(AppUser, { id });
      if (user.totpSecret === null) return 'not needed';
      if (typed === '') return 'missing';
      if (await takeCode(tx, user, typed, this.clock.now())) return 'right';
      await audit(tx, asActor({ id, clinic_id }), {
        action: 'sign-in-failed',
        subject: 'second-step',
        personId: null,
      });
      return 'wrong';
    });
    if (found === 'not needed' || found === 'right') return;
    if (found === 'wrong') this.limits.wrong(names);
    const title =
      found === 'wrong'
        ? say('This code is not the one of now, or was used already')
        : say('Type the code that your authenticator shows');
    throw new ProblemError(401, title, { errors: [{ pointer: '/code', detail: title }] });
  }

  /** Who is signed in at this address already is not held up by what others try elsewhere. */
  private async refuseTooMany(
    names: Readonly<Record<CountedBy, string>>,
    user: Account | null,
    response: Response,
  ): Promise<void> {
    const { accountHere, address } = names;
    if (this.limits.waitSeconds(names) === 0) return;
    const known =
      user !== null &&
      (await this.db.inClinic(user.clinic_id, (tx) =>
        tx.existsBy(UserSession, { userId: user.id, address }),
      ));
    const seconds = this.limits.waitSeconds(known ? { accountHere, address } : names);
    if (seconds === 0) return;
    response.setHeader('Retry-After', String(seconds));
    throw new ProblemError(429, say('Too many tries'), {
      detail: say('Wait {{value}}, then try again', {
        value:
          seconds < 90
            ? say('{{seconds}} seconds', { seconds })
            : say('{{ceil}} minutes', { ceil: Math.ceil(seconds / 60) }),
      }),
    });
  }

  @Get()
  current(@Me() me: SignedIn): Promise<SessionView> {
    return this.db.inClinic(me.clinicId, (tx) => this.sessions.view(tx, me.userId));
  }

  /** What someone says of themselves: the register they are in. */
  @Patch()
  change(@Me() me: SignedIn, @Body() body: AccountPatch): Promise<SessionView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const registration = body.registration.trim();
      await tx.update(
        AppUser,
        { id: me.userId },
        { registration: registration === '' ? null : registration },
      );
      await audit(tx, me, { action: 'change', subject: 'account', personId: null });
      return this.sessions.view(tx, me.userId);
    });
  }

  /** Where one's own account is signed in, the newest first. */
  @Get('devices')
  devices(@Me() me: SignedIn, @Req() request: Request): Promise<readonly DeviceView[]> {
    const here = hereOf(request);
    return this.db.inClinic(me.clinicId, async (tx) => {
      const rows = await tx.find(UserSession, { where: { userId: me.userId }, order: { createdAt: 'DESC' } });
      return rows
        .filter((r) => r.expiresAt > this.clock.now())
        .map((r) => ({
          id: r.id,
          since: r.createdAt.toISOString(),
          until: r.expiresAt.toISOString(),
          agent: r.agent,
          here: r.tokenHash === here,
        }));
    });
  }

  /** Signs the account out everywhere else. */
  @HttpCode(204)
  @Delete('devices')
  signOutElsewhere(@Me() me: SignedIn, @Req() request: Request): Promise<void> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await tx.delete(UserSession, { userId: me.userId, tokenHash: Not(hereOf(request)) });
      await audit(tx, me, { action: 'sign-out-elsewhere', subject: 'session', personId: null });
    });
  }

  /** Signs one device of one's own account out. */
  @HttpCode(204)
  @Delete('devices/:id')
  signOutDevice(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<void> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { affected } = await tx.delete(UserSession, { id, userId: me.userId });
      if (affected !== 1) throw notFound();
      await audit(tx, me, { action: 'sign-out', subject: 'session', personId: null });
    });
  }

  @Open('anyone')
  @HttpCode(204)
  @Delete()
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = cookie(request, SESSION_COOKIE);
    response.clearCookie(SESSION_COOKIE, { path: '/' });
    if (token === null) return;
    const tokenHash = hashToken(token);
    const row = await this.db.lookUp<{ clinic_id: string; user_id: string }>(
      'SELECT * FROM find_session($1, $2)',
      [tokenHash, this.clock.now()],
    );
    if (row === null) return;
    await this.db.inClinic(row.clinic_id, async (tx) => {
      await tx.delete(UserSession, { tokenHash });
      const actor: Actor = { kind: 'user', clinicId: row.clinic_id, userId: row.user_id };
      await audit(tx, actor, { action: 'sign-out', subject: 'session', personId: null });
    });
  }
}

const hereOf = (request: Request): string => hashToken(cookie(request, SESSION_COOKIE) ?? '');
