import * as z from 'zod';

/** SHA-256 of a stored file, as 64 hexadecimal digits. */
export const FileHash = z.string().regex(/^[0-9a-f]{64}$/, 'a file hash has 64 hexadecimal digits');
export type FileHash = z.infer<typeof FileHash>;
