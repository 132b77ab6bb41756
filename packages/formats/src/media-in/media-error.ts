/** Why a file can't be played on a page: it is no sound or film, is damaged, or coded in a way that browsers can't read. */
export type MediaFault = 'unknown' | 'broken' | 'codec';

export class MediaError extends Error {
  override readonly name = 'MediaError';
  constructor(readonly fault: MediaFault) {
    super(fault);
  }
}
