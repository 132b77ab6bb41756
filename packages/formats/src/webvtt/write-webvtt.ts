/** A line of captions, in ms from where what it belongs to begins. */
export interface Cue {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}

/**
 * Captions as WebVTT (W3C, "WebVTT: The Web Video Text Tracks Format", sections 4.1 and 4.2.2).
 *
 * @param cues in any order
 * @param note what it is, for anyone who opens it as text
 */
export function writeWebVtt(cues: readonly Cue[], note = ''): string {
  const inOrder = [...cues].sort((a, b) => a.from - b.from || a.to - b.to);
  const blocks = inOrder.map(({ from, to, text }, i) => {
    // A cue ends after it begins.
    const times = `${timestamp(from)} --> ${timestamp(Math.max(to, from + 1))}`;
    const said = escaped(text)
      .split(/[\r\n]+/)
      .filter((line) => line.trim() !== '')
      .join('\n');
    return `${i + 1}\n${times}\n${said}\n`;
  });
  const about =
    note === '' ? [] : [`NOTE ${note.replace(/[\r\n]+/g, ' ').replaceAll('-->', '→')}\n`];
  return ['WEBVTT\n', ...about, ...blocks].join('\n');
}

/** What would be markup, or the arrow between two times, is none. */
function escaped(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
}

/** Hours have two digits at least. */
function timestamp(ms: number): string {
  const whole = Math.max(0, Math.round(ms));
  const part = (value: number, digits: number): string => String(value).padStart(digits, '0');
  const seconds = Math.floor(whole / 1000);
  return `${part(Math.floor(seconds / 3600), 2)}:${part(Math.floor(seconds / 60) % 60, 2)}:${part(seconds % 60, 2)}.${part(whole % 1000, 3)}`;
}
