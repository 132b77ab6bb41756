import { Microphone } from '@cuaderno/core/features';
import { Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { readJson } from '../../../browser/read-json';
import { lasting, ofTab, remember } from '../../../browser/storage';

/** A microphone or a loudspeaker, by the browser's own id for it here, and by its name. */
const SoundDevice = z.object({ id: z.string(), name: z.string() });
export type SoundDevice = z.infer<typeof SoundDevice>;

/** What was chosen in this browser, for all lessons. */
const SoundChoice = z.object({
  /** Whether one comes in to speak; otherwise one listens. */
  speaks: z.boolean(),
  /** `null` for what the machine itself would take. */
  microphone: SoundDevice.nullable(),
  loudspeaker: SoundDevice.nullable(),
});
export type SoundChoice = z.infer<typeof SoundChoice>;

const CHOICE = 'cuaderno.sound';
/** Nobody has to choose anything: whoever comes to a lesson is heard. */
const SENSIBLE: SoundChoice = { speaks: true, microphone: null, loudspeaker: null };

export function soundChoice(): SoundChoice {
  return readJson(SoundChoice, lasting.getItem(CHOICE)) ?? SENSIBLE;
}

export function rememberSound(changed: Partial<SoundChoice>): void {
  remember(lasting, CHOICE, JSON.stringify({ ...soundChoice(), ...changed }));
}

/** What the microphone was in this tab, and in which lesson; `null` for the next one that is gone into. */
const InTab = z.object({ lesson: Id.nullable(), microphone: Microphone });

const IN_TAB = 'cuaderno.microphone';

/** What the microphone is to be in a lesson that this tab comes to, or comes back to. */
export function microphoneIn(lesson: Id): Microphone {
  const kept = readJson(InTab, ofTab.getItem(IN_TAB));
  return kept && (kept.lesson === null || kept.lesson === lesson) ? kept.microphone : 'off';
}

/** @param lesson `null` for the next one that is gone into */
export function keepMicrophone(lesson: Id | null, microphone: Microphone): void {
  remember(ofTab, IN_TAB, JSON.stringify({ lesson, microphone }));
}
