import list from './samples.json';

export interface Sample {
  readonly file: string;
  readonly label: string;
  readonly construction: string;
  readonly side: 'left' | 'right';
  /** The value it was drawn with. */
  readonly truth: number;
  readonly rulerMm: number | null;
  readonly landmarks: Readonly<Record<string, { readonly x: number; readonly y: number }>>;
}

/** Made-up drawn pictures with known values, to try the tool and to check it by. */
export const SAMPLES: readonly Sample[] = list as unknown as readonly Sample[];
