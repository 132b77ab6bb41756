import type { Calendar, CalendarOptions, EventInput } from '@fullcalendar/core';
import {
  ChangeDetectionStrategy,
  Component,
  CSP_NONCE,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  ViewEncapsulation,
} from '@angular/core';
import { wallTimeOf } from '@cuaderno/core/timetable';
import type { Planned } from '../../api/timetable';
import { loadCalendarEngine } from './calendar-engine';
import type { WeekEntry } from './week-entries';

/** The hours that are shown at least, and how many beside the first and last lesson. */
const [FIRST, LAST, BESIDE] = [8, 20, 1];

/** A date of a plan that was carried to another time. */
export interface Carried {
  readonly lesson: Planned;
  /** When it would begin, in ms since 1970. */
  readonly at: number;
  /** Puts it back where it was. */
  readonly putBack: () => void;
}

/**
 * A week on an axis of hours: lessons as long as they are, the line of now, those that took place. A lesson can be carried
 * to another time; by keys, its dialog does the same.
 */
@Component({
  selector: 'cua-week-grid',
  template: '',
  styleUrl: './week-grid.scss',
  // What is drawn in it isn't a template of ours.
  encapsulation: ViewEncapsulation.None,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WeekGrid {
  /** Its Monday, as `2026-11-30`. */
  readonly monday = input.required<string>();
  /** IANA time zone by whose clock it is shown. */
  readonly zone = input.required<string>();
  readonly entries = input.required<readonly WeekEntry[]>();
  readonly chosen = output<WeekEntry>();
  /** A day and a time on which nothing is, as `2026-12-01T16:30`. */
  readonly free = output<string>();
  readonly carried = output<Carried>();

  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  private readonly calendar = signal<Calendar | null>(null);

  constructor() {
    const nonce = inject(CSP_NONCE);
    let gone = false;
    inject(DestroyRef).onDestroy(() => {
      gone = true;
      this.calendar()?.destroy();
    });
    void loadCalendarEngine(nonce).then(({ Calendar, plugins }) => {
      if (gone) return;
      const calendar = new Calendar(this.host, {
        ...this.options(),
        plugins,
        initialDate: untracked(this.monday),
        timeZone: untracked(this.zone),
      });
      calendar.render();
      this.calendar.set(calendar);
    });
    effect(() => {
      const [calendar, entries, zone] = [this.calendar(), this.entries(), this.zone()];
      if (!calendar) return;
      calendar.setOption('timeZone', zone);
      const [from, to] = hoursOf(entries, zone);
      calendar.setOption('slotMinTime', `${from}:00`);
      calendar.setOption('slotMaxTime', `${to}:00`);
      // As high as the window lets it be: see the styles.
      this.host.style.setProperty('--slots', String(2 * (to - from)));
      calendar.gotoDate(this.monday());
      calendar.removeAllEventSources();
      calendar.addEventSource(entries.map(eventOf));
    });
  }

  private options(): CalendarOptions {
    const entryOf = (event: { extendedProps: object }): WeekEntry =>
      (event.extendedProps as { entry: WeekEntry }).entry;
    return {
      initialView: 'timeGridWeek',
      headerToolbar: false,
      firstDay: 1,
      allDaySlot: false,
      nowIndicator: true,
      height: 'auto',
      slotDuration: '00:30',
      snapDuration: '00:05',
      slotLabelInterval: '01:00',
      slotLabelFormat: { hour: '2-digit', minute: '2-digit', hour12: false },
      dayHeaderFormat: { weekday: 'short', day: 'numeric', month: 'short' },
      locale: 'en-GB',
      slotEventOverlap: false,
      eventMinHeight: 22,
      editable: true,
      eventDurationEditable: false,
      eventInteractive: true,
      longPressDelay: 400,
      eventContent: ({ event }) => ({ domNodes: contentOf(entryOf(event)) }),
      eventDidMount: ({ el, event }) => {
        const { held, said } = entryOf(event);
        el.setAttribute('role', held ? 'link' : 'button');
        el.setAttribute('aria-label', said);
      },
      eventClick: ({ event }) => this.chosen.emit(entryOf(event)),
      dateClick: ({ dateStr }) => this.free.emit(dateStr.slice(0, 16)),
      eventDrop: ({ event, revert }) => {
        const { lesson } = entryOf(event);
        if (lesson && event.start)
          this.carried.emit({ lesson, at: event.start.getTime(), putBack: revert });
        else revert();
      },
    };
  }
}

function eventOf(entry: WeekEntry): EventInput {
  const { key, at, until, kind, isClashing, lesson } = entry;
  return {
    ...{ id: key, start: at, end: until, extendedProps: { entry } },
    classNames: [kind, ...(isClashing ? ['clashing'] : [])],
    startEditable: lesson !== null && kind === 'planned',
  };
}

/** What stands in a lesson: its time, whose it is, and what is to be known of it. */
function contentOf({ time, name, more }: WeekEntry): HTMLElement[] {
  const parts: [tag: string, cls: string, text: string][] = [
    ['span', 'time', time],
    ['bdi', 'name', name],
    ...more.map((text) => ['bdi', 'more', text] as [string, string, string]),
  ];
  return parts.map(([tag, cls, text]) => {
    const part = document.createElement(tag);
    part.className = cls;
    part.textContent = text;
    return part;
  });
}

/** The hours that are to be seen, from and to. */
function hoursOf(entries: readonly WeekEntry[], zone: string): [from: number, to: number] {
  let [from, to] = [FIRST, LAST];
  for (const { at, until } of entries) {
    const [begins, ends] = [wallTimeOf(at, zone), wallTimeOf(until, zone)];
    from = Math.min(from, Number(begins.slice(11, 13)) - BESIDE);
    const overNight = ends.slice(0, 10) > begins.slice(0, 10);
    to = Math.max(to, overNight ? 24 : Number(ends.slice(11, 13)) + 1 + BESIDE);
  }
  return [Math.max(0, from), Math.min(24, to)];
}
