import type { QueryRunner } from 'typeorm';

/** Shows each new table to its own clinic only, and gives the application its rights on it. Returns the quoted role. */
export async function grantOwnClinic(
  runner: QueryRunner,
  rightsByTable: Readonly<Record<string, string>>,
): Promise<string> {
  const [{ role }] = (await runner.query(`SELECT current_setting('heathstep.app_role') AS role`)) as [
    { role: string },
  ];
  const app = `"${role.replaceAll('"', '""')}"`;
  for (const [table, rights] of Object.entries(rightsByTable)) {
    await runner.query(`ALTER TABLE ${table} ENABLE ROW LEVEL SECURITY;
        CREATE POLICY own_clinic ON ${table}
          USING (clinic_id = nullif(current_setting('heathstep.clinic', true), '')::uuid)
          WITH CHECK (clinic_id = nullif(current_setting('heathstep.clinic', true), '')::uuid);
        GRANT ${rights} ON ${table} TO ${app};`);
  }
  return app;
}
