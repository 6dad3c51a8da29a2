/** A challenge is answered within so many milliseconds or not at all. [convention] */
const ANSWERED_WITHIN_MS = 5 * 60_000;
/** More than these are not open at a time: the oldest go. [convention] */
const MOST_OPEN = 2_000;

/** Challenges that were given and not answered yet; each is answered once. */
export class Challenges {
  private readonly open = new Map<string, { readonly challenge: string; readonly at: number }>();

  constructor(private readonly now: () => number) {}

  give(id: string, challenge: string): void {
    this.open.delete(id);
    this.open.set(id, { challenge, at: this.now() });
    for (const [oldest, { at }] of this.open) {
      if (this.open.size <= MOST_OPEN && this.now() - at <= ANSWERED_WITHIN_MS) break;
      this.open.delete(oldest);
    }
  }

  /** The challenge of that name, once; null where there is none any more. */
  take(id: string): string | null {
    const found = this.open.get(id);
    this.open.delete(id);
    return found === undefined || this.now() - found.at > ANSWERED_WITHIN_MS ? null : found.challenge;
  }
}
