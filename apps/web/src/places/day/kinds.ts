import { say } from '@heathstep/core';
import {
  BellRing,
  CalendarClock,
  CircleCheck,
  CircleDashed,
  Flag,
  Flame,
  Leaf,
  MessageCircleOff,
  MessageCircleQuestion,
  Octagon,
  ScanSearch,
  Send,
  Sprout,
  TrendingDown,
} from 'lucide-react';
import type { ComponentType } from 'react';
import type { DayItem } from '@heathstep/contracts';
import type { Tone } from '../../parts/Judgement.js';

/** Each kind of row: its word, its mark, and what is done next where the row leads. */
export const KINDS: Record<
  DayItem['kind'],
  {
    readonly word: string;
    readonly tone: Tone;
    readonly icon: ComponentType<{ className?: string }>;
    /** What is done next, where the row leads. */
    readonly next: string;
  }
> = {
  stop: { word: say('Stop sign'), tone: 'ease', icon: BellRing, next: say('Hear what happened') },
  blocked: { word: say('Blocked'), tone: 'ease', icon: Octagon, next: say('Open the safety screen') },
  refer: { word: say('Refer'), tone: 'ease', icon: Send, next: say('See what did not change') },
  flare: { word: say('Flare'), tone: 'ease', icon: Flame, next: say('Decide how to go on') },
  ready: { word: say('Ready'), tone: 'go', icon: CircleCheck, next: say('Give the next stage') },
  'look-again': { word: say('Look again'), tone: 'hold', icon: ScanSearch, next: say('Decide how to go on') },
  'upkeep-over': {
    word: say('Upkeep over'),
    tone: 'hold',
    icon: Flag,
    next: say('Discharge, or say why it goes on'),
  },
  'review-due': { word: say('Review due'), tone: 'hold', icon: CalendarClock, next: say('Start the review') },
  asked: { word: say('Asked'), tone: 'hold', icon: MessageCircleQuestion, next: say('Answer it') },
  slipping: { word: say('Slipping'), tone: 'hold', icon: TrendingDown, next: say('See what slows it') },
  silent: { word: say('Silent'), tone: 'hold', icon: MessageCircleOff, next: say('Ask how it goes') },
  new: { word: say('New'), tone: 'unknown', icon: Sprout, next: say('Go on with the visit') },
  unplanned: { word: say('No plan'), tone: 'unknown', icon: CircleDashed, next: say('Open the course') },
  steady: { word: say('Steady'), tone: 'go', icon: Leaf, next: say('Open the course') },
};
