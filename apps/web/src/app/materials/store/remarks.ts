import type { Remark } from '@cuaderno/contract/materials';

const WORDS: Readonly<Record<Remark, string>> = {
  frames: 'moves; here its first picture stands still.',
  html: 'has text boxes that only web pages can show; they were left out. Save it with its text as paths to have them.',
  'some-browsers':
    'is of a kind that some browsers don’t play. As MP4 (H.264 and AAC) or MP3 it plays for everyone.',
};

/** In sentences, each file by its name; `null` where there is nothing to be said. */
export function formatRemarks(
  files: readonly { readonly name: string; readonly remarks: readonly Remark[] }[],
): string | null {
  const all = files.flatMap(({ name, remarks }) =>
    remarks.map((remark) => `“${name}” ${WORDS[remark]}`),
  );
  return all.length > 0 ? all.join(' ') : null;
}
