import { applyDecorators, Header } from '@nestjs/common';
import { stringify } from 'csv-stringify/sync';

/** A route that answers with a table (RFC 4180) to be kept as a file. */
export const AsTable = (name: string): MethodDecorator =>
  applyDecorators(
    Header('content-type', 'text/csv; charset=utf-8'),
    Header('content-disposition', `attachment; filename="${name}.csv"`),
    Header('cache-control', 'no-store'),
  );

/** Rows under their heads; a text that a sheet would work out is kept from it. */
export const tableOf = (heads: readonly string[], rows: readonly (readonly unknown[])[]): string =>
  stringify([[...heads], ...rows.map((r) => [...r])], { escape_formulas: true });
