import { create } from 'content-disposition';

/** The header of a file that is to be kept under a name (RFC 6266), whatever letters that has. */
export function attachment(name: string): string {
  return create(name);
}
