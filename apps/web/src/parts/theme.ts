import { useSyncExternalStore } from 'react';
import { keep, stored } from '../api/kept.js';

/** How light the pages are: as the system says, or always so. Chosen on this device, for all who use it. */
export type Theme = 'system' | 'light' | 'dark';

const KEY = 'heathstep.theme';
const listeners = new Set<() => void>();
const asked = window.matchMedia('(prefers-color-scheme: dark)');

const chosen = (): Theme => {
  const kept = stored<unknown>(KEY, null);
  return kept === 'light' || kept === 'dark' ? kept : 'system';
};

/** What is shown now. */
const shown = (): 'light' | 'dark' => {
  const theme = chosen();
  return theme === 'system' ? (asked.matches ? 'dark' : 'light') : theme;
};

function show(): void {
  document.documentElement.dataset['theme'] = shown();
  for (const tell of listeners) tell();
}

/** Shows the theme from the first page on, and follows the system when it changes. */
export function keepTheme(): void {
  show();
  asked.addEventListener('change', show);
  window.addEventListener('storage', show);
}

export function chooseTheme(theme: Theme): void {
  keep(KEY, theme, theme === 'system');
  show();
}

const subscribe = (tell: () => void) => {
  listeners.add(tell);
  return () => listeners.delete(tell);
};

export const useTheme = (): Theme => useSyncExternalStore(subscribe, chosen);

/** Light or dark, for what is drawn with colours read once. */
export const useShownTheme = (): 'light' | 'dark' => useSyncExternalStore(subscribe, shown);
