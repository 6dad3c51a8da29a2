/** What schemas are written with. */
export type Schema = Readonly<Record<string, unknown>>;

export const object = (properties: Record<string, Schema>, optional: readonly string[] = []): Schema => ({
  type: 'object',
  additionalProperties: false,
  required: Object.keys(properties).filter((k) => !optional.includes(k)),
  properties,
});
export const open = (properties: Record<string, Schema>): Schema => ({
  type: 'object',
  required: Object.keys(properties),
  properties,
});
export const number: Schema = { type: 'number' };
export const text: Schema = { type: 'string' };
export const flag: Schema = { type: 'boolean' };
export const key: Schema = { type: 'string', minLength: 1 };
export const anyOf = (...values: unknown[]): Schema => ({ enum: values });
export const list = (items: Schema): Schema => ({ type: 'array', items });
export const orNull = (schema: Schema): Schema => ({ anyOf: [schema, { type: 'null' }] });
export const texts = list(text);
export const score: Schema = { type: 'integer', minimum: 0, maximum: 10 };
export const iso: Schema = {
  type: 'string',
  pattern: '^\\d{4}-\\d{2}-\\d{2}(T\\d{2}:\\d{2}(:\\d{2}(\\.\\d+)?)?(Z|[+-]\\d{2}:?\\d{2})?)?$',
};
