import { Body, Controller, Delete, Get, HttpCode, Param, Post } from '@nestjs/common';
import { randomUUID } from 'node:crypto';
import { ProgramBody, type ProgramMade, type ProgramView } from '@heathstep/contracts';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { hashToken, sessionToken } from '../auth/secrets.js';
import { Clock } from '../clock.js';
import { namesOf } from '../episodes/rows.js';
import { notFound } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, type Tx } from '../persistence/db.js';
import { ProgramKey } from '../persistence/entities.js';

/** How long a key stands, in days. [convention] */
const KEY_DAYS = 365;

async function views(tx: Tx): Promise<ProgramView[]> {
  const names = await namesOf(tx);
  const keys = await tx.find(ProgramKey, { order: { createdAt: 'DESC' } });
  return keys.map((k) => ({
    id: k.id,
    name: k.name,
    by: names.get(k.createdBy) ?? '',
    createdAt: k.createdAt.toISOString(),
    until: k.expiresAt.toISOString(),
    usedAt: k.usedAt?.toISOString() ?? null,
    revokedAt: k.revokedAt?.toISOString() ?? null,
  }));
}

/** Keys by which other programs read the records of the clinic. */
@Roles('lead')
@Controller('api/clinic/programs')
export class ProgramsController {
  constructor(
    private readonly db: Db,
    private readonly clock: Clock,
  ) {}

  @Get()
  list(@Me() me: SignedIn): Promise<ProgramView[]> {
    return this.db.inClinic(me.clinicId, views);
  }

  /** A new key; what it is is shown this once. */
  @HttpCode(201)
  @Post()
  make(@Me() me: SignedIn, @Body() body: ProgramBody): Promise<ProgramMade> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const [id, token, now] = [randomUUID(), sessionToken(), this.clock.now()];
      await tx.insert(ProgramKey, {
        id,
        clinicId: me.clinicId,
        name: body.name.trim(),
        tokenHash: hashToken(token),
        createdBy: me.userId,
        createdAt: now,
        expiresAt: new Date(now.getTime() + KEY_DAYS * 86_400_000),
        revokedAt: null,
        usedAt: null,
      });
      await audit(tx, me, { action: 'create', subject: 'program', personId: null });
      const program = (await views(tx)).find((p) => p.id === id);
      if (program === undefined) throw notFound();
      return { program, token };
    });
  }

  /** A key that opens nothing more. */
  @Delete(':id')
  revoke(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<ProgramView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const key = await tx.findOneBy(ProgramKey, { id });
      if (key === null) throw notFound();
      if (key.revokedAt === null) {
        await tx.update(ProgramKey, { id }, { revokedAt: this.clock.now() });
        await audit(tx, me, { action: 'change', subject: 'program', personId: null });
      }
      return views(tx);
    });
  }
}
