import type { Config } from './config.js';

/** The configuration, as something that can be injected. */
export class Settings {
  constructor(readonly config: Config) {}
}
