import { Injectable } from '@nestjs/common';
import { verify } from '@node-rs/argon2';
import type { Request } from 'express';
import type { ByPasswordBody } from '@heathstep/contracts';
import { say } from '@heathstep/core';
import { Clock } from '../clock.js';
import { badRequest, ProblemError } from '../http/problem.js';
import { Db, type Tx } from '../persistence/db.js';
import { AppUser } from '../persistence/entities.js';
import type { SignedIn } from './auth.js';
import { SignInLimits } from './signInLimits.js';

/** What of an account only who knows its password may do. */
@Injectable()
export class ByPassword {
  private readonly limits: SignInLimits;

  constructor(
    private readonly db: Db,
    clock: Clock,
  ) {
    this.limits = new SignInLimits(() => clock.now().getTime());
  }

  /** Does it where the password is right; wrong tries wait longer each time. */
  async run<T>(
    me: SignedIn,
    { current }: ByPasswordBody,
    request: Request,
    work: (tx: Tx, user: AppUser) => Promise<T>,
  ): Promise<T> {
    const names = { accountHere: me.userId, account: me.userId, address: request.ip ?? '' };
    const seconds = this.limits.waitSeconds(names);
    if (seconds > 0)
      throw new ProblemError(429, say('Too many tries'), {
        detail: say('Wait {{value}}, then try again', { value: say('{{seconds}} seconds', { seconds }) }),
      });
    return this.db.inClinic(me.clinicId, async (tx) => {
      const user = await tx.findOneByOrFail(AppUser, { id: me.userId });
      if (user.passwordHash === null || !(await verify(user.passwordHash, current))) {
        this.limits.wrong(names);
        throw badRequest([{ pointer: '/current', detail: say('This is not the password you have') }]);
      }
      this.limits.right(names);
      return work(tx, user);
    });
  }
}
