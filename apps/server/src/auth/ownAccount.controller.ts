import { say } from '@heathstep/core';
import { Body, Controller, HttpCode, Post, Req } from '@nestjs/common';
import type { Request } from 'express';
import {
  ByPasswordBody,
  FirstCodeBody,
  OwnPasswordBody,
  type RecoveryCodesView,
  type SecondStepView,
} from '@heathstep/contracts';
import { Not } from 'typeorm';
import { defaultsOf } from '../clinic/defaults.js';
import { hashOf } from '../clinic/passwords.js';
import { Clock } from '../clock.js';
import { badRequest, refusedNow } from '../http/problem.js';
import { audit, Db } from '../persistence/db.js';
import { AppUser, Clinic, UserSession } from '../persistence/entities.js';
import { ByPassword } from './byPassword.js';
import { BeforeSecondStep, cookie, Me, SESSION_COOKIE, type SignedIn } from './auth.js';
import { hashToken } from './secrets.js';
import { endSecondStep, newRecoveryCodes, newSecret, stepOf, uriOf } from './secondStep.js';

@BeforeSecondStep()
@Controller('api/session')
export class OwnAccountController {
  constructor(
    private readonly db: Db,
    private readonly byPassword: ByPassword,
    private readonly clock: Clock,
  ) {}

  @HttpCode(204)
  @Post('password')
  change(@Me() me: SignedIn, @Body() body: OwnPasswordBody, @Req() request: Request): Promise<void> {
    return this.byPassword.run(me, body, request, async (tx, user) => {
      const clinic = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
      const passwordHash = await hashOf(body.password, [user.name, user.email, clinic.name]);
      await tx.update(AppUser, { id: me.userId }, { passwordHash });
      const here = hashToken(cookie(request, SESSION_COOKIE) ?? '');
      await tx.delete(UserSession, { userId: me.userId, tokenHash: Not(here) });
      await audit(tx, me, { action: 'choose', subject: 'password', personId: null });
    });
  }

  /** A secret for an authenticator; it counts from the first code it shows. */
  @HttpCode(201)
  @Post('second-step')
  begin(@Me() me: SignedIn, @Body() body: ByPasswordBody, @Req() request: Request): Promise<SecondStepView> {
    return this.byPassword.run(me, body, request, async (tx, user) => {
      if (user.totpSecret !== null) throw refusedNow(say('There is a second step already. End it first'));
      const secret = newSecret();
      await tx.update(AppUser, { id: me.userId }, { totpPending: secret });
      return { secret, uri: uriOf(secret, user.email) };
    });
  }

  /** The first code: from now on signing in asks for one. Tells the codes for a lost device, once. */
  @HttpCode(201)
  @Post('second-step/first')
  first(@Me() me: SignedIn, @Body() body: FirstCodeBody): Promise<RecoveryCodesView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const user = await tx.findOneByOrFail(AppUser, { id: me.userId });
      if (user.totpPending === null) throw refusedNow(say('Begin with the picture for the authenticator'));
      const step = stepOf(user.totpPending, body.code.replaceAll(/\s/g, ''), this.clock.now(), null);
      if (step === null)
        throw badRequest([
          { pointer: '/code', detail: say('Not the code of now. Is the clock of the authenticator right?') },
        ]);
      await tx.update(
        AppUser,
        { id: me.userId },
        { totpSecret: user.totpPending, totpPending: null, totpLast: step },
      );
      const codes = await newRecoveryCodes(tx, user);
      await audit(tx, me, { action: 'create', subject: 'second-step', personId: null });
      return { codes };
    });
  }

  /** Signing in asks for the password alone again. */
  @HttpCode(204)
  @Post('second-step/end')
  end(@Me() me: SignedIn, @Body() body: ByPasswordBody, @Req() request: Request): Promise<void> {
    return this.byPassword.run(me, body, request, async (tx) => {
      const clinic = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
      if (defaultsOf(clinic).secondStep) throw refusedNow(say('Your clinic asks everyone for a second step'));
      await endSecondStep(tx, me.userId);
      await audit(tx, me, { action: 'remove', subject: 'second-step', personId: null });
    });
  }
}
