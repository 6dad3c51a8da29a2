import { isDeepStrictEqual } from 'node:util';
import { Body, Controller, HttpCode, Param, Post, Put } from '@nestjs/common';
import { RetiredBody, RoutineBody } from '@heathstep/contracts';
import { NOTHING_SAID, planProblems, routineItems, say } from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { badRequest, conflict, fieldErrors, notFound } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db, oneAtATime } from '../persistence/db.js';
import { ClinicRoutine } from '../persistence/entities.js';

/** A clinic's own ready sets of exercises. */
@Controller('api/library/routines')
export class RoutinesController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly clock: Clock,
  ) {}

  /** Keeps exercises of a plan as a routine: without the person's side, weights and weekdays. */
  @Roles('lead', 'clinician')
  @HttpCode(201)
  @Post()
  save(@Me() me: SignedIn, @Body() body: RoutineBody): Promise<{ readonly id: string }> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      await oneAtATime(tx, me, 'routines');
      const library = await this.content.libraryFor(tx);
      const problems = planProblems(body.items, (key) => library.exercise(key), NOTHING_SAID);
      if (problems.length > 0) throw badRequest(fieldErrors(problems));
      const items = JSON.parse(JSON.stringify(routineItems(body.items))) as unknown[];
      const name = body.name.trim();
      const standing = await tx.findOneBy(ClinicRoutine, { id: body.id });
      if (standing !== null) {
        if (standing.name === name && isDeepStrictEqual(standing.items, items)) return { id: body.id };
        throw conflict(say('This id has another routine already'), { name: standing.name });
      }
      const named = [...this.content.bundle.routines.map((r) => r.name.toLowerCase())];
      const taken =
        named.includes(name.toLowerCase()) ||
        (
          await tx.query<unknown[]>(
            'SELECT 1 FROM clinic_routine WHERE lower(name) = lower($1) AND NOT retired',
            [name],
          )
        ).length > 0;
      if (taken)
        throw badRequest([{ pointer: '/name', detail: say('There is a routine of this name already') }]);
      await tx.insert(ClinicRoutine, {
        id: body.id,
        clinicId: me.clinicId,
        name,
        items,
        retired: false,
        authorId: me.userId,
        at: this.clock.now(),
      });
      await audit(tx, me, { action: 'create', subject: `routine:${body.id}`, personId: null });
      return { id: body.id };
    });
  }

  /** Puts a routine aside, or takes it back; plans that have it keep it. */
  @Roles('lead', 'clinician')
  @HttpCode(204)
  @Put(':id')
  retire(@Me() me: SignedIn, @Param('id', IdPipe) id: string, @Body() body: RetiredBody): Promise<void> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { affected } = await tx.update(ClinicRoutine, { id }, { retired: body.retired });
      if (affected !== 1) throw notFound();
      await audit(tx, me, { action: 'change', subject: `routine:${id}`, personId: null });
    });
  }
}
