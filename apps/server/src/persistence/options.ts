import type { DataSourceOptions } from 'typeorm';
import { ENTITIES } from './entities.js';
import { Bench1764100000000 } from './migrations/bench.js';
import { ClinicProtocols1764800000000 } from './migrations/clinicProtocols.js';
import { Ends1765000000000 } from './migrations/ends.js';
import { ExerciseTime1765100000000 } from './migrations/exerciseTime.js';
import { Initial1764000000000 } from './migrations/initial.js';
import { Language1764900000000 } from './migrations/language.js';
import { Library1764200000000 } from './migrations/library.js';
import { HomeScores1764400000000 } from './migrations/homeScores.js';
import { Protocols1764500000000 } from './migrations/protocols.js';
import { Safety1764300000000 } from './migrations/safety.js';

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
  ],
  migrationsTableName: 'migration',
  synchronize: false,
  logging: false,
  extra: { max: 10, options: '-c timezone=UTC' },
});
