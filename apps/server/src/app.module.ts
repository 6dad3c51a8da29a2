import { type DynamicModule, Module } from '@nestjs/common';
import { APP_FILTER, APP_GUARD, APP_PIPE } from '@nestjs/core';
import { TypeOrmModule } from '@nestjs/typeorm';
import { LoggerModule } from 'nestjs-pino';
import { destination, type DestinationStream } from 'pino';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { AuditController } from './audit/audit.controller.js';
import { Sealing } from './audit/sealing.js';
import { AuthGuard } from './auth/auth.js';
import { OwnAccountController } from './auth/ownAccount.controller.js';
import { ByPassword } from './auth/byPassword.js';
import { PasskeysController } from './auth/passkeys.controller.js';
import { Sessions } from './auth/sessions.js';
import { SessionController } from './auth/session.controller.js';
import type { Config } from './config.js';
import { CalendarController } from './calendar/calendar.controller.js';
import { AccountLinksController } from './clinic/accountLinks.controller.js';
import { ClinicController } from './clinic/clinic.controller.js';
import { StaffController } from './clinic/staff.controller.js';
import { ErasureController } from './exchange/erasure.controller.js';
import { ExchangeController } from './exchange/exchange.controller.js';
import { FhirController } from './exchange/fhir.controller.js';
import { Gathering } from './exchange/fhir/gather.js';
import { MeasurementTableController } from './exchange/measurementTable.controller.js';
import { MeasurementsController } from './exchange/measurements.controller.js';
import { PeopleTableController } from './exchange/peopleTable.controller.js';
import { ProgramsController } from './exchange/programs.controller.js';
import { Content, ContentController, LanguageController } from './content/content.controller.js';
import { ContentListsController } from './content/lists.controller.js';
import { CourseController } from './course/course.controller.js';
import { EventsController } from './course/events.controller.js';
import { AppointmentsController } from './day/appointments.controller.js';
import { AsidesController } from './day/asides.controller.js';
import { DayController } from './day/day.controller.js';
import { Assessment } from './episodes/assessment.js';
import { DischargeController } from './discharge/discharge.controller.js';
import { EpisodesController } from './episodes/episodes.controller.js';
import { EpisodeReader } from './episodes/reader.js';
import { HandoutController } from './handout/handout.controller.js';
import { Printer } from './handout/render.js';
import { HealthController } from './health/health.controller.js';
import { HomeController } from './home/home.controller.js';
import { ProblemFilter } from './http/problem.js';
import { validationPipe } from './http/validation.js';
import { CapturesController } from './lab/captures.controller.js';
import { LetterPages } from './letters/letterPage.js';
import { LettersController } from './letters/letters.controller.js';
import { LetterTemplatesController } from './letters/templates.controller.js';
import { LibraryController } from './library/library.controller.js';
import { RoutinesController } from './library/routines.controller.js';
import { MovingPeople } from './library/movingPeople.js';
import { ProtocolsController } from './library/protocols.controller.js';
import { OutingsController } from './outings/outings.controller.js';
import { OutcomesController } from './outcomes/outcomes.controller.js';
import { MeasuresController } from './measures/measures.controller.js';
import { ConsentController } from './people/consent.controller.js';
import { MergeController } from './people/merge.controller.js';
import { PeopleController } from './people/people.controller.js';
import { Db } from './persistence/db.js';
import { applicationOptions } from './persistence/options.js';
import { PhotosController } from './photos/photos.controller.js';
import { PlanDrafts } from './plans/planDrafts.js';
import { PlansController } from './plans/plans.controller.js';
import { Clock } from './clock.js';
import { QuestionsController } from './questions/questions.controller.js';
import { Settings } from './settings.js';
import { VisitsController } from './visits/visits.controller.js';

const CONTROLLERS = [
  HealthController,
  SessionController,
  OwnAccountController,
  PasskeysController,
  AccountLinksController,
  ClinicController,
  StaffController,
  AuditController,
  ContentController,
  ContentListsController,
  LanguageController,
  DayController,
  AsidesController,
  AppointmentsController,
  PeopleController,
  ConsentController,
  MergeController,
  EpisodesController,
  VisitsController,
  PhotosController,
  CapturesController,
  MeasuresController,
  LibraryController,
  RoutinesController,
  ProtocolsController,
  PlansController,
  CourseController,
  EventsController,
  OutingsController,
  HomeController,
  QuestionsController,
  OutcomesController,
  HandoutController,
  DischargeController,
  LettersController,
  LetterTemplatesController,
  CalendarController,
  ExchangeController,
  ErasureController,
  ProgramsController,
  PeopleTableController,
  MeasurementsController,
  MeasurementTableController,
  FhirController,
];

/** Where the log goes. A log that cannot be written, on a full disk say, is no reason to stop: the records may well be. */
function logStream(): DestinationStream {
  const stream = destination({ dest: 1, sync: true });
  stream.on('error', () => undefined);
  return stream;
}

/** Only the method, the path without its query, the status and the time: nothing of who or what. */
const logging = (level: string) =>
  LoggerModule.forRoot({
    pinoHttp: [
      {
        level,
        autoLogging: {
          ignore: (request: IncomingMessage) =>
            !(request.url ?? '').startsWith('/api/') || (request.url ?? '') === '/api/health',
        },
        serializers: {
          req: (request: { method: string; url: string }) => ({
            method: request.method,
            path: request.url.split('?')[0],
          }),
          res: (response: ServerResponse) => ({ status: response.statusCode }),
          err: (error: { type?: string }) => ({ type: error.type }),
        },
        quietReqLogger: true,
      },
      logStream(),
    ],
  });

@Module({})
export class AppModule {
  static with(config: Config): DynamicModule {
    return {
      module: AppModule,
      imports: [logging(config.logLevel), TypeOrmModule.forRoot(applicationOptions(config.databaseUrl))],
      controllers: CONTROLLERS,
      providers: [
        { provide: Settings, useValue: new Settings(config) },
        Db,
        Content,
        EpisodeReader,
        Assessment,
        Printer,
        Sessions,
        ByPassword,
        LetterPages,
        Gathering,
        PlanDrafts,
        MovingPeople,
        Clock,
        Sealing,
        { provide: APP_GUARD, useClass: AuthGuard },
        { provide: APP_FILTER, useClass: ProblemFilter },
        { provide: APP_PIPE, useFactory: validationPipe },
      ],
    };
  }
}
