import { encode } from 'uqr';

/**
 * A text as a QR code (ISO/IEC 18004): its dark squares as one SVG path, a unit each, with the quiet zone of
 * four units around it that readers need.
 */
export function qrPath(text: string): { readonly size: number; readonly path: string } {
  const { data, size } = encode(text, { ecc: 'M', border: 4 });
  const path = data
    .flatMap((row, y) => row.map((dark, x) => (dark ? `M${x} ${y}h1v1h-1z` : '')))
    .join('');
  return { size, path };
}
