import type { QueryRunner } from 'typeorm';

/** The clinic a transaction is in, as long as anyone could set it. */
export const UNSEALED = `nullif(current_setting('heathstep.clinic', true), '')::uuid`;

/** The clinic a transaction has entered; worked out once a statement, not once a row. */
export const SEALED = '(SELECT own_clinic())';

/** The statement that makes a clinic see and write its own rows of a table only. The clinics themselves are only seen. */
export function ownClinicPolicy(verb: 'CREATE' | 'ALTER', table: string, own: string): string {
  const using = `${verb} POLICY own_clinic ON ${table} USING`;
  return table === 'clinic'
    ? `${using} (id = ${own})`
    : `${using} (clinic_id = ${own}) WITH CHECK (clinic_id = ${own})`;
}

/** Shows each new table to its own clinic only, and gives the application its rights on it. Returns the quoted role. */
export async function grantOwnClinic(
  runner: QueryRunner,
  rightsByTable: Readonly<Record<string, string>>,
): Promise<string> {
  const [{ role, sealed }] = (await runner.query(
    `SELECT current_setting('heathstep.app_role') AS role, to_regprocedure('own_clinic()') IS NOT NULL AS sealed`,
  )) as [{ role: string; sealed: boolean }];
  const app = `"${role.replaceAll('"', '""')}"`;
  for (const [table, rights] of Object.entries(rightsByTable)) {
    await runner.query(`ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
        ${ownClinicPolicy('CREATE', table, sealed ? SEALED : UNSEALED)};
        GRANT ${rights} ON ${table} TO ${app};`);
  }
  return app;
}
