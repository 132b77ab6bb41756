import { open } from 'node:fs/promises';

/** How many times as large as an upload may be what is packed in it. */
export const UNPACKED = 4;

/** Begins a zip, or its end where it is empty (APPNOTE.TXT, 4.3), and OLE2 files (MS-CFB, 2.2). */
const PACKED = ['PK\x03\x04', 'PK\x05\x06', '\xd0\xcf\x11\xe0'];

/** Whether a file is one in which others are packed, as decks and saved boards are. */
export async function isPacked(path: string): Promise<boolean> {
  const handle = await open(path);
  try {
    const { buffer } = await handle.read(Buffer.alloc(4), 0, 4, 0);
    return PACKED.includes(buffer.toString('latin1'));
  } finally {
    await handle.close();
  }
}
