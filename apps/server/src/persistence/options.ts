import type { DataSourceOptions } from 'typeorm';
import { ENTITIES } from './entities.js';
import { Accounts1765500000000 } from './migrations/accounts.js';
import { DayWork1766100000000 } from './migrations/dayWork.js';
import { Bench1764100000000 } from './migrations/bench.js';
import { ClinicProtocols1764800000000 } from './migrations/clinicProtocols.js';
import { Ends1765000000000 } from './migrations/ends.js';
import { ExerciseTime1765100000000 } from './migrations/exerciseTime.js';
import { Initial1764000000000 } from './migrations/initial.js';
import { Language1764900000000 } from './migrations/language.js';
import { Library1764200000000 } from './migrations/library.js';
import { Frozen1765800000000 } from './migrations/frozen.js';
import { HomeOpen1765700000000 } from './migrations/homeOpen.js';
import { HomeScores1764400000000 } from './migrations/homeScores.js';
import { Marks1766000000000 } from './migrations/marks.js';
import { OneOfEach1765600000000 } from './migrations/oneOfEach.js';
import { Protocols1764500000000 } from './migrations/protocols.js';
import { Questions1766200000000 } from './migrations/questions.js';
import { ClinicDefaults1767300000000 } from './migrations/clinicDefaults.js';
import { CameBack1766300000000 } from './migrations/cameBack.js';
import { MeasurementTables1767500000000 } from './migrations/measurementTables.js';
import { Letters1767100000000 } from './migrations/letters.js';
import { LabCaptures1766500000000 } from './migrations/labCaptures.js';
import { Consents1767400000000 } from './migrations/consents.js';
import { CourseEvents1766400000000 } from './migrations/courseEvents.js';
import { Routines1765400000000 } from './migrations/routines.js';
import { Safety1764300000000 } from './migrations/safety.js';
import { AuditSeals1766700000000 } from './migrations/auditSeals.js';
import { SecondStep1766800000000 } from './migrations/secondStep.js';
import { Outings1767200000000 } from './migrations/outings.js';
import { Passkeys1767600000000 } from './migrations/passkeys.js';
import { PeopleTables1767000000000 } from './migrations/tables.js';
import { Exchange1766900000000 } from './migrations/exchange.js';
import { Staff1766600000000 } from './migrations/staff.js';
import { Sealed1765900000000 } from './migrations/sealed.js';

/** Connection options; the schema comes from migrations only, never from the entities. */
export const databaseOptions = (url: string): DataSourceOptions => ({
  type: 'postgres',
  url,
  entities: ENTITIES,
  migrations: [
    Initial1764000000000,
    Bench1764100000000,
    Library1764200000000,
    Safety1764300000000,
    HomeScores1764400000000,
    Protocols1764500000000,
    ClinicProtocols1764800000000,
    Language1764900000000,
    Ends1765000000000,
    ExerciseTime1765100000000,
    Routines1765400000000,
    Accounts1765500000000,
    OneOfEach1765600000000,
    HomeOpen1765700000000,
    Frozen1765800000000,
    Sealed1765900000000,
    Marks1766000000000,
    DayWork1766100000000,
    Questions1766200000000,
    CameBack1766300000000,
    CourseEvents1766400000000,
    LabCaptures1766500000000,
    Staff1766600000000,
    AuditSeals1766700000000,
    SecondStep1766800000000,
    Exchange1766900000000,
    PeopleTables1767000000000,
    Letters1767100000000,
    Outings1767200000000,
    ClinicDefaults1767300000000,
    Consents1767400000000,
    MeasurementTables1767500000000,
    Passkeys1767600000000,
  ],
  migrationsTableName: 'migration',
  synchronize: false,
  logging: false,
  extra: { max: 10, options: '-c timezone=UTC' },
});

/**
 * How long the application waits for the database, in milliseconds: conventions, each shorter than the 15 s a browser
 * waits, so that a database that stands still is told as a 503 and not waited for without end. The migrations have no limit.
 */
const WAITS = {
  connect: 5_000,
  lock: 3_000,
  statement: 10_000,
  /** Counted here and not by the database, for one that does not answer at all. */
  answer: 12_000,
  idleInTransaction: 30_000,
};

/** The same connection with the limits the application works under. */
export const applicationOptions = (url: string): DataSourceOptions => ({
  ...databaseOptions(url),
  extra: {
    max: 10,
    connectionTimeoutMillis: WAITS.connect,
    query_timeout: WAITS.answer,
    options: [
      'timezone=UTC',
      `lock_timeout=${WAITS.lock}`,
      `statement_timeout=${WAITS.statement}`,
      `idle_in_transaction_session_timeout=${WAITS.idleInTransaction}`,
    ]
      .map((setting) => `-c ${setting}`)
      .join(' '),
  },
});
