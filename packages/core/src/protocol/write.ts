import type { WrittenProtocol } from './complete.js';
import type { ProtocolDefinition } from './definition.js';

/** A protocol as it is exported and imported; the content's schema `protocolFile` checks it. */
export interface ProtocolFile {
  readonly format: 'heathstep protocol';
  readonly version: 1;
  readonly protocol: WrittenProtocol;
}

/** Of an object, all but what is null by default; what is null on purpose is named. */
function withoutNulls<T extends object>(value: T, keep: readonly string[] = []): T {
  return Object.fromEntries(Object.entries(value).filter(([k, v]) => v !== null || keep.includes(k))) as T;
}

/** A protocol as a file: which the content's check reads back as the same protocol. */
export function writeProtocol(protocol: ProtocolDefinition): ProtocolFile {
  return {
    format: 'heathstep protocol',
    version: 1,
    protocol: {
      ...withoutNulls(protocol, ['unableAt']),
      stages: protocol.stages.map((stage) => ({
        ...withoutNulls(stage, ['criteria']),
        adjuncts: stage.adjuncts.map((a) => withoutNulls(a)),
      })),
    },
  };
}
