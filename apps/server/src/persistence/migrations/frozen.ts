import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What others refer to; each reference then names the clinic too, so that none can lead into another one. */
const REFERRED = ['app_user', 'person', 'episode', 'visit', 'plan', 'home_link', 'photo'] as const;

interface ForeignKey {
  readonly name: string;
  readonly child: string;
  readonly col: string;
  readonly parent: string;
}

const FOREIGN_KEYS = `
SELECT c.conname AS name, c.conrelid::regclass::text AS child, a.attname AS col, c.confrelid::regclass::text AS parent
  FROM pg_constraint c JOIN pg_attribute a ON a.attrelid = c.conrelid AND a.attnum = c.conkey[1]
 WHERE c.contype = 'f' AND c.connamespace = 'public'::regnamespace AND cardinality(c.conkey) = 1
   AND c.confrelid::regclass::text = ANY($1)`;

/** Only the application is held: the owner prepares what the demo shows. */
const guard = (app: string, table: string, when: string, body: string): string => `
CREATE FUNCTION ${table}_stands() RETURNS trigger LANGUAGE plpgsql SET search_path = pg_catalog, public AS $$
BEGIN
  IF current_user <> '${app}' THEN RETURN coalesce(NEW, OLD); END IF;
  ${body}
  RETURN coalesce(NEW, OLD);
END $$;
CREATE TRIGGER ${table}_stands BEFORE ${when} ON ${table} FOR EACH ROW EXECUTE FUNCTION ${table}_stands();`;

const refuse = (what: string): string => `RAISE EXCEPTION '${what}' USING ERRCODE = 'restrict_violation';`;

const signed = 'EXISTS (SELECT 1 FROM public.visit v WHERE v.id = NEW.visit_id AND v.signed_at IS NOT NULL)';

/** A given plan, a signed visit and what was taken in it stand by the database too; and no row refers to another clinic's. */
export class Frozen1765800000000 implements MigrationInterface {
  name = 'Frozen1765800000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const table of REFERRED)
      await runner.query(`CREATE UNIQUE INDEX ${table}_of_clinic ON ${table} (clinic_id, id)`);
    const keys = (await runner.query(FOREIGN_KEYS, [REFERRED])) as ForeignKey[];
    for (const { name, child, col, parent } of keys)
      await runner.query(`ALTER TABLE ${child} DROP CONSTRAINT "${name}",
        ADD CONSTRAINT "${name}" FOREIGN KEY (clinic_id, ${col}) REFERENCES ${parent} (clinic_id, id)`);
    const [{ role }] = (await runner.query(`SELECT current_setting('heathstep.app_role') AS role`)) as [
      { role: string },
    ];
    const app = role.replaceAll("'", "''");
    await runner.query(
      [
        guard(
          app,
          'plan',
          'UPDATE OR DELETE',
          `IF OLD.status = 'given' THEN ${refuse('a plan that was given does not change')} END IF;`,
        ),
        guard(
          app,
          'visit',
          'UPDATE OR DELETE',
          `IF OLD.signed_at IS NOT NULL THEN ${refuse('a signed visit does not change')} END IF;`,
        ),
        guard(
          app,
          'visit_entry',
          'INSERT',
          `IF NEW.reason IS NULL AND ${signed} THEN ${refuse('a signed visit is amended with a reason')} END IF;`,
        ),
        guard(
          app,
          'photo',
          'INSERT',
          `IF ${signed} THEN ${refuse('a signed visit takes no picture')} END IF;`,
        ),
      ].join('\n'),
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['plan', 'visit', 'visit_entry', 'photo'])
      await runner.query(`DROP TRIGGER ${table}_stands ON ${table}; DROP FUNCTION ${table}_stands();`);
    const keys = (await runner.query(
      FOREIGN_KEYS.replace('cardinality(c.conkey) = 1', 'cardinality(c.conkey) = 2').replace(
        'conkey[1]',
        'conkey[2]',
      ),
      [REFERRED],
    )) as ForeignKey[];
    for (const { name, child, col, parent } of keys)
      await runner.query(`ALTER TABLE ${child} DROP CONSTRAINT "${name}",
        ADD CONSTRAINT "${name}" FOREIGN KEY (${col}) REFERENCES ${parent} (id)`);
    for (const table of REFERRED) await runner.query(`DROP INDEX ${table}_of_clinic`);
  }
}
