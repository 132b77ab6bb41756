/** Endings of file names by media type. */
export const ENDINGS: Readonly<Record<string, string>> = {
  ...{ 'application/pdf': '.pdf', 'image/png': '.png', 'image/jpeg': '.jpg' },
  ...{ 'audio/mpeg': '.mp3', 'audio/wav': '.wav', 'audio/ogg': '.ogg', 'audio/mp4': '.m4a' },
  ...{ 'video/mp4': '.mp4', 'video/webm': '.webm', 'application/zip': '.zip' },
};

/** A name under which a file is kept: one that a tutor gave it may have lost its ending. */
export function fileName(name: string, type: string): string {
  const ending = ENDINGS[type] ?? '';
  return /\.[a-z0-9]{2,5}$/i.test(name) ? name : `${name}${ending}`;
}
