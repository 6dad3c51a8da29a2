import { CAUTIONED } from './endangeredCautions.js';
import { STOPPED } from './endangeredStops.js';
import type { Endangered } from './people.js';

/** People the screen must protect, the dangers first seen among them. */
export const ENDANGERED: readonly Endangered[] = [...STOPPED, ...CAUTIONED];
