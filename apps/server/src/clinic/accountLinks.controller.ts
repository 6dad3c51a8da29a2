import { say } from '@heathstep/core';
import { Body, Controller, HttpCode, Post } from '@nestjs/common';
import { AccountLinkBody, type AccountLinkFor, ChosenPasswordBody } from '@heathstep/contracts';
import { IsNull } from 'typeorm';
import { Open } from '../auth/auth.js';
import { hashToken } from '../auth/secrets.js';
import { Clock } from '../clock.js';
import { ProblemError } from '../http/problem.js';
import { audit, Db } from '../persistence/db.js';
import { AccountLink, AppUser, Clinic, UserSession } from '../persistence/entities.js';
import { hashOf } from './passwords.js';

interface Found {
  readonly id: string;
  readonly clinic_id: string;
  readonly user_id: string;
}

const noLink = (): ProblemError =>
  new ProblemError(404, say('This link does not work any more'), {
    detail: say(
      'It was used, is too old, or another one was made since. Ask the lead of your clinic for a new one',
    ),
  });

/** Choosing a password by a link, before anyone is signed in. What the link is comes in the body, and so into no log. */
@Controller('api/account-links')
export class AccountLinksController {
  constructor(
    private readonly db: Db,
    private readonly clock: Clock,
  ) {}

  private async found(token: string): Promise<Found> {
    const found = await this.db.lookUp<Found>('SELECT * FROM find_account_link($1, $2)', [
      hashToken(token),
      this.clock.now(),
    ]);
    if (found === null) throw noLink();
    return found;
  }

  @Open('anyone')
  @HttpCode(200)
  @Post()
  async whose(@Body() body: AccountLinkBody): Promise<AccountLinkFor> {
    const { clinic_id, user_id } = await this.found(body.token);
    return this.db.inClinic(clinic_id, async (tx) => {
      const { name, email } = await tx.findOneByOrFail(AppUser, { id: user_id });
      const clinic = await tx.findOneByOrFail(Clinic, { id: clinic_id });
      return { name, email, clinic: clinic.name };
    });
  }

  /** Sets the password and uses the link up; whoever was signed in with an older one no longer is. */
  @Open('anyone')
  @HttpCode(204)
  @Post('password')
  async choose(@Body() body: ChosenPasswordBody): Promise<void> {
    const { id, clinic_id, user_id } = await this.found(body.token);
    await this.db.inClinic(clinic_id, async (tx) => {
      const user = await tx.findOneByOrFail(AppUser, { id: user_id });
      const clinic = await tx.findOneByOrFail(Clinic, { id: clinic_id });
      const passwordHash = await hashOf(body.password, [user.name, user.email, clinic.name]);
      const { affected } = await tx.update(
        AccountLink,
        { id, usedAt: IsNull() },
        { usedAt: this.clock.now() },
      );
      if (affected !== 1) throw noLink();
      await tx.update(AppUser, { id: user_id }, { passwordHash });
      await tx.delete(UserSession, { userId: user_id });
      await audit(
        tx,
        { clinicId: clinic_id, userId: user_id, kind: 'user' },
        { action: 'choose', subject: 'password', personId: null },
      );
    });
  }
}
