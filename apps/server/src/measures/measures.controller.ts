import { say } from '@heathstep/core';
import { isDeepStrictEqual } from 'node:util';
import { Body, Controller, HttpCode, Post } from '@nestjs/common';
import { Clock } from '../clock.js';
import { ownMeasure, OwnMeasureBody, ownMeasureKey, ownMeasureProblems } from '@heathstep/contracts';
import type { MeasureDefinition } from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Content } from '../content/content.controller.js';
import { badRequest, conflict } from '../http/problem.js';
import { audit, Db, oneAtATime } from '../persistence/db.js';
import { ClinicMeasure } from '../persistence/entities.js';

/** A value as it comes back from the database. */
const plain = (value: object): unknown => JSON.parse(JSON.stringify(value));

@Controller('api/measures')
export class MeasuresController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly clock: Clock,
  ) {}

  /** Adds a measure of the clinic's own, or a new version of one. Values taken before keep theirs. */
  @Roles('lead', 'clinician')
  @HttpCode(201)
  @Post()
  save(@Me() me: SignedIn, @Body() body: OwnMeasureBody): Promise<MeasureDefinition> {
    const problems = ownMeasureProblems(body);
    if (problems.length > 0)
      throw badRequest(problems.map((p) => ({ pointer: `/${p.field}`, detail: p.detail })));
    const made = ownMeasure(body);
    return this.db.inClinic(me.clinicId, async (tx) => {
      await oneAtATime(tx, me, 'measures');
      const key = ownMeasureKey(body.id);
      const all = await this.content.measuresFor(tx);
      const taken = all.find((m) => m.key !== key && m.label.toLowerCase() === made.label.toLowerCase());
      if (taken !== undefined)
        throw badRequest([{ pointer: '/label', detail: say('There is a measure of this name already') }]);
      // A short name that is another measure's is left out: the key still reaches this one.
      const names = new Set(all.filter((m) => m.key !== key).flatMap((m) => m.aliases));
      const definition = { ...made, aliases: made.aliases.filter((a) => !names.has(a)) };
      const [last] = await tx.find(ClinicMeasure, { where: { key }, order: { version: 'DESC' }, take: 1 });
      if (last !== undefined && isDeepStrictEqual(last.definition, plain(definition))) return definition;
      if ((last?.version ?? 0) !== body.version)
        throw conflict(say('Someone else changed this measure since you opened it'), last?.filled);
      await tx.insert(ClinicMeasure, {
        clinicId: me.clinicId,
        key,
        version: body.version + 1,
        filled: body,
        definition,
        retired: false,
        authorId: me.userId,
        at: this.clock.now(),
      });
      await audit(tx, me, {
        action: body.version === 0 ? 'create' : 'change',
        subject: `measure:${key}`,
        personId: null,
      });
      return definition;
    });
  }
}
