/** Why a file can't be brought in. */
export type PdfFault = 'empty' | 'not-pdf' | 'truncated' | 'locked' | 'broken';

export class PdfError extends Error {
  override readonly name = 'PdfError';
  constructor(readonly fault: PdfFault) {
    super(fault);
  }
}
