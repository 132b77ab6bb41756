import { PathBuffer, polyline } from '../../display/index.js';
import type { DisplaySink } from '../../display/index.js';
import { compose, corners, frameMatrix } from '../../geometry/index.js';
import type { Matrix } from '../../geometry/index.js';
import { eastAsianIn, plainText } from '../../text/index.js';
import type { TextSpec } from './spec.js';

/** Its slip, and its words where they were laid. */
export function drawText(item: TextSpec, sink: DisplaySink): void {
  const { frame, slip, lines, font, size, colour } = item;
  const eastAsian = eastAsianIn(plainText(item.text));
  if (slip) {
    const path = new PathBuffer();
    polyline(path, corners(frame), true);
    sink.path(path, slip, 'normal', null);
  }
  const { width, height } = frame;
  const [a, b, c, d, e, f] = frameMatrix(frame);
  // Points along the frame's own sides.
  const along: Matrix = [a / width, b / width, c / height, d / height, e, f];
  for (const { y, runs } of lines)
    for (const { text, x, width: wide, bold, slant, rtl } of runs)
      sink.text({
        kind: 'text',
        text,
        font,
        bold: bold ?? false,
        slant: slant ?? false,
        size,
        colour,
        width: wide,
        rtl: rtl ?? false,
        ...(eastAsian.length > 0 ? { eastAsian } : {}),
        matrix: compose([1, 0, 0, 1, x, y], along),
      });
}
