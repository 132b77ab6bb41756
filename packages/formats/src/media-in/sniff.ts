/** How many bytes of a file say what it is. */
export const MEDIA_HEAD = 16;

/**
 * Whether a file begins as sounds and films do: MP4 and M4A (ISO/IEC 14496-12, 4.3), WebM (RFC 8794,
 * 8.1), Ogg (RFC 3533, 6), WAV (RIFF), FLAC (RFC 9639, 6), MP3 (ISO/IEC 11172-3, 2.4.2.3; ID3v2) and AAC.
 */
export function isMediaHead(head: Uint8Array): boolean {
  const text = String.fromCharCode(...head.subarray(0, MEDIA_HEAD));
  return (
    text.slice(4, 8) === 'ftyp' ||
    text.startsWith('\x1a\x45\xdf\xa3') ||
    text.startsWith('OggS') ||
    (text.startsWith('RIFF') && text.slice(8, 12) === 'WAVE') ||
    text.startsWith('fLaC') ||
    text.startsWith('ID3') ||
    // A frame's eleven bits of ones, and a layer that isn't reserved or is AAC's.
    (head[0] === 0xff && (head[1]! & 0xe0) === 0xe0 && head[1] !== 0xff && head[2] !== 0xff)
  );
}
