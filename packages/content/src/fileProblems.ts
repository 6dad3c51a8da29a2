import type { ErrorObject, ValidateFunction } from 'ajv';

/** What is wrong with a file, by a pointer into it. */
export interface FileProblem {
  readonly pointer: string;
  readonly detail: string;
}

function told(e: ErrorObject): string {
  if (e.keyword === 'additionalProperties') return `unknown field ${String(e.params['additionalProperty'])}`;
  if (e.keyword === 'required') return `${String(e.params['missingProperty'])} is missing`;
  if (e.keyword === 'enum') return `must be one of ${(e.params['allowedValues'] as unknown[]).join(', ')}`;
  if (e.keyword === 'const') return `must be ${String(e.params['allowedValue'])}`;
  if (e.keyword === 'minLength' || e.keyword === 'minItems') return 'is empty';
  return e.message ?? e.keyword;
}

/** What a schema finds wrong with a value that stands at a place of a file. */
export const wrong = (validate: ValidateFunction, value: unknown, under: string): FileProblem[] =>
  validate(value)
    ? []
    : (validate.errors ?? []).map((e) => ({ pointer: `${under}${e.instancePath}`, detail: told(e) }));
