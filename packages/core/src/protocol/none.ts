import type { Evidence } from '../why/evidence.js';
import { completeProtocol, completeStage } from './complete.js';
import type { ProtocolDefinition, Stage, StageKey } from './definition.js';

const NOTHING: Evidence = { statement: '', source: '', kind: 'convention', version: 1 };

/** Stands where a condition has no protocol yet: no stages, no schools, nothing prescribed. */
export const NO_PROTOCOL: ProtocolDefinition = completeProtocol(
  {
    key: '',
    name: '',
    version: 0,
    fromAge: 0,
    lookAgainWeeks: 6,
    referWeeks: 12,
    tissues: [],
    charts: [],
    usually: '',
    stages: [],
    evidence: NOTHING,
  },
  () => 'strength',
);

/** Stands where a plan's stage was never kept and its protocol has it no more: nothing to fill, nothing to progress to. */
export const lostStage = (key: StageKey): Stage =>
  completeStage(
    {
      key,
      name: key,
      purpose: { clinician: '', patient: '' },
      usualWeeks: { min: 0, max: 0 },
      minimumDays: 0,
      criteria: null,
      slots: [],
      painSchool: 'comfort',
      remeasure: [],
      leadingMeasure: '',
      evidence: NOTHING,
    },
    () => 'strength',
  );
