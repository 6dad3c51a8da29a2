import { say } from '@heathstep/core';
import { Body, Controller, HttpCode, Post, Req } from '@nestjs/common';
import { verify } from '@node-rs/argon2';
import type { Request } from 'express';
import { OwnPasswordBody } from '@heathstep/contracts';
import { Not } from 'typeorm';
import { hashOf } from '../clinic/passwords.js';
import { Clock } from '../clock.js';
import { badRequest, ProblemError } from '../http/problem.js';
import { audit, Db } from '../persistence/db.js';
import { AppUser, Clinic, UserSession } from '../persistence/entities.js';
import { cookie, Me, SESSION_COOKIE, type SignedIn } from './auth.js';
import { hashToken } from './secrets.js';
import { SignInLimits } from './signInLimits.js';

/** One's own password, by the one that stands; other devices are signed out by it. */
@Controller('api/session/password')
export class PasswordController {
  private readonly limits: SignInLimits;

  constructor(
    private readonly db: Db,
    clock: Clock,
  ) {
    this.limits = new SignInLimits(() => clock.now().getTime());
  }

  @HttpCode(204)
  @Post()
  change(@Me() me: SignedIn, @Body() body: OwnPasswordBody, @Req() request: Request): Promise<void> {
    const names = { accountHere: me.userId, account: me.userId, address: request.ip ?? '' };
    const seconds = this.limits.waitSeconds(names);
    if (seconds > 0)
      throw new ProblemError(429, say('Too many tries'), {
        detail: say('Wait {{value}}, then try again', { value: say('{{seconds}} seconds', { seconds }) }),
      });
    return this.db.inClinic(me.clinicId, async (tx) => {
      const user = await tx.findOneByOrFail(AppUser, { id: me.userId });
      if (user.passwordHash === null || !(await verify(user.passwordHash, body.current))) {
        this.limits.wrong(names);
        throw badRequest([{ pointer: '/current', detail: say('This is not the password you have') }]);
      }
      this.limits.right(names);
      const clinic = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
      const passwordHash = await hashOf(body.password, [user.name, user.email, clinic.name]);
      await tx.update(AppUser, { id: me.userId }, { passwordHash });
      const here = hashToken(cookie(request, SESSION_COOKIE) ?? '');
      await tx.delete(UserSession, { userId: me.userId, tokenHash: Not(here) });
      await audit(tx, me, { action: 'choose', subject: 'password', personId: null });
    });
  }
}
