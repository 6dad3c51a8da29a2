import { say } from '@heathstep/core';
import { Controller, Get, Header, Param } from '@nestjs/common';
import { type AtHome, Me, Open, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { EpisodeReader } from '../episodes/reader.js';
import { refusedNow } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { audit, Db } from '../persistence/db.js';
import { planCalendar } from './calendar.js';

@Controller('api')
export class CalendarController {
  constructor(
    private readonly db: Db,
    private readonly reader: EpisodeReader,
    private readonly clock: Clock,
  ) {}

  /** The plan the patient has, for any calendar. */
  @Get('episodes/:id/plan.ics')
  @Header('content-type', 'text/calendar; charset=utf-8')
  @Header('content-disposition', 'attachment; filename="plan.ics"')
  @Header('cache-control', 'no-store')
  calendar(@Me() me: SignedIn, @Param('id', IdPipe) id: string): Promise<string> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const record = await this.reader.shown(tx, id);
      const text = planCalendar(record, this.clock.now());
      if (text === null) throw refusedNow(say('There is nothing to put into a calendar now'));
      await audit(tx, me, { action: 'export', subject: 'calendar', personId: record.row.personId });
      return text;
    });
  }

  /** The same for the patient, by the link that is open. */
  @Open('home')
  @Get('home/plan.ics')
  @Header('content-type', 'text/calendar; charset=utf-8')
  @Header('content-disposition', 'attachment; filename="plan.ics"')
  @Header('cache-control', 'no-store')
  own(@Me() me: AtHome): Promise<string> {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const record = await this.reader.shown(tx, me.episodeId);
      const text = planCalendar(record, this.clock.now());
      if (text === null) throw refusedNow(say('There is nothing to put into a calendar now'));
      await audit(tx, me, { action: 'export', subject: 'calendar', personId: record.row.personId });
      return text;
    });
  }
}
