import { Title } from '@cuaderno/contract/courses';

/** Longest title that is made of a file's name, in characters; longer ones are cut. */
const MAX_TITLE = 120;

/** A title from a file's name: without its ending, and no longer than a title may be. */
export function titleFromFileName(name: string): string {
  const base = name.replace(/^.*[\\/]/, '').replace(/\.(pdf|pptx?|odp|zip)$/i, '');
  const title = Title.safeParse([...base].slice(0, MAX_TITLE).join(''));
  return title.data ?? 'Board';
}
