import { keepNewest } from '../keepNewest.js';

/** What tries are counted by, and how many are free before one has to wait. [convention] */
const FREE = { accountHere: 5, account: 10, address: 20 } as const;
export type CountedBy = keyof typeof FREE;

/** The longest wait, in seconds; and how long after the last wrong try all is forgotten. [convention] */
const LONGEST_WAIT_S = 900;
const FORGOTTEN_AFTER_MS = 30 * 60_000;

/** More names than this are not kept: the oldest go. */
const MOST_KEPT = 20_000;

interface Tries {
  readonly count: number;
  readonly last: number;
}

/**
 * Wrong tries to sign in, by account from one address, by account from anywhere and by address. Each try beyond the free ones
 * doubles the wait: 1 s, 2 s, 4 s and so on. Kept in memory: a server that starts anew begins anew.
 */
export class SignInLimits {
  private readonly tries = new Map<string, Tries>();

  constructor(private readonly now: () => number) {}

  private standing(by: CountedBy, name: string): Tries {
    const tries = this.tries.get(`${by} ${name}`);
    return tries === undefined || this.now() - tries.last > FORGOTTEN_AFTER_MS
      ? { count: 0, last: 0 }
      : tries;
  }

  /** Seconds until another try is taken; 0 when it is taken now. */
  waitSeconds(names: Readonly<Partial<Record<CountedBy, string>>>): number {
    const waits = Object.entries(names).map(([by, name]) => {
      const { count, last } = this.standing(by as CountedBy, name);
      const over = count - FREE[by as CountedBy];
      if (over < 0) return 0;
      const wait = Math.min(LONGEST_WAIT_S, 2 ** Math.min(over, 20)) * 1000;
      return Math.max(0, Math.ceil((last + wait - this.now()) / 1000));
    });
    return Math.max(0, ...waits);
  }

  wrong(names: Readonly<Record<CountedBy, string>>): void {
    for (const [by, name] of Object.entries(names)) {
      const { count } = this.standing(by as CountedBy, name);
      keepNewest(this.tries, `${by} ${name}`, { count: count + 1, last: this.now() }, MOST_KEPT);
    }
  }

  /** The right password clears what was counted for the account; the address stays counted for the others it tried. */
  right(names: Readonly<Record<CountedBy, string>>): void {
    for (const by of ['accountHere', 'account'] as const) this.tries.delete(`${by} ${names[by]}`);
  }
}
