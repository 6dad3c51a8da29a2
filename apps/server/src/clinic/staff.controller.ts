import { say } from '@heathstep/core';
import { Body, Controller, Delete, Get, HttpCode, Param, Patch, Post } from '@nestjs/common';
import { type AccountLinkView, MemberBody, MemberPatch, type MemberView } from '@heathstep/contracts';
import { IsNull, Like, MoreThan, Not } from 'typeorm';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { endSecondStep } from '../auth/secondStep.js';
import { Clock } from '../clock.js';
import { AsTable, tableOf } from '../http/asTable.js';
import { badRequest, notFound, refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, oneAtATime, type Tx } from '../persistence/db.js';
import { AccountLink, AppUser, Passkey, UserSession } from '../persistence/entities.js';
import { newLink } from './accountLinks.js';
import { ELSEWHERE } from './elsewhere.js';

const stateOf = (u: AppUser): MemberView['state'] =>
  u.leftAt !== null ? 'left' : u.passwordHash === null ? 'invited' : 'here';

const OF_HERE = Not(Like(`%${ELSEWHERE}`));

/** Who is of the clinic: they come by a link, have a role, and leave. Only for its leads. */
@Controller('api/clinic/staff')
@Roles('lead')
export class StaffController {
  constructor(
    private readonly db: Db,
    private readonly clock: Clock,
  ) {}

  private async views(tx: Tx, users: readonly AppUser[]): Promise<MemberView[]> {
    const now = this.clock.now();
    const [sessions, links, signIns] = [
      await tx.findBy(UserSession, { expiresAt: MoreThan(now) }),
      await tx.findBy(AccountLink, { expiresAt: MoreThan(now), usedAt: IsNull() }),
      await tx.query<{ id: string; at: Date }[]>(
        `SELECT user_id AS id, max(at) AS at FROM audit WHERE action = 'sign-in' GROUP BY user_id`,
      ),
    ];
    const passkeys = await tx.find(Passkey, { select: { userId: true } });
    return users.map((u) => ({
      id: u.id,
      name: u.name,
      email: u.email,
      role: u.role,
      registration: u.registration,
      state: stateOf(u),
      leftAt: u.leftAt?.toISOString() ?? null,
      secondStep: u.totpSecret !== null,
      lastSignIn: signIns.find((s) => s.id === u.id)?.at.toISOString() ?? null,
      devices: sessions.filter((s) => s.userId === u.id).length,
      passkeys: passkeys.filter((k) => k.userId === u.id).length,
      linkUntil: links.find((l) => l.userId === u.id)?.expiresAt.toISOString() ?? null,
    }));
  }

  private async viewOf(tx: Tx, id: string): Promise<MemberView> {
    const [view] = await this.views(tx, await tx.findBy(AppUser, { id }));
    if (view === undefined) throw notFound();
    return view;
  }

  @Get()
  list(@Me() me: SignedIn): Promise<MemberView[]> {
    return this.db.inClinic(me.clinicId, async (tx) =>
      this.views(
        tx,
        await tx.find(AppUser, { where: { email: OF_HERE }, order: { name: 'ASC', id: 'ASC' } }),
      ),
    );
  }

  @Get('staff.csv')
  @AsTable('staff')
  async table(@Me() me: SignedIn): Promise<string> {
    const staff = await this.list(me);
    await this.db.inClinic(me.clinicId, (tx) =>
      audit(tx, me, { action: 'export', subject: 'account', personId: null }),
    );
    return tableOf(
      ['name', 'e-mail', 'role', 'registration', 'state', 'second step', 'last signed in'],
      staff.map((m) => [m.name, m.email, m.role, m.registration, m.state, m.secondStep, m.lastSignIn]),
    );
  }

  /** Someone new; the id is the client's, so a repeat returns what the first one made. A link is asked for apart. */
  @HttpCode(201)
  @Post()
  add(@Me() me: SignedIn, @Body() body: MemberBody): Promise<MemberView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await oneAtATime(tx, me, 'staff');
      const email = body.email.trim().toLowerCase();
      const standing = await tx.findOneBy(AppUser, { id: body.id });
      if (standing !== null && standing.email === email) return this.viewOf(tx, body.id);
      const [{ taken } = { taken: true }] = await tx.query<{ taken: boolean }[]>(
        'SELECT email_is_taken($1) AS taken',
        [email],
      );
      if (taken || standing !== null)
        throw badRequest([{ pointer: '/email', detail: say('Someone signs in with this e-mail already') }]);
      await tx.insert(AppUser, {
        id: body.id,
        clinicId: me.clinicId,
        name: body.name.trim(),
        email,
        role: body.role,
        passwordHash: null,
        registration: null,
        leftAt: null,
      });
      await audit(tx, me, { action: 'create', subject: 'account', personId: null });
      return this.viewOf(tx, body.id);
    });
  }

  /** A link by which they choose a password: the first, or a new one. Told once. */
  @HttpCode(201)
  @Post(':id/link')
  link(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<AccountLinkView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const user = await tx.findOneBy(AppUser, { id, email: OF_HERE });
      if (user === null) throw notFound();
      if (user.leftAt !== null) throw refusedNow(say('Who left gets no link. Take them back first'));
      await audit(tx, me, { action: 'create', subject: 'account-link', personId: null });
      const of = { clinicId: me.clinicId, userId: id, createdBy: me.userId };
      return newLink(tx, of, this.clock.now());
    });
  }

  @Patch(':id')
  change(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() body: MemberPatch,
  ): Promise<MemberView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await oneAtATime(tx, me, 'staff');
      const user = await tx.findOneBy(AppUser, { id, email: OF_HERE });
      if (user === null) throw notFound();
      const left = body.left ?? user.leftAt !== null;
      const role = body.role ?? user.role;
      if (left || role !== 'lead') await this.refuseNoLead(tx, user);
      const leaves = left && user.leftAt === null;
      const comesBack = !left && user.leftAt !== null;
      await tx.update(
        AppUser,
        { id },
        {
          name: body.name?.trim() ?? user.name,
          role,
          ...(leaves ? { leftAt: this.clock.now(), passwordHash: null } : {}),
          ...(comesBack ? { leftAt: null } : {}),
        },
      );
      if (leaves) {
        await tx.delete(UserSession, { userId: id });
        await tx.delete(Passkey, { userId: id });
        await tx.delete(AccountLink, { userId: id, usedAt: IsNull() });
      }
      const action = leaves ? 'leave' : comesBack ? 'take-back' : 'change';
      await audit(tx, me, { action, subject: 'account', personId: null });
      return this.viewOf(tx, id);
    });
  }

  /** A clinic is never without someone who can let others in. */
  private async refuseNoLead(tx: Tx, user: AppUser): Promise<void> {
    if (user.role !== 'lead' || stateOf(user) !== 'here') return;
    const leads = await tx.findBy(AppUser, { role: 'lead', leftAt: IsNull() });
    if (leads.some((l) => l.id !== user.id && stateOf(l) === 'here')) return;
    throw refusedNow(say('{{name}} is the only lead. Make someone else a lead first', { name: user.name }));
  }

  /** Whose authenticator and kept codes are lost signs in by the password alone again, until they set it up anew. */
  @HttpCode(204)
  @Delete(':id/second-step')
  withoutSecondStep(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<void> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      if (!(await tx.existsBy(AppUser, { id }))) throw notFound();
      await endSecondStep(tx, id);
      await audit(tx, me, { action: 'remove', subject: 'second-step', personId: null });
    });
  }

  /** Signs someone out everywhere, as when a device is lost: none signs in by itself any more. */
  @HttpCode(204)
  @Delete(':id/sessions')
  signOut(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<void> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      if (!(await tx.existsBy(AppUser, { id }))) throw notFound();
      await tx.delete(UserSession, { userId: id });
      await tx.delete(Passkey, { userId: id });
      await audit(tx, me, { action: 'sign-out-elsewhere', subject: 'account', personId: null });
    });
  }
}
