import type {
  Coding,
  CodeableConcept,
  DomainResource,
  Extension,
  Quantity,
  Reference,
  Resource,
} from 'fhir/r4.js';
import { createHash } from 'node:crypto';
import type { ForeignCode, ForeignCodes } from '@heathstep/content';
import type { Row } from '../tables.js';

/** Where names of our own stand; docs/exchange.md says what each means. */
export const OURS = 'https://heathstep.example/fhir';

const SYSTEMS = { loinc: 'http://loinc.org', snomed: 'http://snomed.info/sct' } as const;
const UCUM = 'http://unitsofmeasure.org';

export const RECORD = `${OURS}/record`;
const DIGEST = `${OURS}/digest`;

/** A code of our own. */
export const own = (list: string, code: string, display?: string): Coding => ({
  system: `${OURS}/${list}`,
  code,
  ...(display === undefined || display === '' ? {} : { display }),
});

const foreign = ({ system, code, display }: ForeignCode): Coding => ({
  system: SYSTEMS[system],
  code,
  display,
});

/** A concept by our own code, and by that of others where there is one. */
export const concept = (coding: Coding, also?: ForeignCode): CodeableConcept => ({
  coding: [...(also === undefined ? [] : [foreign(also)]), coding],
  ...(coding.display === undefined ? {} : { text: coding.display }),
});

const LATERALITY: Readonly<Record<string, ForeignCode>> = {
  left: { system: 'snomed', code: '7771000', display: 'Left' },
  right: { system: 'snomed', code: '24028007', display: 'Right' },
  both: { system: 'snomed', code: '51440002', display: 'Right and left' },
};

/** The foot and ankle of a side; undefined where it is of none. */
export function bodySite(side: unknown): CodeableConcept | undefined {
  const code = LATERALITY[String(side)];
  if (code === undefined) return undefined;
  return {
    coding: [foreign(code), own('side', String(side))],
    text: side === 'both' ? 'Both feet and ankles' : `${code.display} foot and ankle`,
  };
}

export const quantity = (value: number, unit: string, codes: ForeignCodes): Quantity => ({
  value,
  unit,
  system: UCUM,
  code: codes.units[unit] ?? `{${unit.replace(/[^a-z0-9]/gi, '')}}`,
});

export const ref = (type: string, id: unknown): Reference => ({ reference: `${type}/${String(id)}` });

/** Rows of ours as they stand, beside what others can read of them: what comes back is the same. */
export const records = (table: string, rows: readonly Row[]): Extension[] =>
  rows.map((row) => {
    const { bytes: _bytes, ...rest } = row;
    return {
      url: RECORD,
      extension: [
        { url: 'table', valueCode: table },
        { url: 'row', valueString: JSON.stringify(rest) },
      ],
    };
  });

/** The same value, the same text, in whatever order its fields stand. */
function canonical(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(canonical);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value)
      .filter(([, v]) => v !== undefined)
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([k, v]) => [k, canonical(v)]),
  );
}

/** SHA-256 of a resource without its digest, and without what servers on the way set by themselves. */
function digestOf(resource: DomainResource): string {
  const { meta: _meta, text: _text, ...rest } = resource;
  const extension = (rest.extension ?? []).filter((e: Extension | null) => e?.url !== DIGEST);
  return createHash('sha256')
    .update(JSON.stringify(canonical({ ...rest, extension })))
    .digest('base64');
}

/** A resource with its digest: whoever takes it back sees whether anything of it was changed on the way. */
export function sealed<R extends DomainResource>(resource: R): R {
  const plain = JSON.parse(JSON.stringify(resource)) as R;
  return {
    ...plain,
    extension: [...(plain.extension ?? []), { url: DIGEST, valueString: digestOf(plain) }],
  };
}

/** Whether a resource is as we wrote it: null where it is none of ours. */
export function isAsWritten(resource: DomainResource): boolean | null {
  const digest = resource.extension?.find((e: Extension | null) => e?.url === DIGEST)?.valueString;
  if (digest === undefined) return null;
  return digest === digestOf(resource);
}

/** Whether two resources say the same, in whatever order their fields stand. */
export const sameResource = (a: Resource, b: Resource): boolean =>
  JSON.stringify(canonical(a)) === JSON.stringify(canonical(b));
