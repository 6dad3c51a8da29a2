import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Ajv } from 'ajv';
import type { Draw, PersonFamily } from '@heathstep/core/simulate';
import type { ContentBundle } from './bundle.js';
import { readYaml } from './readYaml.js';

const PACKAGE = fileURLToPath(new URL('..', import.meta.url));
const KIND = 'simulated';

const isDraw = (value: unknown): value is Draw =>
  typeof value === 'object' && value !== null && 'mean' in value;

/** What does not hold of the families, in words; every protocol has people of exactly one. */
export function familyProblems(
  families: readonly PersonFamily[],
  content: Pick<ContentBundle, 'protocols'>,
): string[] {
  const known = content.protocols.map((p) => p.key);
  const named = families.flatMap((f) => f.protocols);
  const questions = new Set(content.protocols.flatMap((p) => p.home.map((q) => q.key)));
  return [
    ...named.filter((k) => !known.includes(k)).map((k) => `no protocol ${k}`),
    ...known.filter((k) => !named.includes(k)).map((k) => `nobody is simulated for ${k}`),
    ...named.filter((k, i) => named.indexOf(k) !== i).map((k) => `${k} has people of two families`),
    ...families.flatMap((f) =>
      Object.keys(f.answers)
        .filter((q) => !questions.has(q))
        .map((q) => `${f.key} answers ${q}, which nobody asks`),
    ),
    ...families.flatMap((f) =>
      Object.entries(f).flatMap(([key, value]) =>
        isDraw(value) && !(value.min <= value.mean && value.mean <= value.max)
          ? [`${f.key}.${key} has its mean out of its bounds`]
          : [],
      ),
    ),
  ];
}

/** Families of made-up people, checked. They are no part of what the application knows: no page and no rule reads them. */
export function loadFamilies(content: Pick<ContentBundle, 'protocols'>): readonly PersonFamily[] {
  const validate = new Ajv({ allErrors: true }).compile<PersonFamily[]>(
    JSON.parse(readFileSync(join(PACKAGE, 'schemas', `${KIND}.schema.json`), 'utf8')) as object,
  );
  const folder = join(PACKAGE, 'data', KIND);
  const families = readdirSync(folder)
    .filter((name) => name.endsWith('.yaml'))
    .sort()
    .flatMap((name) => {
      const value = readYaml(readFileSync(join(folder, name), 'utf8'));
      if (validate(value)) return value;
      throw new Error(
        `${KIND}/${name}: ${(validate.errors ?? []).map((e) => `${e.instancePath} ${e.message ?? ''}`).join('; ')}`,
      );
    });
  const problems = familyProblems(families, content);
  if (problems.length > 0) throw new Error(problems.join('\n'));
  return families;
}
