import { Bold, Italic, List, ListOrdered } from 'lucide';

/** How words are written: with weight, slanted, in a list. */
export type TextMark = 'bold' | 'slant' | 'dots' | 'numbers';

export const TEXT_MARKS: readonly {
  readonly mark: TextMark;
  readonly label: string;
  readonly key: string;
  readonly icon: typeof Bold;
}[] = [
  { mark: 'bold', label: 'Bold', key: 'Ctrl+B', icon: Bold },
  { mark: 'slant', label: 'Slanted', key: 'Ctrl+I', icon: Italic },
  { mark: 'dots', label: 'List with dots', key: '', icon: List },
  { mark: 'numbers', label: 'List with numbers', key: '', icon: ListOrdered },
];
