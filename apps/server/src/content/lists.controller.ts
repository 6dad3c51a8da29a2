import { Controller, Get } from '@nestjs/common';
import { Me, type SignedIn } from '../auth/auth.js';
import { AsTable, tableOf } from '../http/asTable.js';
import { Db } from '../persistence/db.js';
import { Content } from './content.controller.js';

/** What the clinic measures and prescribes by, as tables: shipped and its own. */
@Controller('api/content')
export class ContentListsController {
  constructor(
    private readonly content: Content,
    private readonly db: Db,
  ) {}

  @Get('measures.csv')
  @AsTable('measures')
  measures(@Me() me: SignedIn): Promise<string> {
    return this.db.inClinic(me.clinicId, async (tx) =>
      tableOf(
        ['key', 'measure', 'also called', 'unit', 'sides', 'trials', 'by', 'error', 'methods'],
        (await this.content.measuresFor(tx)).map((m) => [
          m.key,
          m.label,
          (m.also ?? []).join('; '),
          m.unit,
          m.sides,
          m.trials.count,
          m.trials.combine,
          m.error === null ? '' : 'mdc' in m.error ? m.error.mdc : `${String(m.error.mdcPercent)} %`,
          m.methods.join('; '),
        ]),
      ),
    );
  }

  @Get('exercises.csv')
  @AsTable('exercises')
  exercises(@Me() me: SignedIn): Promise<string> {
    return this.db.inClinic(me.clinicId, async (tx) =>
      tableOf(
        ['key', 'exercise', 'also called', 'ladder', 'rung', 'aim', 'equipment', 'position', 'tags'],
        (await this.content.libraryFor(tx)).offered.map((e) => [
          e.key,
          e.name,
          (e.also ?? []).join('; '),
          e.ladder,
          e.rung,
          e.aim,
          e.equipment.join('; '),
          e.position,
          e.tags.join('; '),
        ]),
      ),
    );
  }
}
