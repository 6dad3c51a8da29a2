import { Body, Controller, Delete, Get, HttpCode, Param, Post, Req, Res } from '@nestjs/common';
import {
  type AuthenticationResponseJSON,
  type AuthenticatorTransport,
  generateAuthenticationOptions,
  generateRegistrationOptions,
  type RegistrationResponseJSON,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server';
import type { Request, Response } from 'express';
import { randomUUID } from 'node:crypto';
import { isIP } from 'node:net';
import {
  MOST_PASSKEYS,
  PasskeyBody,
  type PasskeyChallenge,
  PasskeyOptionsBody,
  PasskeySignInBody,
  type PasskeyView,
  type SessionView,
} from '@heathstep/contracts';
import { say } from '@heathstep/core';
import { Clock } from '../clock.js';
import { badRequest, notFound, ProblemError, refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { Passkey } from '../persistence/entities.js';
import { Settings } from '../settings.js';
import { BeforeSecondStep, Me, Open, type SignedIn } from './auth.js';
import { ByPassword } from './byPassword.js';
import { Challenges } from './challenges.js';
import { Sessions } from './sessions.js';

interface Found {
  readonly id: string;
  readonly clinic_id: string;
  readonly user_id: string;
  readonly public_key: Buffer;
  readonly counter: string;
  readonly transports: AuthenticatorTransport[];
}

/** Signing in by a device that knows its owner, in place of password and code. Its secret never comes here. */
@BeforeSecondStep()
@Controller('api/session')
export class PasskeysController {
  private readonly challenges: Challenges;

  constructor(
    private readonly db: Db,
    private readonly settings: Settings,
    private readonly sessions: Sessions,
    private readonly byPassword: ByPassword,
    private readonly clock: Clock,
  ) {
    this.challenges = new Challenges(() => clock.now().getTime());
  }

  @Get('passkeys')
  list(@Me() me: SignedIn): Promise<PasskeyView[]> {
    return this.db.inClinic(me.clinicId, (tx) => this.views(tx, me.userId));
  }

  /** A challenge for a device that is to sign in from now on; by the password. */
  @HttpCode(201)
  @Post('passkeys/options')
  begin(
    @Me() me: SignedIn,
    @Body() body: PasskeyOptionsBody,
    @Req() request: Request,
  ): Promise<PasskeyChallenge> {
    const { rpID } = this.here(request);
    return this.byPassword.run(me, body, request, async (tx, user) => {
      const own = await tx.findBy(Passkey, { userId: me.userId });
      if (own.length >= MOST_PASSKEYS)
        throw refusedNow(say('There are {{n}} already; take one back first', { n: MOST_PASSKEYS }));
      const options = await generateRegistrationOptions({
        rpName: 'Heathstep',
        rpID,
        userName: user.email,
        userDisplayName: user.name,
        userID: new Uint8Array(Buffer.from(me.userId)),
        attestationType: 'none',
        authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
        excludeCredentials: own.map((k) => ({ id: k.credential })),
      });
      this.challenges.give(me.userId, options.challenge);
      return { id: me.userId, options: { ...options } };
    });
  }

  @HttpCode(201)
  @Post('passkeys')
  async add(@Me() me: SignedIn, @Body() body: PasskeyBody, @Req() request: Request): Promise<PasskeyView[]> {
    const { rpID, origin } = this.here(request);
    const expectedChallenge = this.challenges.take(me.userId);
    const answer =
      expectedChallenge === null
        ? null
        : await verifyRegistrationResponse({
            response: body.response as RegistrationResponseJSON,
            expectedChallenge,
            expectedOrigin: origin,
            expectedRPID: rpID,
            requireUserVerification: true,
          }).catch(() => null);
    if (answer?.verified !== true)
      throw badRequest([
        { pointer: '/response', detail: say('The device did not answer in time, or not rightly') },
      ]);
    const { credential } = answer.registrationInfo;
    return this.db.inClinic(me.clinicId, async (tx) => {
      await tx.insert(Passkey, {
        id: randomUUID(),
        clinicId: me.clinicId,
        userId: me.userId,
        credential: credential.id,
        publicKey: Buffer.from(credential.publicKey),
        counter: String(credential.counter),
        transports: credential.transports ?? [],
        name: body.name.trim(),
        createdAt: this.clock.now(),
        usedAt: null,
      });
      await audit(tx, me, { action: 'create', subject: 'passkey', personId: null });
      return this.views(tx, me.userId);
    });
  }

  /** That device signs in no more. */
  @Delete('passkeys/:id')
  remove(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<PasskeyView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { affected } = await tx.delete(Passkey, { id, userId: me.userId });
      if (affected !== 1) throw notFound();
      await audit(tx, me, { action: 'remove', subject: 'passkey', personId: null });
      return this.views(tx, me.userId);
    });
  }

  /** A challenge for whoever is in front of a device that was added. */
  @Open('anyone')
  @HttpCode(201)
  @Post('passkey/options')
  async challenge(@Req() request: Request): Promise<PasskeyChallenge> {
    const { rpID } = this.here(request);
    const options = await generateAuthenticationOptions({ rpID, userVerification: 'required' });
    const id = randomUUID();
    this.challenges.give(id, options.challenge);
    return { id, options: { ...options } };
  }

  /** The device knows its owner and has the secret: that is both steps at once. */
  @Open('anyone')
  @HttpCode(200)
  @Post('passkey')
  async signIn(
    @Body() body: PasskeySignInBody,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SessionView> {
    const { rpID, origin } = this.here(request);
    const expectedChallenge = this.challenges.take(body.id);
    const answer = body.response as AuthenticationResponseJSON;
    const credential = typeof answer.id === 'string' ? answer.id : '';
    const found = await this.db.lookUp<Found>('SELECT * FROM find_passkey($1)', [credential]);
    const verified =
      found === null || expectedChallenge === null
        ? null
        : await verifyAuthenticationResponse({
            response: answer,
            expectedChallenge,
            expectedOrigin: origin,
            expectedRPID: rpID,
            requireUserVerification: true,
            credential: {
              id: credential,
              publicKey: new Uint8Array(found.public_key),
              counter: Number(found.counter),
              transports: found.transports,
            },
          }).catch(() => null);
    if (found === null || verified?.verified !== true)
      throw new ProblemError(401, say('This device is not known here, or did not answer in time'));
    await this.db.inClinic(found.clinic_id, (tx) =>
      tx.update(
        Passkey,
        { id: found.id },
        { counter: String(verified.authenticationInfo.newCounter), usedAt: this.clock.now() },
      ),
    );
    return this.sessions.open({ id: found.user_id, clinic_id: found.clinic_id }, request, response);
  }

  /** What this is known by: a name, since a passkey belongs to one. */
  private here(request: Request): { readonly rpID: string; readonly origin: string } {
    const origin =
      this.settings.config.publicUrl ?? `${request.protocol}://${request.get('host') ?? 'localhost'}`;
    const rpID = new URL(origin).hostname;
    if (isIP(rpID.replace(/^\[|\]$/g, '')) !== 0)
      throw new ProblemError(404, say('A passkey needs an address with a name, not a number'));
    return { rpID, origin: new URL(origin).origin };
  }

  private async views(tx: Tx, userId: string): Promise<PasskeyView[]> {
    const own = await tx.find(Passkey, { where: { userId }, order: { createdAt: 'ASC' } });
    return own.map(({ id, name, createdAt, usedAt }) => ({
      id,
      name,
      createdAt: createdAt.toISOString(),
      usedAt: usedAt?.toISOString() ?? null,
    }));
  }
}
