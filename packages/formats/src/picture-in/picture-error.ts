/** Why a picture can't be brought in. */
export type PictureFault = 'unknown' | 'broken' | 'too-large' | 'unsafe' | 'heic';

export class PictureError extends Error {
  override readonly name = 'PictureError';

  constructor(readonly fault: PictureFault) {
    super(fault);
  }
}
