import {
  DATE_ORDERS,
  type DateOrder,
  type MeasurementColumns,
  type MeasurementLine,
  type TableLine,
} from '@heathstep/core';
import { IsBoolean, IsIn, IsString, Length, Matches } from 'class-validator';
import { MayBeLeftOut } from './validators.js';

/** The largest bundle that is taken, in bytes. [convention] */
export const BUNDLE_BYTES = 64_000_000;

/** What a file would bring, before anything of it is taken. */
export interface BroughtView {
  readonly name: string;
  readonly birthDate: string | null;
  /** Written by this application: it comes back as it was. */
  readonly ours: boolean;
  /** What is there, by kind: complaints, visits, measures and so on. */
  readonly counts: Readonly<Record<BroughtKind, number>>;
  /** What has no place here and is kept as it came, by type of resource. */
  readonly kept: Readonly<Record<string, number>>;
  /** The person whose record this is and who is here already; null where it can be taken. */
  readonly here: string | null;
  /** People of the clinic who may be the same. */
  readonly alike: readonly {
    readonly id: string;
    readonly name: string;
    readonly birthDate: string | null;
  }[];
}

export type BroughtKind = 'complaints' | 'visits' | 'entries' | 'plans' | 'decisions' | 'home' | 'pictures';

/** What came from elsewhere and is kept as it came. */
export interface KeptView {
  readonly id: string;
  readonly type: string;
  readonly at: string;
  readonly by: string;
  readonly resource: Readonly<Record<string, unknown>>;
}

export class EraseBody {
  /** The name as it stands, typed again. */
  @Length(1, 120, { message: 'Type the name as it stands' })
  @IsString({ message: 'Type the name as it stands' })
  name!: string;

  @Matches(/\S/, { message: 'Say why, and who decided it' })
  @Length(5, 500, { message: 'Say why, in 5 to 500 characters' })
  @IsString({ message: 'Say why, and who decided it' })
  reason!: string;

  /** It was decided to erase before the usual term is over. */
  @MayBeLeftOut()
  @IsBoolean({ message: 'must be yes or no' })
  early?: boolean;
}

/** When a record may be erased. */
export interface KeptUntilView {
  readonly lastContact: string;
  /** The first day by the usual term. */
  readonly until: string;
  readonly over: boolean;
}

/** That a record is gone; nothing of what it was. */
export interface ErasureView {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly reason: string;
  /** How many rows of the database were taken away. */
  readonly rows: number;
}

export class ProgramBody {
  @Matches(/\S/, { message: 'Name the program' })
  @Length(1, 80, { message: 'Name the program, in up to 80 characters' })
  @IsString({ message: 'Name the program' })
  name!: string;
}

/** A key by which another program reads the records. */
export interface ProgramView {
  readonly id: string;
  readonly name: string;
  readonly by: string;
  readonly createdAt: string;
  readonly until: string;
  readonly usedAt: string | null;
  readonly revokedAt: string | null;
}

/** Shown once. */
export interface ProgramMade {
  readonly program: ProgramView;
  readonly token: string;
}

/** The largest table that is taken, in bytes. [convention] */
export const TABLE_BYTES = 8_000_000;

const COLUMN = /^\d{1,2}$/;
const COLUMN_WORDS = 'must be the number of a column';

/** Which column of a table is what. */
export class PeopleTableQuery {
  /** In which order dates are written. */
  @IsIn(DATE_ORDERS, { message: 'must be dmy, mdy or ymd' })
  order!: DateOrder;

  /** Whether those are taken too whose name is here with a date of birth that is not known on one side. */
  @IsIn(['take', 'leave'], { message: 'must be take or leave' })
  alike!: 'take' | 'leave';

  @Matches(COLUMN, { message: COLUMN_WORDS }) @IsString({ message: COLUMN_WORDS }) name!: string;
  @MayBeLeftOut()
  @Matches(COLUMN, { message: COLUMN_WORDS })
  @IsString({ message: COLUMN_WORDS })
  family?: string;
  @MayBeLeftOut()
  @Matches(COLUMN, { message: COLUMN_WORDS })
  @IsString({ message: COLUMN_WORDS })
  birthDate?: string;
  @MayBeLeftOut()
  @Matches(COLUMN, { message: COLUMN_WORDS })
  @IsString({ message: COLUMN_WORDS })
  occupation?: string;
  @MayBeLeftOut()
  @Matches(COLUMN, { message: COLUMN_WORDS })
  @IsString({ message: COLUMN_WORDS })
  sex?: string;
}

/** What a table of people would bring. */
export interface PeopleTableView {
  readonly heads: readonly string[];
  readonly counts: Readonly<Record<'new' | 'same' | 'alike' | 'wrong', number>>;
  /** The first lines, those that are wrong before all others. */
  readonly lines: readonly TableLine[];
}

/** A table of people that was taken. */
export interface PeopleImportView {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly file: string;
  readonly people: number;
  readonly undoneAt: string | null;
}

/** Which column of a table of measurements is what. */
export class MeasurementTableQuery implements Readonly<Partial<Record<keyof MeasurementColumns, string>>> {
  /** In which order dates are written. */
  @IsIn(DATE_ORDERS, { message: 'must be dmy, mdy or ymd' })
  order!: DateOrder;

  @Matches(COLUMN, { message: COLUMN_WORDS }) @IsString({ message: COLUMN_WORDS }) person!: string;
  @Matches(COLUMN, { message: COLUMN_WORDS }) @IsString({ message: COLUMN_WORDS }) day!: string;
  @Matches(COLUMN, { message: COLUMN_WORDS }) @IsString({ message: COLUMN_WORDS }) measure!: string;
  @Matches(COLUMN, { message: COLUMN_WORDS }) @IsString({ message: COLUMN_WORDS }) value!: string;
  @MayBeLeftOut()
  @Matches(COLUMN, { message: COLUMN_WORDS })
  @IsString({ message: COLUMN_WORDS })
  birthDate?: string;
  @MayBeLeftOut()
  @Matches(COLUMN, { message: COLUMN_WORDS })
  @IsString({ message: COLUMN_WORDS })
  complaint?: string;
  @MayBeLeftOut()
  @Matches(COLUMN, { message: COLUMN_WORDS })
  @IsString({ message: COLUMN_WORDS })
  side?: string;
  @MayBeLeftOut()
  @Matches(COLUMN, { message: COLUMN_WORDS })
  @IsString({ message: COLUMN_WORDS })
  unit?: string;
}

/** What a table of measurements would bring. */
export interface MeasurementTableView {
  readonly heads: readonly string[];
  readonly counts: Readonly<Record<MeasurementLine['kind'], number>>;
  /** The first lines, those that are wrong before all others. */
  readonly lines: readonly MeasurementLine[];
}

/** A table of measurements that was taken. */
export interface MeasurementImportView {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly file: string;
  readonly lines: number;
  readonly undoneAt: string | null;
}
