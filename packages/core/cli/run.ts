import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv';
import { FUNCTIONS } from './functions.js';
import { type FunctionName, SCHEMAS, SHARED } from './schemas.js';

export interface RunResult {
  readonly exitCode: 0 | 2;
  readonly stdout: string;
  readonly stderr: string;
}

const NAMES = Object.keys(SCHEMAS) as FunctionName[];

const fail = (...lines: string[]): RunResult => ({
  exitCode: 2,
  stdout: '',
  stderr: `${lines.join('\n')}\n`,
});
const succeed = (value: unknown): RunResult => ({
  exitCode: 0,
  stdout: `${JSON.stringify(value, null, 2)}\n`,
  stderr: '',
});

function at(input: unknown, pointer: string): unknown {
  return pointer
    .split('/')
    .slice(1)
    .reduce<unknown>(
      (value, key) =>
        typeof value === 'object' && value !== null ? (value as Record<string, unknown>)[key] : undefined,
      input,
    );
}

const written = (value: unknown): string => {
  const text = JSON.stringify(value) ?? 'nothing';
  return text.length > 80 ? `${text.slice(0, 77)}...` : text;
};

function bound(error: ErrorObject): string {
  const p = error.params as Record<string, unknown>;
  switch (error.keyword) {
    case 'type':
      return `of type ${String(p['type'])}`;
    case 'enum':
      return `one of ${(p['allowedValues'] as unknown[]).map(String).join(', ')}`;
    case 'minimum':
    case 'maximum':
      return `${String(p['comparison'])} ${String(p['limit'])}`;
    case 'multipleOf':
      return `a multiple of ${String(p['multipleOf'])}`;
    case 'oneOf':
    case 'anyOf':
      return 'any of the forms in --schema';
    default:
      return error.message ?? error.keyword;
  }
}

function line(error: ErrorObject, input: unknown): string {
  const path = error.instancePath.slice(1).replaceAll('/', '.');
  const p = error.params as Record<string, unknown>;
  const child = (name: unknown) => [path, String(name)].filter((s) => s !== '').join('.');
  if (error.keyword === 'required') return `${child(p['missingProperty'])}: nothing is given, it must be`;
  if (error.keyword === 'additionalProperties')
    return `${child(p['additionalProperty'])}: is not a field of this function`;
  return `${path === '' ? 'input' : path}: ${written(at(input, error.instancePath))} is not ${bound(error)}`;
}

/** One line per place: where a choice of forms failed, only the choice itself is told. */
function lines(validate: ValidateFunction, input: unknown): string[] {
  const errors = validate.errors ?? [];
  const choices = errors
    .filter((e) => e.keyword === 'oneOf' || e.keyword === 'anyOf')
    .map((e) => `${e.schemaPath}/`);
  const told = errors.filter(
    (e) =>
      !choices.some((c) => e.schemaPath.startsWith(c)) && !e.schemaPath.startsWith('criterion.json/oneOf/'),
  );
  return [...new Set((told.length > 0 ? told : errors).map((e) => line(e, input)))];
}

const checks = new Map<FunctionName, ValidateFunction>();

/** The check of a function's input, made when it is first asked. */
function checkOf(name: FunctionName): ValidateFunction {
  const known = checks.get(name);
  if (known !== undefined) return known;
  const ajv = new Ajv({ allErrors: true, strict: false, multipleOfPrecision: 9 });
  for (const shared of SHARED) ajv.addSchema(shared);
  const made = ajv.compile(SCHEMAS[name].input);
  checks.set(name, made);
  return made;
}

function isName(name: string): name is FunctionName {
  return (NAMES as string[]).includes(name);
}

/**
 * Runs one function on JSON text. Good input: the output on stdout, unrounded, exit 0.
 * Bad input: a line a problem on stderr with path, value and bound, nothing on stdout, exit 2.
 */
export function run(args: readonly string[], stdin: () => string): RunResult {
  const wantsSchema = args.includes('--schema');
  const [name, ...more] = args.filter((a) => a !== '--schema');
  if (name === undefined) return succeed({ functions: NAMES });
  if (more.length > 0) return fail(`${more.join(' ')}: one function at a time`);
  if (!isName(name)) return fail(`function: ${written(name)} is not one of ${NAMES.join(', ')}`);
  if (wantsSchema) {
    const shared = Object.fromEntries(SHARED.map((s) => [String(s['$id']), s]));
    return succeed({ function: name, ...SCHEMAS[name], shared });
  }
  let input: unknown;
  try {
    input = JSON.parse(stdin());
  } catch (error) {
    return fail(`input: is not JSON (${error instanceof Error ? error.message : 'unreadable'})`);
  }
  const validate = checkOf(name);
  if (!validate(input)) return fail(...lines(validate, input));
  const result = FUNCTIONS[name](input as Record<string, unknown>);
  if (!result.ok)
    return fail(...result.issues.map((i) => `${i.path}: ${written(i.value)} is not ${i.bound}`));
  return succeed(result.value);
}
