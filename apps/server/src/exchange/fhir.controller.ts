import { Controller, Get, Header, Param, Query, Req } from '@nestjs/common';
import type { Bundle, CapabilityStatement, FhirResource, OperationOutcome } from 'fhir/r4.js';
import type { Request } from 'express';
import { Open } from '../auth/auth.js';
import { hashToken } from '../auth/secrets.js';
import { Clock } from '../clock.js';
import { notFound, ProblemError } from '../http/problem.js';
import { IdPipe } from '../http/validation.js';
import { type Actor, audit, Db, type Tx } from '../persistence/db.js';
import { Person, ProgramKey } from '../persistence/entities.js';
import { Gathering } from './fhir/gather.js';
import { writeBundle } from './fhir/write.js';

/** Types that can be asked for, each by its patient. */
const READABLE = [
  'Patient',
  'Condition',
  'EpisodeOfCare',
  'Encounter',
  'Observation',
  'QuestionnaireResponse',
  'CarePlan',
  'Goal',
  'ServiceRequest',
  'ClinicalImpression',
  'DetectedIssue',
  'MedicationStatement',
  'AllergyIntolerance',
  'Procedure',
  'Appointment',
  'Communication',
  'Media',
  'Provenance',
  'Basic',
] as const;

/** People at once. [convention] */
const MOST_PEOPLE = 50;
const KEY = /^Bearer ([A-Za-z0-9_-]{20,100})$/;
const FHIR_JSON = 'application/fhir+json; charset=utf-8';

interface Program extends Actor {
  readonly id: string;
}

const found = (resources: readonly FhirResource[], total: number): Bundle => ({
  resourceType: 'Bundle',
  type: 'searchset',
  total,
  ...(resources.length === 0
    ? {}
    : { entry: resources.map((resource) => ({ resource, search: { mode: 'match' as const } })) }),
});

/**
 * The records as other programs read them: FHIR R4, reading only, with a key of the clinic. Each look stands in the log under
 * the name of who made the key.
 */
@Controller('fhir')
export class FhirController {
  constructor(
    private readonly db: Db,
    private readonly gathering: Gathering,
    private readonly clock: Clock,
  ) {}

  /** What can be asked here. */
  @Open('anyone')
  @Header('content-type', FHIR_JSON)
  @Get('metadata')
  metadata(): CapabilityStatement {
    return {
      resourceType: 'CapabilityStatement',
      status: 'active',
      date: '2026-11-28',
      kind: 'instance',
      software: { name: 'Heathstep' },
      implementation: { description: 'Records of a clinic for feet and ankles, to be read' },
      fhirVersion: '4.0.1',
      format: ['json'],
      rest: [
        {
          mode: 'server',
          resource: READABLE.map((type) => ({
            type,
            interaction: [
              { code: 'search-type' as const },
              ...(type === 'Patient' ? [{ code: 'read' as const }] : []),
            ],
            ...(type === 'Patient' ? {} : { searchParam: [{ name: 'patient', type: 'reference' as const }] }),
          })),
        },
      ],
    };
  }

  /** People by their name, some at a time. */
  @Open('anyone')
  @Header('content-type', FHIR_JSON)
  @Header('cache-control', 'no-store')
  @Get('Patient')
  patients(@Req() request: Request, @Query('_offset') offset?: string): Promise<Bundle> {
    return this.asked(request, async (tx, program) => {
      const skip = /^\d{1,6}$/.test(String(offset)) ? Number(offset) : 0;
      const [people, total] = await tx.findAndCount(Person, {
        order: { name: 'ASC', id: 'ASC' },
        skip,
        take: MOST_PEOPLE,
      });
      const shown: FhirResource[] = [];
      for (const { id } of people) {
        const resource = (await this.record(tx, program, id)).find((r) => r.resourceType === 'Patient');
        if (resource !== undefined) shown.push(resource);
      }
      await audit(tx, program, {
        action: 'list',
        subject: 'people',
        personId: null,
        shown: people.map((p) => p.id),
      });
      return found(shown, total);
    });
  }

  @Open('anyone')
  @Header('content-type', FHIR_JSON)
  @Header('cache-control', 'no-store')
  @Get('Patient/:id')
  patient(@Req() request: Request, @Param('id', IdPipe) id: string): Promise<FhirResource> {
    return this.asked(request, async (tx, program) => {
      const resource = (await this.record(tx, program, id)).find((r) => r.resourceType === 'Patient');
      await audit(tx, program, { action: 'read', subject: 'record', personId: id });
      if (resource === undefined) throw notFound();
      return resource;
    });
  }

  /** The whole record. */
  @Open('anyone')
  @Header('content-type', FHIR_JSON)
  @Header('cache-control', 'no-store')
  @Get('Patient/:id/everything')
  everything(@Req() request: Request, @Param('id', IdPipe) id: string): Promise<Bundle> {
    return this.asked(request, async (tx, program) => {
      const resources = await this.record(tx, program, id);
      await audit(tx, program, { action: 'export', subject: 'record', personId: id });
      return found(resources, resources.length);
    });
  }

  /** Resources of one type of one person. */
  @Open('anyone')
  @Header('content-type', FHIR_JSON)
  @Header('cache-control', 'no-store')
  @Get(':type')
  search(
    @Req() request: Request,
    @Param('type') type: string,
    @Query('patient') patient?: string,
  ): Promise<Bundle | OperationOutcome> {
    return this.asked(request, async (tx, program) => {
      if (!(READABLE as readonly string[]).includes(type)) throw notFound();
      const id = new IdPipe().transform(String(patient).replace(/^Patient\//, ''));
      const own = (await this.record(tx, program, id)).filter((r) => r.resourceType === type);
      await audit(tx, program, { action: 'read', subject: 'record', personId: id });
      return found(own, own.length);
    });
  }

  private async record(tx: Tx, program: Program, id: string): Promise<FhirResource[]> {
    const sources = await this.gathering.of(tx, program.clinicId, id);
    return (writeBundle(sources, this.clock.now()).entry ?? []).flatMap((e) => e.resource ?? []);
  }

  /** In the clinic of the key that is shown; without one that stands nothing is. */
  private async asked<T>(request: Request, work: (tx: Tx, program: Program) => Promise<T>): Promise<T> {
    const token = KEY.exec(request.headers.authorization ?? '')?.[1];
    const row =
      token === undefined
        ? null
        : await this.db.lookUp<{ id: string; clinic_id: string; created_by: string }>(
            'SELECT * FROM find_program($1, $2)',
            [hashToken(token), this.clock.now()],
          );
    if (row === null)
      throw new ProblemError(401, 'A key of the clinic is wanted', { detail: 'Authorization: Bearer KEY' });
    const program: Program = { id: row.id, clinicId: row.clinic_id, userId: row.created_by, kind: 'program' };
    return this.db.inClinic(row.clinic_id, async (tx) => {
      await tx.update(ProgramKey, { id: row.id }, { usedAt: this.clock.now() });
      return work(tx, program);
    });
  }
}
