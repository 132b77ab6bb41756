import { SIGNALS } from './signals';
import type { Happening, HappeningSign, InRecord } from '../feature';

const HAND: HappeningSign = { symbol: 'triangle', size: 11, legend: '▲ hand' };
const SIGNAL: HappeningSign = { symbol: 'diamond', size: 11, legend: '◆ signal' };
const CHAT: HappeningSign = { symbol: 'circle', size: 9, legend: '● chat' };

/** Hands that were raised, what was signalled, and the chat. Hands that go down aren't told. */
export const talkInRecord: InRecord<'talk'> = {
  happenings: ({ chat, gestures }, { name }) => [
    ...gestures.flatMap(({ by, what, at }): Happening[] => {
      if (what === 'hand') return [{ at, by, sign: HAND, words: `${name(by)} raised a hand` }];
      const signal = SIGNALS.find((one) => one.signal === what);
      return signal
        ? [{ at, by, sign: SIGNAL, words: `${name(by)} signalled: ${signal.label}` }]
        : [];
    }),
    ...chat.map(({ by, to, text, at }): Happening => {
      const whom = to === 'all' ? '' : `, to ${to === 'tutor' ? 'the tutor' : name(to)}`;
      return { at, by, sign: CHAT, words: `${name(by)}${whom}: “${text}”` };
    }),
  ],
  signs: [HAND, SIGNAL, CHAT],
  said: {
    chat: {
      label: 'Chat',
      one: 'message',
      many: 'messages',
      file: { name: 'chat.txt', label: 'Chat as text', words: 'Who wrote what, and when.' },
    },
  },
};
