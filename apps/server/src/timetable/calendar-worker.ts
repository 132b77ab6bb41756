import { CalendarError, readICalendar } from '@cuaderno/formats/icalendar';
import type { CalendarPlan, Skipped } from '@cuaderno/formats/icalendar';

export interface CalendarTask {
  readonly text: string;
  /** IANA zone of the person who imports it. */
  readonly own: string;
  /** Zones that it may mean by a name of its own. */
  readonly candidates: readonly string[];
}

export type CalendarNews =
  | { readonly kind: 'plans'; readonly plans: CalendarPlan[]; readonly skipped: Skipped[] }
  | { readonly kind: 'fault'; readonly fault: CalendarError['fault'] };

/** What can be planned of a calendar. */
export function readCalendar({ text, own, candidates }: CalendarTask): CalendarNews {
  try {
    return { kind: 'plans', ...readICalendar(text, own, candidates) };
  } catch (error) {
    if (!(error instanceof CalendarError)) throw error;
    return { kind: 'fault', fault: error.fault };
  }
}
