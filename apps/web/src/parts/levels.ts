import { type SafetyLevel, say, type TriggeredRule } from '@heathstep/core';

/** What the level of a sign is called. */
export const LEVEL_WORDS: Readonly<Record<SafetyLevel, string>> = {
  emergency: say('Emergency'),
  urgent: say('Urgent'),
  refer: say('Refer'),
  caution: say('Caution'),
};

/** What stands with a sign that was answered. */
export const SIGN_WORDS: Readonly<Record<TriggeredRule['status'], string>> = {
  open: say('open'),
  closed: say('closed'),
  overridden: say('overridden'),
};
