import type { Signal } from '@cuaderno/core/features';
import { Coffee, Lightbulb, LifeBuoy, Rabbit, ThumbsDown, ThumbsUp, Turtle } from 'lucide';

/** Signals, as they are called and shown wherever they are given or counted. */
export const SIGNALS: readonly {
  readonly signal: Signal;
  readonly label: string;
  readonly icon: typeof Coffee;
}[] = [
  { signal: 'yes', label: 'Yes', icon: ThumbsUp },
  { signal: 'no', label: 'No', icon: ThumbsDown },
  { signal: 'slower', label: 'Slower', icon: Turtle },
  { signal: 'faster', label: 'Faster', icon: Rabbit },
  { signal: 'got-it', label: 'Got it', icon: Lightbulb },
  { signal: 'lost', label: 'Lost', icon: LifeBuoy },
  { signal: 'away', label: 'Away', icon: Coffee },
];
