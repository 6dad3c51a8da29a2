import type { ProtocolDefinition } from '@heathstep/core';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsObject, IsUUID } from 'class-validator';
import { IsVersion } from './validators.js';

/** A draft of the clinic's own version of a protocol; `file` is checked like a shipped one. */
export class ProtocolDraftBody {
  /** How often the draft had been saved when it was read; 0 where there was none. */
  @IsVersion(0, 'must be the edition last read')
  edition!: number;

  @IsObject({ message: 'must be a protocol file' })
  file!: object;
}

export class ProtocolPublishBody {
  @IsVersion(1, 'must be the edition last read')
  edition!: number;
}

export class MovePeopleBody {
  @IsUUID(undefined, { each: true, message: 'must be complaints by their ids' })
  @ArrayMaxSize(500, { message: 'At most 500 at once' })
  @ArrayMinSize(1, { message: 'Choose at least one' })
  @IsArray()
  episodes!: string[];
}

/** Someone treated by a protocol, and what moving them to the version used now would change. */
export interface PersonOnProtocol {
  readonly episodeId: string;
  readonly name: string;
  /** `shipped 1`, `ours 2`. */
  readonly version: string;
  readonly stageName: string | null;
  /** Whether they are on the version used now. */
  readonly current: boolean;
  /** Why they cannot be moved as they are; null where they can. */
  readonly stays: string | null;
  /** Exercises a plan made anew would bring, and those it would not have any more. */
  readonly come: readonly string[];
  readonly gone: readonly string[];
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
