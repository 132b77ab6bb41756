/** What is asked of a PDF that is open: what its file says of itself. */
interface DescribedPdf {
  getMetadata(): Promise<{ info: object }>;
}

/**
 * Whether its maker has forbidden to change, copy or print a PDF (ISO 32000-1, 7.6): then it is encrypted, or was, before
 * what was written on it was taken out (see `pdf-source/protection`).
 */
export async function isProtected(doc: DescribedPdf): Promise<boolean> {
  const info = (await doc.getMetadata()).info as {
    EncryptFilterName?: string | null;
    Custom?: { CuaProtected?: unknown };
  };
  return typeof info.EncryptFilterName === 'string' || info.Custom?.CuaProtected === true;
}
