import { Microphone } from '@cuaderno/core/features';
import { Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { readJson } from '../../../browser/read-json';
import { lasting, ofTab, remember } from '../../../browser/storage';

/** A microphone, by the browser's own id for it here, and by its name. */
const SoundDevice = z.object({ id: z.string(), name: z.string() });
export type SoundDevice = z.infer<typeof SoundDevice>;

const CHOSEN = 'cuaderno.microphone-chosen';

/** The microphone that was chosen in this browser, for all lessons; `null` for what the machine itself would take. */
export function chosenMicrophone(): SoundDevice | null {
  return readJson(SoundDevice, lasting.getItem(CHOSEN));
}

export function chooseMicrophone(microphone: SoundDevice): void {
  remember(lasting, CHOSEN, JSON.stringify(microphone));
}

/** What the microphone was in this tab, and in which lesson. */
const InTab = z.object({ lesson: Id, microphone: Microphone });

const IN_TAB = 'cuaderno.microphone';

/** What the microphone is to be in a lesson that this tab may come back to. */
export function microphoneIn(lesson: Id): Microphone {
  const kept = readJson(InTab, ofTab.getItem(IN_TAB));
  return kept?.lesson === lesson ? kept.microphone : 'off';
}

export function keepMicrophone(lesson: Id, microphone: Microphone): void {
  remember(ofTab, IN_TAB, JSON.stringify({ lesson, microphone }));
}
