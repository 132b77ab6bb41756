import type { Calendar, PluginDef } from '@fullcalendar/core';

/** What draws weeks: its class, and the parts of it that we use. */
export interface CalendarEngine {
  readonly Calendar: typeof Calendar;
  readonly plugins: PluginDef[];
}

/**
 * Loads FullCalendar. It puts its styles into the page by itself as soon as its code runs, and takes the place that it finds
 * for them: here is one that the page's policy lets in.
 * @param nonce without which the policy lets no style in
 */
export async function loadCalendarEngine(nonce: string | null): Promise<CalendarEngine> {
  if (!document.head.querySelector('style[data-fullcalendar]')) {
    const place = document.createElement('style');
    place.setAttribute('data-fullcalendar', '');
    if (nonce) place.nonce = nonce;
    document.head.append(place);
  }
  const [{ Calendar }, timeGrid, interaction, luxon] = await Promise.all([
    import('@fullcalendar/core'),
    import('@fullcalendar/timegrid'),
    import('@fullcalendar/interaction'),
    import('@fullcalendar/luxon3'),
  ]);
  return { Calendar, plugins: [timeGrid.default, interaction.default, luxon.default] };
}
