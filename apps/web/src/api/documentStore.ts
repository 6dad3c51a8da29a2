import { type After, Outbox } from './outbox.js';

/** A document as it stands on the server. */
export interface Versioned<T> {
  readonly value: T;
  readonly version: number;
}

export type DocumentResult<T> =
  | { readonly kind: 'saved'; readonly now: Versioned<T> }
  | { readonly kind: 'stale'; readonly theirs: Versioned<T> }
  | { readonly kind: 'refused'; readonly errors: Readonly<Record<string, string>>; readonly message: string }
  | { readonly kind: 'unreachable' };

export interface DocumentWorld<T> {
  readonly send: (value: T, version: number) => Promise<DocumentResult<T>>;
  readonly load: () => Versioned<T> | null;
  readonly keep: (draft: Versioned<T> | null) => void;
  readonly after: After;
}

export type DocumentStatus = 'saved' | 'saving' | 'unreachable' | 'conflict' | 'refused';

const PAUSE_MS = 350;

/** One document edited as a whole, such as a plan: kept on the device until the server has it, never overwriting another's edit unasked. */
export class DocumentStore<T> extends Outbox {
  private server: Versioned<T>;
  private draft: T | null = null;
  private theirs: Versioned<T> | null = null;
  private sending = false;
  private lost = false;
  private readonly past: T[] = [];
  private readonly undone: T[] = [];
  errors: Readonly<Record<string, string>> = {};

  constructor(
    start: Versioned<T>,
    private readonly world: DocumentWorld<T>,
  ) {
    super(world.after);
    this.server = start;
    const kept = world.load();
    if (kept !== null) {
      this.draft = kept.value;
      if (kept.version === start.version) this.soon(0);
      else this.theirs = start;
    }
  }

  get value(): T {
    return this.draft ?? this.server.value;
  }

  get version(): number {
    return this.server.version;
  }

  get status(): DocumentStatus {
    if (this.theirs !== null) return 'conflict';
    if (Object.keys(this.errors).length > 0) return 'refused';
    if (this.lost) return 'unreachable';
    return this.draft !== null || this.sending ? 'saving' : 'saved';
  }

  get canUndo(): boolean {
    return this.past.length > 0;
  }

  get canRedo(): boolean {
    return this.undone.length > 0;
  }

  set(value: T): void {
    this.past.push(this.value);
    this.undone.length = 0;
    this.put(value);
  }

  undo(): void {
    const before = this.past.pop();
    if (before === undefined) return;
    this.undone.push(this.value);
    this.put(before);
  }

  redo(): void {
    const after = this.undone.pop();
    if (after === undefined) return;
    this.past.push(this.value);
    this.put(after);
  }

  resolve(choice: 'mine' | 'theirs'): void {
    if (this.theirs === null) return;
    this.server = this.theirs;
    this.theirs = null;
    if (choice === 'theirs') {
      this.draft = null;
      this.world.keep(null);
    } else this.soon(0);
    this.notify();
  }

  override async flush(): Promise<void> {
    if (this.sending || this.draft === null || this.theirs !== null) return;
    this.sending = true;
    const sent = this.draft;
    this.notify();
    const result = await this.world.send(sent, this.server.version);
    this.sending = false;
    this.lost = false;
    if (result.kind !== 'unreachable') this.reached();
    this.errors = {};
    if (result.kind === 'saved') {
      this.server = result.now;
      if (this.draft === sent) {
        this.draft = null;
        this.world.keep(null);
      } else this.soon(0);
    } else if (result.kind === 'stale') this.theirs = result.theirs;
    else if (result.kind === 'refused')
      this.errors = Object.keys(result.errors).length > 0 ? result.errors : { '': result.message };
    else {
      this.lost = true;
      this.away();
    }
    this.notify();
  }

  private put(value: T): void {
    this.draft = value;
    this.errors = {};
    this.world.keep({ value, version: this.server.version });
    this.soon(PAUSE_MS);
    this.notify();
  }
}
