import type { CSSProperties } from 'react';
import { useSyncExternalStore } from 'react';
import { type Build, BUILDS } from '@heathstep/core';
import { keep, stored } from '../api/kept.js';

/** Colours of a drawn person; each sets the tones of the figures' shapes. */
export const SKINS = {
  fair: ['#edc6aa', '#d3a384', '#f6dac6'],
  light: ['#dba887', '#c08e6f', '#e8bfa4'],
  olive: ['#c08a62', '#a3714c', '#d3a581'],
  brown: ['#8f5f40', '#774c31', '#ab7d5e'],
  dark: ['#613f2c', '#4c3021', '#83604b'],
} as const;

export const CLOTHES = {
  green: ['#3d5a48', '#2f4638', '#8a7f9c'],
  blue: ['#3f5470', '#314258', '#b48f6c'],
  plum: ['#5f4460', '#4b354c', '#7e937f'],
  sand: ['#8f7a58', '#756347', '#5f7891'],
} as const;

const HAIRS = {
  fair: '#8a5a33',
  light: '#4a3a30',
  olive: '#33261f',
  brown: '#2b211c',
  dark: '#211a17',
} as const;

type Skin = keyof typeof SKINS;
type Clothes = keyof typeof CLOTHES;

/** How people are drawn: one look for all, or mixed by exercise. */
export interface Appearance {
  readonly skin: Skin | 'mixed';
  readonly clothes: Clothes | 'mixed';
  readonly build: Build | 'mixed';
}

const PLAIN: Appearance = { skin: 'light', clothes: 'green', build: 'middle' };

const KEY = 'heathstep.figures';
const listeners = new Set<() => void>();
let current: Appearance | null = null;

const read = (): Appearance => (current ??= { ...PLAIN, ...stored<Partial<Appearance>>(KEY, {}) });

export function setAppearance(next: Appearance): void {
  current = next;
  keep(KEY, next, false);
  for (const listener of listeners) listener();
}

/** How figures are drawn on this device. */
export const useAppearance = (): Appearance =>
  useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, read);

/** A number that is always the same for a word. */
const numberOf = (word: string): number =>
  [...word].reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) % 9973, 7);

function pick<K extends string>(chosen: K | 'mixed', all: readonly K[], by: number, plain: K): K {
  if (chosen !== 'mixed') return all.includes(chosen) ? chosen : plain;
  return all[by % all.length] ?? plain;
}

/** The tones and the build one exercise is drawn in. */
export function lookOf(appearance: Appearance, exercise: string): { style: CSSProperties; build: Build } {
  const by = numberOf(exercise);
  const skin = pick(appearance.skin, Object.keys(SKINS) as Skin[], by, 'light');
  const clothes = pick(appearance.clothes, Object.keys(CLOTHES) as Clothes[], by >> 2, 'green');
  const [tone, far, pad] = SKINS[skin];
  const [cloth, clothFar, shirt] = CLOTHES[clothes];
  return {
    style: {
      '--figure-skin': tone,
      '--figure-skin-far': far,
      '--figure-pad': pad,
      '--figure-hair': HAIRS[skin],
      '--figure-cloth': cloth,
      '--figure-cloth-far': clothFar,
      '--figure-shirt': shirt,
    } as CSSProperties,
    build: pick(appearance.build, Object.keys(BUILDS) as Build[], by >> 4, 'middle'),
  };
}
