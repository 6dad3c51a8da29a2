/** How to reach a database of ours, and how to stop it. */
export interface RunningDatabase {
  readonly ownerUrl: string;
  readonly appUrl: string;
  readonly port?: number;
  readonly ended?: Promise<void>;
  readonly stop: () => Promise<void>;
}

export function freePort(): Promise<number>;
export function startPostgres(
  folder: string,
  options?: { fast?: boolean; database?: string; url?: string | undefined; port?: number | null },
): Promise<RunningDatabase>;
export function reachable(folder: string): true | string;
export function runningPostgres(folder: string): Promise<RunningDatabase | null>;
