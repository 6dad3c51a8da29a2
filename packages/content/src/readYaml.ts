import { CORE_SCHEMA, load, mergeTag } from 'js-yaml';

/** YAML 1.2 with `<<`, so that what many entries share is written once. */
const SCHEMA = CORE_SCHEMA.withTags(mergeTag);

/** Reads a YAML text. Throws the parser's own exception, with line, on bad text. */
export const readYaml = (text: string): unknown => load(text, { schema: SCHEMA });
