import { Body, Controller, Get, Header, HttpCode, Param, Patch, Post, Query } from '@nestjs/common';
import { AppointmentBody, AppointmentPatch, type AppointmentView } from '@heathstep/contracts';
import { addDays, daysBetween, localDay, say } from '@heathstep/core';
import { Me, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { AsTable, tableOf } from '../http/asTable.js';
import { badRequest, conflict, notFound } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, auditList, Db, type Tx } from '../persistence/db.js';
import { Appointment, Clinic, Person } from '../persistence/entities.js';
import {
  appointmentOf,
  appointmentsBetween,
  plannedFor,
  appointmentsCalendar,
  ownIdOf,
} from './appointments.js';

/** A calendar is given from a week ago to half a year ahead. */
const PAST_DAYS = 7;
const AHEAD_DAYS = 183;

const DAY = /^\d{4}-\d{2}-\d{2}$/;

/** Visits that are planned. */
@Controller('api')
export class AppointmentsController {
  constructor(
    private readonly db: Db,
    private readonly clock: Clock,
  ) {}

  /** The visits of some days from a day on, both included; a week from today when nothing is asked. */
  @Get('appointments')
  list(
    @Me() me: SignedIn,
    @Query('from') from?: string,
    @Query('to') to?: string,
  ): Promise<AppointmentView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const today = await this.today(tx, me);
      const wanted = { from: from ?? today, to: to ?? addDays(today, PAST_DAYS) };
      for (const [pointer, day] of Object.entries(wanted))
        if (!DAY.test(day) || Number.isNaN(Date.parse(day)) || addDays(day, 0) !== day)
          throw badRequest([{ pointer: `/${pointer}`, detail: say('Type a day such as 2026-05-31') }]);
      if (daysBetween(wanted.from, wanted.to) > AHEAD_DAYS)
        throw badRequest([
          { pointer: '/to', detail: say('At most {{days}} days at once', { days: AHEAD_DAYS }) },
        ]);
      const list = await appointmentsBetween(tx, wanted.from, wanted.to);
      await auditList(tx, me, {
        action: 'read',
        subject: 'appointments',
        shown: list.map((a) => a.personId),
      });
      return list;
    });
  }

  /** The visits that are planned for someone from today on, the next first. */
  @Get('people/:id/appointments')
  ofPerson(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<AppointmentView[]> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      if (!(await tx.existsBy(Person, { id }))) throw notFound();
      const today = await this.today(tx, me);
      await audit(tx, me, { action: 'read', subject: 'appointments', personId: id });
      return plannedFor(tx, id, today);
    });
  }

  @Get('appointments/visits.csv')
  @AsTable('visits')
  table(@Me() me: SignedIn): Promise<string> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const today = await this.today(tx, me);
      const list = await appointmentsBetween(tx, addDays(today, -PAST_DAYS), addDays(today, AHEAD_DAYS));
      await auditList(tx, me, {
        action: 'export',
        subject: 'appointments',
        shown: list.map((a) => a.personId),
      });
      return tableOf(
        ['day', 'time', 'minutes', 'person', 'state', 'note'],
        list.map((a) => [a.day, a.time, a.minutes, a.name, a.state, a.note]),
      );
    });
  }

  @Get('appointments/visits.ics')
  @Header('content-type', 'text/calendar; charset=utf-8')
  @Header('content-disposition', 'attachment; filename="visits.ics"')
  @Header('cache-control', 'no-store')
  calendar(@Me() me: SignedIn): Promise<string> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const clinic = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
      const today = localDay(this.clock.now(), clinic.timeZone);
      const list = await appointmentsBetween(tx, addDays(today, -PAST_DAYS), addDays(today, AHEAD_DAYS));
      await auditList(tx, me, {
        action: 'export',
        subject: 'appointments',
        shown: list.map((a) => a.personId),
      });
      return appointmentsCalendar(list, { clinic: clinic.name, now: this.clock.now() });
    });
  }

  @HttpCode(201)
  @Post('appointments')
  add(@Me() me: SignedIn, @Body() body: AppointmentBody): Promise<AppointmentView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      if (!(await tx.existsBy(Person, { id: body.personId }))) throw notFound();
      const made = { ...body, note: body.note.trim(), uid: body.uid ?? null };
      // One that we gave to a calendar ourselves comes back as itself.
      const own = ownIdOf(made.uid);
      if (own !== null && (await tx.existsBy(Appointment, { id: own })))
        throw conflict(say('This event of the calendar is taken already'), null);
      await tx
        .createQueryBuilder()
        .insert()
        .into(Appointment)
        .values({
          ...made,
          clinicId: me.clinicId,
          state: 'planned',
          version: 1,
          authorId: me.userId,
          at: this.clock.now(),
        })
        .orIgnore()
        .execute();
      const stands = await appointmentOf(tx, body.id);
      if (stands === null) throw conflict(say('This event of the calendar is taken already'), null);
      if (!isOf(stands, made)) throw conflict(say('This id has another visit already'), stands);
      await audit(tx, me, { action: 'create', subject: 'appointment', personId: body.personId });
      return stands;
    });
  }

  @Patch('appointments/:id')
  change(
    @Me() me: SignedIn,
    @Param('id', IdPipe) id: string,
    @Body() { version, ...change }: AppointmentPatch,
  ): Promise<AppointmentView> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { affected } = await tx.update(
        Appointment,
        { id, version },
        {
          ...change,
          ...(change.note === undefined ? {} : { note: change.note.trim() }),
          version: version + 1,
        },
      );
      const stands = await appointmentOf(tx, id);
      if (stands === null) throw notFound();
      if (affected !== 1) throw conflict(say('Someone else changed this visit meanwhile'), stands);
      await audit(tx, me, { action: 'change', subject: 'appointment', personId: stands.personId });
      return stands;
    });
  }

  private async today(tx: Tx, me: SignedIn): Promise<string> {
    const clinic = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
    return localDay(this.clock.now(), clinic.timeZone);
  }
}

/** The same visit sent once more. */
const isOf = (
  stands: AppointmentView,
  made: Pick<AppointmentView, 'personId' | 'day' | 'time' | 'minutes' | 'note'>,
): boolean => (['personId', 'day', 'time', 'minutes', 'note'] as const).every((k) => stands[k] === made[k]);
