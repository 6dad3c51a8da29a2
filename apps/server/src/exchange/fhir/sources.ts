import type { ContentBundle } from '@heathstep/content';
import type { MeasureDefinition, ProtocolDefinition } from '@heathstep/core';
import type { Library } from '../../content/library.js';
import type { PersonRows, Row } from '../tables.js';

/** A member of staff who wrote something of a record. */
export interface Author {
  readonly id: string;
  readonly name: string;
  readonly registration: string | null;
}

/** What of a clinic's own content a record hangs on, as its rows. */
export interface OwnContent {
  readonly clinic_exercise: readonly Row[];
  readonly clinic_measure: readonly Row[];
  readonly protocol_version: readonly Row[];
}

export const OWN_CONTENT_TABLES = ['clinic_exercise', 'clinic_measure', 'protocol_version'] as const;

/** All that a bundle is written from. */
export interface Sources {
  readonly rows: PersonRows;
  readonly authors: readonly Author[];
  readonly ownContent: OwnContent;
  readonly clinic: {
    readonly id: string;
    readonly name: string;
    readonly phone: string;
    readonly timeZone: string;
  };
  readonly bundle: ContentBundle;
  readonly measures: readonly MeasureDefinition[];
  readonly library: Library;
  readonly protocolOf: (episode: Row) => ProtocolDefinition;
}

/** A column that may be empty; numbers as their digits. */
export function maybe(row: Row, column: string): string | undefined {
  const value = row[column];
  return typeof value === 'string' ? value : typeof value === 'number' ? String(value) : undefined;
}

/** A column that is text; nothing where it is empty. */
export const text = (row: Row, column: string): string => maybe(row, column) ?? '';

/** Fields that have a value: FHIR knows no null. */
export function filled<T extends object>(fields: T): T {
  return Object.fromEntries(
    Object.entries(fields).filter(
      ([, v]) => v !== undefined && v !== null && v !== '' && !(Array.isArray(v) && v.length === 0),
    ),
  ) as T;
}
