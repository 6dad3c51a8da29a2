import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { basename, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv';
import { YAMLException } from 'js-yaml';
import { completeProtocol, CRITERION_SCHEMA, type WrittenProtocol } from '@heathstep/core';
import { type ContentBundle, ContentProblem } from './bundle.js';
import { expandExercise, type WrittenExercise } from './expandExercise.js';
import { readBuilt, writeBuilt } from './builtContent.js';
import { crossCheck } from './crossCheck.js';
import { expandMeasure, type WrittenMeasure } from './expandMeasure.js';
import { type LanguagePart, mergeLanguages } from './languages.js';
import { readYaml } from './readYaml.js';
import { TAG_SCHEMA } from './tagSchema.js';
import { type ForeignCodes, strayCodes } from './codes.js';
import { wrongLetters } from './letters.js';
import { strayTerms, type TermsPart, withTerms } from './terms.js';
import {
  expandCondition,
  expandDriver,
  expandFinding,
  type WrittenCondition,
  type WrittenDriver,
  type WrittenFinding,
} from './expand.js';

export type LoadResult =
  | { readonly ok: true; readonly content: ContentBundle }
  | { readonly ok: false; readonly problems: readonly ContentProblem[] };

const PACKAGE = fileURLToPath(new URL('..', import.meta.url));
const KINDS = [
  'measures',
  'ladders',
  'exercises',
  'pathways',
  'safety',
  'protocols',
  'findings',
  'conditions',
  'drivers',
  'figures',
  'standIns',
  'skills',
  'stopSigns',
  'tissues',
  'routines',
  'languages',
  'terms',
  'codes',
  'letters',
] as const;
type Kind = (typeof KINDS)[number];

interface SourceFile {
  readonly kind: Kind;
  readonly file: string;
  readonly value: unknown;
}

function told(error: ErrorObject): string {
  if (error.keyword === 'additionalProperties')
    return `unknown field ${String(error.params['additionalProperty'])}`;
  if (error.keyword === 'enum')
    return `must be one of ${(error.params['allowedValues'] as unknown[]).join(', ')}`;
  return error.message ?? error.keyword;
}

/** What a file says, or what is wrong with it. */
type Said =
  | { readonly value: unknown }
  | { readonly wrong: readonly { readonly at: string; readonly reason: string }[] };

/** Files of the same text, checked by the same schema, say the same. */
const said = new WeakMap<ValidateFunction, Map<string, Said>>();

function readChecked(text: string, validate: ValidateFunction): Said {
  try {
    const value: unknown = readYaml(text);
    if (validate(value)) return { value };
    return { wrong: (validate.errors ?? []).map((e) => ({ at: e.instancePath, reason: told(e) })) };
  } catch (error) {
    if (!(error instanceof YAMLException)) throw error;
    return { wrong: [{ at: `line ${(error.mark?.line ?? -1) + 1}`, reason: error.reason }] };
  }
}

function saidOf(text: string, validate: ValidateFunction): Said {
  const known = said.get(validate) ?? new Map<string, Said>();
  said.set(validate, known);
  const made = known.get(text) ?? readChecked(text, validate);
  known.set(text, made);
  return made;
}

function readKind(
  root: string,
  kind: Kind,
  validate: ValidateFunction,
  problems: ContentProblem[],
): SourceFile[] {
  const folder = join(root, 'data', kind);
  return readdirSync(folder)
    .filter((name) => name.endsWith('.yaml'))
    .sort()
    .flatMap((name) => {
      const file = relative(root, join(folder, name));
      const read = saidOf(readFileSync(join(folder, name), 'utf8'), validate);
      if ('value' in read) return [{ kind, file, value: read.value }];
      for (const { at, reason } of read.wrong) problems.push(new ContentProblem(file, at, reason));
      return [];
    });
}

function deepFreeze<T>(value: T): T {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    for (const inner of Object.values(value)) deepFreeze(inner);
  }
  return value;
}

const compiled = new Map<string, ValidateFunction>();

/** The check of a kind by the schemas of a folder; a schema of the same text is compiled once. */
function validatorOf(root: string, kind: Kind): ValidateFunction {
  const read = (name: string) => readFileSync(join(root, 'schemas', `${name}.schema.json`), 'utf8');
  const [own, sign] = [read(kind), read('sign')];
  const text = `${own}\n${sign}`;
  const made = compiled.get(text);
  if (made !== undefined) return made;
  const ajv = new Ajv({ allErrors: true, allowUnionTypes: true });
  ajv.addSchema(TAG_SCHEMA);
  ajv.addSchema(CRITERION_SCHEMA);
  ajv.addSchema(JSON.parse(sign) as object);
  const validate = ajv.compile(JSON.parse(own) as object);
  compiled.set(text, validate);
  return validate;
}

/** Loads, checks and freezes the content below a folder holding `data/` and `schemas/`. Every problem is reported, not only the first. */
export function loadContentFrom(root: string): LoadResult {
  const problems: ContentProblem[] = [];
  const files = KINDS.flatMap((kind) => readKind(root, kind, validatorOf(root, kind), problems));
  const list = (kind: Kind): unknown[] =>
    files.filter((f) => f.kind === kind).flatMap((f) => f.value as unknown[]);
  const safety = files
    .filter((f) => f.kind === 'safety')
    .map(
      (f) =>
        f.value as { questions: unknown[]; rules: unknown[]; footRisk?: unknown[]; bodyParts?: unknown[] },
    );
  const terms = list('terms') as TermsPart[];
  const findings = withTerms(
    files
      .filter((f) => f.kind === 'findings')
      .flatMap((f) => (f.value as WrittenFinding[]).map((w) => expandFinding(w, basename(f.file, '.yaml')))),
    'finding',
    terms,
  );
  const exercises = withTerms(
    (list('exercises') as WrittenExercise[]).map(expandExercise),
    'exercise',
    terms,
  );
  const aimOf = (key: string) => exercises.find((e) => e.key === key)?.aim ?? 'skill';
  const parts = {
    measures: withTerms((list('measures') as WrittenMeasure[]).map(expandMeasure), 'measure', terms),
    ladders: list('ladders'),
    exercises,
    pathways: list('pathways'),
    bodyParts: safety.flatMap((s) => s.bodyParts ?? []),
    safetyQuestions: safety.flatMap((s) => s.questions),
    safetyRules: safety.flatMap((s) => s.rules),
    protocols: (list('protocols') as WrittenProtocol[]).map((p) => completeProtocol(p, aimOf)),
    findings,
    figures: list('figures'),
    standIns: list('standIns'),
    skills: list('skills'),
    stopSigns: list('stopSigns'),
    tissues: list('tissues'),
    routines: list('routines'),
    letters: list('letters'),
    footRisk: safety.flatMap((s) => s.footRisk ?? []),
    conditions: withTerms(
      (list('conditions') as WrittenCondition[]).map(expandCondition),
      'condition',
      terms,
    ),
    drivers: withTerms((list('drivers') as WrittenDriver[]).map(expandDriver), 'driver', terms),
  };
  const version = createHash('sha256').update(JSON.stringify(parts)).digest('hex').slice(0, 12);
  const languages = mergeLanguages(list('languages') as LanguagePart[]);
  const codes = files.find((f) => f.kind === 'codes')?.value as ForeignCodes | undefined;
  const content = { version, ...parts, languages, codes } as unknown as ContentBundle;
  if (codes === undefined) problems.push(new ContentProblem('codes', '', 'there is no file of codes'));
  if (problems.length === 0)
    problems.push(
      ...crossCheck(content),
      ...strayTerms(terms, {
        measure: content.measures,
        finding: content.findings,
        condition: content.conditions,
        exercise: content.exercises,
        driver: content.drivers,
      }).map((reason) => new ContentProblem('terms', '', reason)),
      ...strayCodes(content.codes, content).map((reason) => new ContentProblem('codes', '', reason)),
      ...wrongLetters(content.letters).map((reason) => new ContentProblem('letters', '', reason)),
    );
  return problems.length > 0 ? { ok: false, problems } : { ok: true, content: deepFreeze(content) };
}

/** The shipped content: as a build left it, where nothing changed since; else read, checked and completed anew. */
export function loadContent(): LoadResult {
  const built = readBuilt(PACKAGE);
  return built === null ? loadContentFrom(PACKAGE) : { ok: true, content: deepFreeze(built) };
}

/** Checks the shipped content and leaves it for every start to come. Throws what is wrong with it. */
export function buildContent(): void {
  const loaded = loadContentFrom(PACKAGE);
  if (!loaded.ok) throw new Error(loaded.problems.map(String).join('\n'));
  writeBuilt(PACKAGE, loaded.content);
}
