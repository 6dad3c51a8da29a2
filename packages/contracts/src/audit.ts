import { phrase } from '@heathstep/core';
import { IsIn, IsUUID, Matches } from 'class-validator';
import { MayBeLeftOut } from './validators.js';

/** What was done, as it is told; whatever the log says has its words here. */
export const AUDIT_ACTION_WORDS = {
  read: phrase('looked at'),
  list: phrase('saw a list of'),
  print: phrase('printed'),
  export: phrase('exported'),
  'sign-in': phrase('signed in'),
  'sign-in-failed': phrase('tried to sign in, wrong password'),
  'sign-out': phrase('signed out'),
  'sign-out-elsewhere': phrase('signed out elsewhere'),
  create: phrase('added'),
  change: phrase('changed'),
  amend: phrase('amended'),
  give: phrase('gave'),
  decide: phrase('decided'),
  sign: phrase('signed'),
  send: phrase('noted as sent'),
  teach: phrase('taught'),
  discharge: phrase('closed'),
  close: phrase('closed a stop of'),
  override: phrase('set a stop aside of'),
  reopen: phrase('opened again'),
  remove: phrase('removed'),
  delete: phrase('threw away'),
  retire: phrase('took out of use'),
  revoke: phrase('took the key back of'),
  review: phrase('reviewed'),
  publish: phrase('published'),
  withdraw: phrase('withdrew'),
  move: phrase('moved people to'),
  ask: phrase('asked'),
  answer: phrase('answered'),
  'set-aside': phrase('set aside'),
  'take-back': phrase('took back'),
  leave: phrase('let leave'),
  choose: phrase('chose'),
  import: phrase('took from a file'),
  erase: phrase('erased'),
  merge: phrase('brought together with another'),
  unmerge: phrase('took apart again'),
} as const satisfies Readonly<Record<string, string>>;

export type AuditAction = keyof typeof AUDIT_ACTION_WORDS;

/** Actions by kind; every other one changes something. */
export const AUDIT_KINDS = {
  saw: ['read', 'list'],
  took: ['print', 'export'],
  signed: ['sign-in', 'sign-in-failed', 'sign-out', 'sign-out-elsewhere'],
} as const satisfies Readonly<Record<string, readonly AuditAction[]>>;
export type AuditKind = keyof typeof AUDIT_KINDS | 'changed';

export const AUDIT_KIND_WORDS: Readonly<Record<AuditKind, string>> = {
  saw: phrase('looked at'),
  changed: phrase('changed'),
  took: phrase('printed or exported'),
  signed: phrase('signed in or out'),
};

/** What of the log is asked for; nothing chosen is all of it. */
export class AuditQuery {
  @MayBeLeftOut()
  @IsUUID(undefined, { message: 'must be a UUID' })
  user?: string;

  @MayBeLeftOut()
  @IsUUID(undefined, { message: 'must be a UUID' })
  person?: string;

  @MayBeLeftOut()
  @IsIn(['changed', ...Object.keys(AUDIT_KINDS)], { message: 'must be saw, changed, took or signed' })
  kind?: AuditKind;

  /** Those before this line. */
  @MayBeLeftOut()
  @Matches(/^\d{1,18}$/, { message: 'must be the number of a line' })
  before?: string;
}

/** A line of the log of who saw and changed what. */
export interface AuditLine {
  readonly seq: string;
  readonly at: string;
  /** Null: someone at home, by their link. */
  readonly who: { readonly id: string; readonly name: string } | null;
  /** It was a program, by a key that `who` made. */
  readonly byProgram: boolean;
  /** An empty name: their record was erased. */
  readonly person: { readonly id: string; readonly name: string } | null;
  readonly action: string;
  readonly subject: string;
  /** How many people a list showed. */
  readonly shown: number | null;
}

export interface AuditView {
  readonly lines: readonly AuditLine[];
  /** Ask for those before this one; null where there are none. */
  readonly before: string | null;
}

/** Whether the log is as it was written. */
export interface AuditSealsView {
  readonly seals: number;
  /** Lines that are sealed. */
  readonly lines: number;
  readonly at: string | null;
  /** The last seal; kept elsewhere it shows that nothing before it was written anew. */
  readonly hash: string | null;
  /** Number of the first seal that does not fit what it closes; null where all do. */
  readonly brokenAt: number | null;
}
