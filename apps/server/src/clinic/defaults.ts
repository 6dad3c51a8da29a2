import { type ClinicDefaults, UNDECIDED } from '@heathstep/contracts';
import { type PainSchool, stricterSchool } from '@heathstep/core';
import type { Clinic } from '../persistence/entities.js';

/** What a clinic has decided, and where it has not what holds till then. */
export const defaultsOf = (clinic: Pick<Clinic, 'defaults'>): ClinicDefaults => ({
  ...UNDECIDED,
  ...clinic.defaults,
});

/** The pain rule that holds: the strictest of the stage's own, what a caution asks for, and what the clinic holds all to. */
export function painSchoolOn(
  clinic: Pick<Clinic, 'defaults'>,
  stage: PainSchool | undefined,
  asked: PainSchool | null,
): PainSchool {
  const { painSchool } = defaultsOf(clinic);
  return stricterSchool(
    stricterSchool(stage ?? 'next-morning', asked),
    painSchool === 'none' ? null : painSchool,
  );
}
