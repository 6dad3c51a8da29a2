import { Controller, Get, Header, Res } from '@nestjs/common';
import type { Response } from 'express';
import { localDay } from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { audit, Db } from '../persistence/db.js';
import { Clinic } from '../persistence/entities.js';
import {
  MEASUREMENT_HEADS,
  measurementLine,
  RESEARCH_HEADS,
  researchLine,
  traitsOf,
  writeMeasurements,
} from './measurements.js';

/** Every measurement of the clinic as a table, with names or without. */
@Controller('api/exchange/measurements')
export class MeasurementsController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly clock: Clock,
  ) {}

  @Roles('lead', 'clinician')
  @Get('measurements.csv')
  @Header('content-type', 'text/csv; charset=utf-8')
  @Header('content-disposition', 'attachment; filename="measurements.csv"')
  @Header('cache-control', 'no-store')
  async all(@Me() me: SignedIn, @Res() response: Response): Promise<void> {
    const { measures, timeZone } = await this.begin(me, 'measurements');
    const table = { measures, heads: MEASUREMENT_HEADS, lineOf: measurementLine(timeZone) };
    await writeMeasurements(this.db, me.clinicId, table, response);
  }

  /** Without names, days moved, and nothing that fewer than five people share. */
  @Roles('lead')
  @Get('research.csv')
  @Header('content-type', 'text/csv; charset=utf-8')
  @Header('content-disposition', 'attachment; filename="research.csv"')
  @Header('cache-control', 'no-store')
  async research(@Me() me: SignedIn, @Res() response: Response): Promise<void> {
    const { measures, timeZone } = await this.begin(me, 'research');
    const traits = await this.db.inClinic(me.clinicId, (tx) =>
      traitsOf(tx, localDay(this.clock.now(), timeZone)),
    );
    const table = { measures, heads: RESEARCH_HEADS, lineOf: researchLine(timeZone, traits) };
    await writeMeasurements(this.db, me.clinicId, table, response);
  }

  private begin(me: SignedIn, subject: 'measurements' | 'research') {
    return this.db.inClinic(me.clinicId, async (tx) => {
      const { timeZone } = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
      await audit(tx, me, { action: 'export', subject, personId: null });
      return { timeZone, measures: await this.content.measuresFor(tx) };
    });
  }
}
