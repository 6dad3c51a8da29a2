/** Signs a patient stops for, in three grades; one list for the phone and the paper. */
export const EMERGENCY_SIGNS = [
  'Chest pain',
  'Breathlessness',
  'Calf newly swollen, or painful and warm',
  'A pop, and no push-off',
  'A cold or white foot',
  'Fever with a red, hot foot',
  'Face, arm or speech changed',
  'Sudden weakness',
  'Numb between the legs, or bladder changed',
] as const;
export const REVIEW_SIGNS = [
  'Sharp or sudden pain',
  'Bone pain at night',
  'Cannot take weight after a slip',
  'Numbness or tingling',
  'It gave way',
  'New swelling',
  'The colour changed',
  'The skin broke',
  'Dizziness',
] as const;
export const PAUSE_SIGNS = ['A cramp that does not ease in a minute', 'Too tired to do it well'] as const;

/** A list of signs as one run of text. */
export const asSentence = (signs: readonly string[]): string =>
  signs.map((s) => s.charAt(0).toLowerCase() + s.slice(1)).join('; ');
