let context: AudioContext | null = null;

/** Two soft knocks on wood: heard, and no alarm. Silent where the browser has no sound yet. */
export function knock(): void {
  try {
    context ??= new AudioContext();
    void context.resume();
    tap(context, 0, 196);
    tap(context, 0.16, 174);
  } catch {
    // A machine without sound: the notice is seen.
  }
}

/** @param after in s; @param pitch in Hz */
function tap(on: AudioContext, after: number, pitch: number): void {
  const at = on.currentTime + after;
  const tone = on.createOscillator();
  const loudness = on.createGain();
  tone.type = 'triangle';
  tone.frequency.setValueAtTime(pitch * 1.6, at);
  tone.frequency.exponentialRampToValueAtTime(pitch, at + 0.05);
  loudness.gain.setValueAtTime(0.28, at);
  loudness.gain.exponentialRampToValueAtTime(0.001, at + 0.18);
  tone.connect(loudness).connect(on.destination);
  tone.start(at);
  tone.stop(at + 0.2);
}
