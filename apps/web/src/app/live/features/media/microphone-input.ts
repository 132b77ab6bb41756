/** Why there is no voice of this window. */
export type MicrophoneFault = 'not-secure' | 'denied' | 'missing' | 'busy' | 'gone' | 'unable';

/** What is said of it, and what to do. */
export const MICROPHONE_FAULTS: Readonly<Record<MicrophoneFault, string>> = {
  'not-secure':
    'The browser gives no microphone to this address, as it doesn’t begin with https. Ask for one that does, or listen: that works.',
  denied:
    'The browser doesn’t allow the microphone here. Press the sign beside the address, allow the microphone, and switch it on again.',
  missing: 'No microphone was found. Plug in a headset or a microphone, and switch it on again.',
  busy: 'Another program has the microphone. Close that program, and switch it on again.',
  unable:
    'This browser can’t carry voices: you hear nobody, and nobody hears you. Come in with another browser, such as Firefox or Chromium.',
  gone: 'The microphone is gone. Plug it in, or another one, and switch it on again.',
};

/** By the names that W3C Media Capture and Streams gives them. */
const NAMES: Readonly<Record<string, MicrophoneFault>> = {
  NotAllowedError: 'denied',
  SecurityError: 'denied',
  NotFoundError: 'missing',
  OverconstrainedError: 'missing',
  // A browser that takes in no sound at all.
  NotSupportedError: 'missing',
  NotReadableError: 'busy',
  AbortError: 'busy',
};

/** For speech: what the loudspeaker says isn't sent back, and the room isn't heard. */
const SPEECH = { echoCancellation: true, noiseSuppression: true, autoGainControl: true };

/**
 * The voice at this window.
 * @param device the browser's id of the one to speak into; where that isn't there, another is taken, as for `null`
 */
export async function openMicrophone(
  device: string | null,
): Promise<MediaStreamTrack | MicrophoneFault> {
  // Browsers have it by https and on the machine itself.
  if (!navigator.mediaDevices) return 'not-secure';
  try {
    const stream = await navigator.mediaDevices.getUserMedia({
      audio: { ...SPEECH, ...(device !== null && { deviceId: { ideal: device } }) },
    });
    return stream.getAudioTracks()[0] ?? 'missing';
  } catch (error) {
    const fault = error instanceof DOMException ? NAMES[error.name] : undefined;
    if (!fault) throw error;
    return fault;
  }
}
