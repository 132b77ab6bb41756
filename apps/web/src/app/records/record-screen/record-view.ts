/** What is shown of a lesson. */
export type RecordView = 'end' | 'before' | 'replay' | 'statistics' | 'about';

export const RECORD_VIEWS: readonly { readonly view: RecordView; readonly label: string }[] = [
  { view: 'before', label: 'Before' },
  { view: 'end', label: 'At the end' },
  { view: 'replay', label: 'Replay' },
  { view: 'statistics', label: 'Statistics' },
  { view: 'about', label: 'About' },
];

/** Whether something else than the pages is shown. */
export function isBesidePages(view: RecordView): boolean {
  return view === 'statistics' || view === 'about';
}

/** What an address names, if it can be shown. */
export function recordView(name: string): RecordView | null {
  return RECORD_VIEWS.find(({ view }) => view === name)?.view ?? null;
}
