import type { ContentBundle } from '@heathstep/content';
import {
  completeProtocol,
  NO_PROTOCOL,
  type ProtocolDefinition,
  type WrittenProtocol,
} from '@heathstep/core';
import type { Tx } from '../persistence/db.js';
import { ProtocolVersion } from '../persistence/entities.js';

/** Which protocol an episode is on, in the version it began with. */
export interface OnProtocol {
  readonly protocol: string;
  readonly protocolVersion: number;
}

const idOf = (key: string, version: number): string => `${key} ${version}`;

/** The protocols of a clinic's episodes, each as it stood when it was first used there. */
export class Protocols {
  private constructor(
    private readonly bundle: ContentBundle,
    private readonly kept: ReadonlyMap<string, ProtocolDefinition>,
  ) {}

  static async of(bundle: ContentBundle, tx: Tx): Promise<Protocols> {
    const rows = await tx.find(ProtocolVersion);
    const aimOf = (key: string) => bundle.exercises.find((e) => e.key === key)?.aim ?? 'skill';
    // One kept by an earlier version of the application may say less than is read of it now.
    const kept = (r: ProtocolVersion) => completeProtocol(r.definition as WrittenProtocol, aimOf);
    return new Protocols(bundle, new Map(rows.map((r) => [idOf(r.key, r.version), kept(r)])));
  }

  /** The version an episode is on; as it is shipped now where that version was never kept. */
  on({ protocol, protocolVersion }: OnProtocol): ProtocolDefinition {
    if (protocol === '') return NO_PROTOCOL;
    const found =
      this.kept.get(idOf(protocol, protocolVersion)) ?? this.bundle.protocols.find((p) => p.key === protocol);
    if (found === undefined) throw new Error(`There is no protocol ${protocol}`);
    return found;
  }
}

/** Keeps a protocol as it stands now; a version once kept never changes. */
export async function keepProtocol(
  tx: Tx,
  clinicId: string,
  definition: ProtocolDefinition,
  at: Date,
): Promise<void> {
  if (definition.key === '') return;
  await tx
    .createQueryBuilder()
    .insert()
    .into(ProtocolVersion)
    .values({
      clinicId,
      key: definition.key,
      version: definition.version,
      definition: { ...definition },
      keptAt: at,
    })
    .orIgnore()
    .execute();
}
