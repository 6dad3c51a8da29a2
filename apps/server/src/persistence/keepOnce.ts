import { say } from '@heathstep/core';
import { isDeepStrictEqual } from 'node:util';
import type { EntityTarget, FindOptionsWhere, ObjectLiteral } from 'typeorm';
import { conflict, notFound } from '../http/problem.js';
import type { Tx } from './db.js';

/** A value as it comes back from the database. */
const plain = (value: unknown): unknown =>
  value === undefined ? null : (JSON.parse(JSON.stringify(value)) as unknown);

/**
 * Keeps a row under the id its sender chose. The same id with the same content is a repeat and changes nothing; anything else
 * under that id is a 409. An id of another clinic is not there.
 *
 * @param same what makes it the same, by field; what the server adds itself (who, when) does not count
 * @returns whether it is new
 */
export async function keepOnce<T extends ObjectLiteral & { id: string }>(
  tx: Tx,
  entity: EntityTarget<T>,
  row: T,
  same: readonly (keyof T & string)[],
): Promise<boolean> {
  const inserted = await tx
    .createQueryBuilder()
    .insert()
    .into(entity)
    .values(row)
    .orIgnore()
    .returning('id')
    .execute();
  if ((inserted.raw as unknown[]).length > 0) return true;
  const standing = await tx.findOneBy(entity, { id: row.id } as FindOptionsWhere<T>);
  if (standing === null) throw notFound();
  if (!same.every((field) => isDeepStrictEqual(plain(standing[field]), plain(row[field]))))
    throw conflict(say('This id has something else already. Nothing was kept'), null);
  return false;
}
