import { type After, Outbox } from './outbox.js';
import { type EntryKey, type EntryValue, type EntryView, plainValue } from '@heathstep/contracts';

export interface PendingEntry {
  readonly id: string;
  readonly key: string;
  readonly baseVersion: number;
  readonly value: unknown;
}

/** What the server said to a batch. */
export type SendResult =
  | { readonly kind: 'saved'; readonly saved: readonly EntryView[] }
  | { readonly kind: 'stale'; readonly current: readonly EntryView[]; readonly message: string }
  | { readonly kind: 'refused'; readonly byKey: Readonly<Record<string, string>>; readonly message: string }
  | { readonly kind: 'locked'; readonly message: string }
  | { readonly kind: 'signed-out' }
  /** The server answered, and could not take it. */
  | { readonly kind: 'failed' }
  | { readonly kind: 'unreachable' };

export type SaveStatus =
  | 'saved'
  | 'saving'
  | 'unreachable'
  | 'conflict'
  | 'refused'
  | 'locked'
  | 'signed-out';

/** Everything the store needs of the outside, so that tests can stand in for it. */
export interface StoreWorld {
  readonly send: (entries: readonly PendingEntry[]) => Promise<SendResult>;
  readonly load: () => readonly PendingEntry[];
  readonly keep: (entries: readonly PendingEntry[]) => void;
  readonly newId: () => string;
  readonly after: After;
}

const TYPING_PAUSE_MS = 350;
/** As many entries as are sent at once; the server takes twice as many. */
const MOST_AT_ONCE = 100;

/** An entry and what it becomes; null clears it. */
export type Change = { [K in EntryKey]: readonly [key: K, value: EntryValue<K> | null] }[EntryKey];

/** What one undo takes back: usually one change, several when they were made as one. */
type Step = readonly { readonly key: string; readonly before: unknown; readonly after: unknown }[];

/** The same value, in whatever order its fields come back from the server. */
function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [mine, theirs] = [new Map(Object.entries(a)), new Map(Object.entries(b))];
  return (
    mine.size === theirs.size &&
    [...mine].every(([key, value]) => theirs.has(key) && same(value, theirs.get(key)))
  );
}

/**
 * The entries of one visit as they are typed: each change shows at once, is kept on this device until the server has it,
 * and is sent in small batches. A lost server is tried again; a stale edit keeps both values until the user chooses.
 */
export class EntryStore extends Outbox {
  private readonly server = new Map<string, { version: number; value: unknown }>();
  private readonly pending = new Map<string, PendingEntry>();
  private readonly conflicts = new Map<string, { mine: unknown; theirs: EntryView }>();
  private readonly refusals = new Map<string, string>();
  private readonly undos: Step[] = [];
  private readonly redos: Step[] = [];
  private sending = false;
  /** How many are sent at once; fewer while some of a batch cannot be taken and it is not known which. */
  private atOnce = MOST_AT_ONCE;
  /** Entries the server could not take by themselves: they wait while the others go. */
  private readonly aside = new Set<string>();
  private stuck: 'locked' | 'signed-out' | 'unreachable' | null = null;
  private valuesChanged = 0;

  constructor(
    entries: readonly EntryView[],
    private readonly world: StoreWorld,
  ) {
    super(world.after);
    for (const e of entries) this.server.set(e.key, { version: e.version, value: e.value });
    for (const p of world.load()) this.pending.set(p.key, p);
    if (this.pending.size > 0) this.soon(0);
  }

  /** Grows when a value or a refusal changes, not when one is merely saved; what is worked out from values depends on it. */
  get revision(): number {
    return this.valuesChanged;
  }

  /** What stands in an entry, checked as it was taken; null when nothing does. */
  get<K extends EntryKey>(key: K): EntryValue<K> | null {
    return this.standing(key) as EntryValue<K> | null;
  }

  private standing(key: string): unknown {
    return this.pending.has(key)
      ? this.pending.get(key)?.value
      : (this.conflicts.get(key)?.mine ?? this.server.get(key)?.value ?? null);
  }

  /** Everything that stands, by key. */
  all(): (readonly [key: string, value: unknown])[] {
    return this.keys().map((key) => [key, this.standing(key)]);
  }

  keys(): string[] {
    return [...new Set([...this.server.keys(), ...this.pending.keys()])].filter(
      (k) => this.standing(k) !== null,
    );
  }

  get status(): SaveStatus {
    if (this.conflicts.size > 0) return 'conflict';
    if (this.stuck !== null) return this.stuck;
    if (this.refusals.size > 0) return 'refused';
    return this.pending.size > 0 || this.sending ? 'saving' : 'saved';
  }

  get conflictList(): readonly {
    readonly key: string;
    readonly mine: unknown;
    readonly theirs: EntryView;
  }[] {
    return [...this.conflicts.entries()].map(([key, c]) => ({ key, ...c }));
  }

  refusal(key: string): string | null {
    return this.refusals.get(key) ?? null;
  }

  get canUndo(): boolean {
    return this.undos.length > 0;
  }

  set<K extends EntryKey>(key: K, value: EntryValue<K> | null): void {
    this.setMany([[key, value] as unknown as Change]);
  }

  /** Changes several entries as one: one undo takes them all back. */
  setMany(changes: readonly Change[]): void {
    const real = changes.filter(([key, value]) => !same(this.standing(key), value));
    if (real.length === 0) return;
    this.undos.push(real.map(([key, value]) => ({ key, before: this.standing(key), after: value })));
    this.redos.length = 0;
    for (const [key, value] of real) this.put(key, value);
  }

  get canRedo(): boolean {
    return this.redos.length > 0;
  }

  /** Takes the last change back that still stands; returns its first key, or null when there is none. */
  undo(): string | null {
    return this.step(this.undos, this.redos, 'after', 'before');
  }

  /** Makes the change again that was taken back last, where nothing else was put in its place. */
  redo(): string | null {
    return this.step(this.redos, this.undos, 'before', 'after');
  }

  /** Goes one step from one list to the other; what someone else changed meanwhile is left as they put it. */
  private step(from: Step[], to: Step[], now: 'before' | 'after', then: 'before' | 'after'): string | null {
    for (let last = from.pop(); last !== undefined; last = from.pop()) {
      const standing = last.filter((c) => same(this.standing(c.key), c[now]));
      const [first] = standing;
      if (first === undefined) continue;
      to.push(standing);
      for (const c of standing) this.put(c.key, c[then]);
      return first.key;
    }
    this.notify();
    return null;
  }

  /** What others saved meanwhile: shown at once, unless the same thing is being changed here; then both stand. */
  receive(entries: readonly EntryView[]): void {
    let changed = false;
    for (const theirs of entries) {
      const known = this.server.get(theirs.key);
      if (known !== undefined && known.version >= theirs.version) continue;
      this.server.set(theirs.key, { version: theirs.version, value: theirs.value });
      const mine = this.pending.get(theirs.key);
      if (mine !== undefined && !this.sending) {
        this.pending.delete(theirs.key);
        if (!same(mine.value, theirs.value)) this.conflicts.set(theirs.key, { mine: mine.value, theirs });
      }
      changed = true;
    }
    if (!changed) return;
    this.valuesChanged += 1;
    this.notify();
  }

  /** Ends a conflict with one of the two values. */
  resolve(key: string, choice: 'mine' | 'theirs'): void {
    const conflict = this.conflicts.get(key);
    if (conflict === undefined) return;
    this.conflicts.delete(key);
    this.server.set(key, { version: conflict.theirs.version, value: conflict.theirs.value });
    this.valuesChanged += 1;
    if (choice === 'mine') this.put(key, conflict.mine);
    else this.notify();
  }

  override retry = (): void => {
    if (this.stuck === 'locked') return;
    this.stuck = null;
    this.soon(0);
  };

  /** Sends what is waiting; resolves when nothing is on its way. */
  override async flush(): Promise<void> {
    if (this.sending || this.pending.size === 0 || this.stuck === 'locked') return;
    this.sending = true;
    const waiting = [...this.pending.values()].filter((p) => !this.aside.has(p.id));
    if (waiting.length === 0) this.aside.clear();
    const batch = (waiting.length === 0 ? [...this.pending.values()] : waiting).slice(0, this.atOnce);
    this.notify();
    const result = await this.world.send(batch);
    this.sending = false;
    this.take(batch, result);
    this.notify();
  }

  private put(key: string, typed: unknown): void {
    const value = plainValue(typed);
    this.refusals.delete(key);
    this.valuesChanged += 1;
    this.pending.set(key, {
      id: this.world.newId(),
      key,
      baseVersion: this.server.get(key)?.version ?? 0,
      value,
    });
    this.world.keep([...this.pending.values()]);
    this.soon(TYPING_PAUSE_MS);
    this.notify();
  }

  private take(batch: readonly PendingEntry[], result: SendResult): void {
    this.stuck = null;
    switch (result.kind) {
      case 'saved':
        this.reached();
        this.atOnce = MOST_AT_ONCE;
        for (const e of result.saved) this.server.set(e.key, { version: e.version, value: e.value });
        for (const sent of batch) this.settle(sent);
        break;
      case 'stale':
        this.valuesChanged += 1;
        for (const theirs of result.current) {
          const mine = this.pending.get(theirs.key);
          this.pending.delete(theirs.key);
          this.server.set(theirs.key, { version: theirs.version, value: theirs.value });
          if (mine !== undefined && !same(mine.value, theirs.value))
            this.conflicts.set(theirs.key, { mine: mine.value, theirs });
        }
        break;
      case 'refused':
        this.valuesChanged += 1;
        for (const [key, message] of Object.entries(result.byKey)) {
          this.refusals.set(key, message);
          this.pending.delete(key);
        }
        if (Object.keys(result.byKey).length === 0) this.divide(batch);
        break;
      case 'failed':
        this.divide(batch);
        break;
      case 'locked':
        this.stuck = 'locked';
        break;
      case 'signed-out':
        this.stuck = 'signed-out';
        break;
      case 'unreachable':
        this.stuck = 'unreachable';
        this.away();
        break;
    }
    this.world.keep([...this.pending.values()]);
    if (this.stuck === null && this.pending.size > 0) this.soon(0);
  }

  /** Some of a batch cannot be taken and nobody says which: half of it is tried, at last one by one, and that one waits. */
  private divide(batch: readonly PendingEntry[]): void {
    if (batch.length > 1) {
      this.atOnce = Math.ceil(batch.length / 2);
      return;
    }
    for (const { id } of batch) this.aside.add(id);
    if ([...this.pending.values()].every((p) => this.aside.has(p.id))) {
      this.stuck = 'unreachable';
      this.away();
    }
  }

  /** What was edited again while on its way is based on the version just saved. */
  private settle(sent: PendingEntry): void {
    const now = this.pending.get(sent.key);
    if (now === undefined) return;
    if (now.id === sent.id) this.pending.delete(sent.key);
    else
      this.pending.set(sent.key, {
        ...now,
        baseVersion: this.server.get(sent.key)?.version ?? now.baseVersion,
      });
  }
}
