import type { ProtocolDefinition } from '@heathstep/core';
import { IsInt, IsObject, Min } from 'class-validator';

/** A draft of the clinic's own version of a protocol; `file` is checked like a shipped one. */
export class ProtocolDraftBody {
  /** How often the draft had been saved when it was read; 0 where there was none. */
  @Min(0)
  @IsInt({ message: 'must be the edition last read' })
  edition!: number;

  @IsObject({ message: 'must be a protocol file' })
  file!: object;
}

export class ProtocolPublishBody {
  @Min(1)
  @IsInt({ message: 'must be the edition last read' })
  edition!: number;
}

/** One of the library's protocols, and what the clinic made of it. */
export interface ProtocolRow {
  readonly key: string;
  readonly name: string;
  /** Of the shipped one. */
  readonly version: number;
  readonly stages: readonly string[];
  /** Version of the clinic's own that is used for who begins now; null where the shipped one is. */
  readonly own: number | null;
  readonly draft: boolean;
  /** Open complaints treated by it. */
  readonly people: number;
}

/** A version of the clinic's own that was published. */
export interface PublishedProtocol {
  readonly version: number;
  /** Version of the shipped one it was made from. */
  readonly basedOn: number;
  readonly definition: ProtocolDefinition;
  readonly by: string;
  readonly signedBy: string;
  readonly signedAt: string;
}

export interface ProtocolView {
  readonly shipped: ProtocolDefinition;
  /** The newest; null while the shipped one is used. */
  readonly published: PublishedProtocol | null;
  readonly draft: {
    readonly edition: number;
    readonly version: number;
    readonly basedOn: number;
    readonly definition: ProtocolDefinition;
    readonly by: string;
    readonly at: string;
  } | null;
}
