import { Controller, Get, Header, Query } from '@nestjs/common';
import type { OutcomePerson, OutcomesView } from '@heathstep/contracts';
import { localDay, say, sayIf } from '@heathstep/core';
import { Me, Roles, type SignedIn } from '../auth/auth.js';
import { Clock } from '../clock.js';
import { Content } from '../content/content.controller.js';
import { badRequest } from '../http/problem.js';
import { audit, auditList, Db } from '../persistence/db.js';
import { Clinic } from '../persistence/entities.js';
import { countHome, countVisits } from './counts.js';
import { outcomesCsv, outcomesOf } from './outcomes.js';

/** What became of people, by protocol and version; of fewer than five nothing is told but how many. */
@Controller('api/outcomes')
export class OutcomesController {
  constructor(
    private readonly db: Db,
    private readonly content: Content,
    private readonly clock: Clock,
  ) {}

  @Roles('lead', 'clinician')
  @Get()
  all(@Me() me: SignedIn): Promise<OutcomesView> {
    return this.view(me, 'read');
  }

  @Roles('lead', 'clinician')
  @Get('outcomes.csv')
  @Header('content-type', 'text/csv; charset=utf-8')
  @Header('content-disposition', 'attachment; filename="outcomes.csv"')
  @Header('cache-control', 'no-store')
  async csv(@Me() me: SignedIn): Promise<string> {
    return outcomesCsv(await this.view(me, 'export'));
  }

  /** Who they are: each look is kept, with everyone it showed. */
  @Roles('lead', 'clinician')
  @Get('people')
  people(
    @Me() me: SignedIn,
    @Query('protocol') protocol?: string,
    @Query('version') version?: string,
  ): Promise<OutcomePerson[]> {
    if (typeof protocol !== 'string' || !/^[\w-]{1,80}$/.test(protocol))
      throw badRequest([{ pointer: '/protocol', detail: say('Name a protocol') }]);
    if (typeof version !== 'string' || !/^\d{1,9}$/.test(version))
      throw badRequest([{ pointer: '/version', detail: say('must be a whole number') }]);
    return this.db.inClinic(me.clinicId, async (tx) => {
      const rows = await tx.query<
        { person_id: string; id: string; name: string; stage: string | null; status: 'open' | 'closed' }[]
      >(
        `SELECT e.person_id, e.id, p.name, e.stage, e.status
           FROM episode e JOIN person p ON p.clinic_id = e.clinic_id AND p.id = e.person_id
          WHERE e.protocol = $1 AND e.protocol_version = $2
            AND EXISTS (SELECT 1 FROM stage_span s WHERE s.episode_id = e.id)
          ORDER BY p.name, e.id`,
        [protocol, Number(version)],
      );
      await auditList(tx, me, {
        action: 'read',
        subject: `outcomes:${protocol}`,
        shown: rows.map((r) => r.person_id),
      });
      if (rows.length === 0) return [];
      const of = (await this.content.protocolsFor(tx)).on({ protocol, protocolVersion: Number(version) });
      return rows.map((r) => ({
        personId: r.person_id,
        episodeId: r.id,
        name: r.name,
        stageName: sayIf(of.stages.find((s) => s.key === r.stage)?.name ?? r.stage),
        status: r.status,
      }));
    });
  }

  /** Counted in two transactions side by side: what is told of a clinic is no snapshot of one moment. */
  private async view(me: SignedIn, action: 'read' | 'export'): Promise<OutcomesView> {
    const now = this.clock.now();
    const [{ visits, protocols }, home] = await Promise.all([
      this.db.inClinic(me.clinicId, async (tx) => {
        await audit(tx, me, { action, subject: 'outcomes', personId: null });
        return { visits: await countVisits(tx), protocols: await this.content.protocolsFor(tx) };
      }),
      this.db.inClinic(me.clinicId, async (tx) => {
        const { timeZone } = await tx.findOneByOrFail(Clinic, { id: me.clinicId });
        return countHome(tx, localDay(now, timeZone), now);
      }),
    ]);
    return outcomesOf({ ...visits, ...home }, (of) =>
      protocols.on({ protocol: of.protocol, protocolVersion: of.version }),
    );
  }
}
