import { Injectable, Logger, type OnApplicationShutdown } from '@nestjs/common';
import { Db } from '../persistence/db.js';

/** How often the log is sealed: what is younger can be changed unseen by who owns the database. [convention] */
const EVERY_MS = 60_000;

/** Seals the log of every clinic from time to time. */
@Injectable()
export class Sealing implements OnApplicationShutdown {
  private readonly logger = new Logger('audit');
  private timer: NodeJS.Timeout | null = null;

  constructor(private readonly db: Db) {}

  begin(): void {
    this.timer ??= setInterval(() => void this.seal(), EVERY_MS).unref();
  }

  /** A log that is busy or away is sealed the next time. */
  private async seal(): Promise<void> {
    try {
      await this.db.lookUp('SELECT seal_audit()', []);
    } catch {
      this.logger.warn('the log was not sealed this time');
    }
  }

  onApplicationShutdown(): void {
    if (this.timer !== null) clearInterval(this.timer);
  }
}
