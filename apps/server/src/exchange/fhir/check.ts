import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import {
  entryProblem,
  type HomeEntryBody,
  isLetterContent,
  isLetterText,
  PlanItem,
} from '@heathstep/contracts';
import type { ContentBundle } from '@heathstep/content';
import { say } from '@heathstep/core';
import { takenProblem } from '../../home/payload.js';
import type { FieldError } from '../../http/problem.js';
import type { RecordTableName, Row } from '../tables.js';
import type { ReadBundle } from './read.js';

/** What every way into the record asks of a row: what may stand in an entry, a dose, a day at home. */
const CHECKS: Partial<Record<RecordTableName, (row: Row, bundle: ContentBundle) => string | null>> = {
  visit_entry: (row) => {
    const wants = entryProblem(String(row['key']), row['value'] ?? null);
    return wants === null ? null : say('{{key}} must be {{wants}}', { key: String(row['key']), wants });
  },
  episode: (row, bundle) => {
    const key = String(row['condition']);
    return bundle.pathways.some((p) => p.key === key)
      ? null
      : say('{{key}} is no complaint this version knows', { key });
  },
  plan: ({ items }) => {
    const fine =
      Array.isArray(items) &&
      items.length <= 12 &&
      items.every((i) => validateSync(plainToInstance(PlanItem, i) as object).length === 0);
    return fine ? null : say('an exercise of the plan cannot be read');
  },
  letter: ({ text, content }) =>
    isLetterText(text) && (content === null || isLetterContent(content))
      ? null
      : say('the letter cannot be read'),
  home_entry: (row) => takenProblem(row as unknown as HomeEntryBody),
};

/** What of the rows of a bundle cannot stand here, by the path of its entry. */
export const rowProblems = (read: ReadBundle, bundle: ContentBundle): FieldError[] =>
  (Object.keys(CHECKS) as RecordTableName[]).flatMap((table) =>
    read.rows[table].flatMap((row) => {
      const detail = CHECKS[table]?.(row, bundle) ?? null;
      return detail === null ? [] : [{ pointer: read.pathOf.get(row) ?? '/entry', detail }];
    }),
  );
