import { say } from '@heathstep/core';
import type { ProtocolDefinition } from '@heathstep/core';
import { badRequest } from '../http/problem.js';

/** Refuses choices that a protocol does not have, each by its question. */
export function checkSchools(
  protocol: Pick<ProtocolDefinition, 'schools'>,
  schools: Record<string, string> | undefined,
): void {
  for (const [question, option] of Object.entries(schools ?? {})) {
    const school = protocol.schools.find((s) => s.key === question);
    if (school?.options.every((o) => o.key !== option) ?? true) {
      throw badRequest([
        { pointer: `/schools/${question}`, detail: say('must be a choice of this protocol') },
      ]);
    }
  }
}
