import { maySee, mayWriteOn, teaches } from '@cuaderno/core';
import type { Arrow, Id, Lamp, LitLamp, Place, ServerMessage } from '@cuaderno/core';
import { pack } from '@cuaderno/core';
import type { LiveLesson } from '../../../lessons/live-lesson.js';
import type { Classroom } from '../../classroom.js';
import type { LiveConnection } from '../../connection.js';
import type { ClientHandlers, LiveFeature } from '../feature.js';

/** The pointer, arrows left standing, and the lamp: what is shown on pages and is on none of them. */
export class Pointing implements LiveFeature<'pointing'> {
  readonly handlers: ClientHandlers<'pointing'> = {
    point: (window, { board, at }) => this.point(window, board, at),
    arrow: (window, { board, at }) => this.arrow(window, board, at),
    'arrows.clear': (window) => this.clear(window),
    lamp: (window, { board, lamp, final }) => this.lamp(window, board, lamp, final),
  };

  constructor(private readonly classroom: Classroom) {}

  /** On its way a dot may be lost; that it is gone never is. */
  point(from: LiveConnection, board: Id, at: Place | null): void {
    const { lesson } = from;
    if (!lesson || (at && !this.may(from, board, at.page))) return;
    const bytes = pack({ kind: 'point', by: from.person, board, at } satisfies ServerMessage);
    const audience = at ? this.classroom.audienceOf(lesson, board, at.page) : 'everyone';
    for (const window of this.classroom.windowsFor(lesson, audience)) {
      if (window === from) continue;
      if (at) window.sendLive(bytes);
      else window.send(bytes);
    }
  }

  /** Whoever goes takes their dot along. */
  leave(from: LiveConnection): void {
    this.point(from, '', null);
  }

  arrow(from: LiveConnection, board: Id, at: Place | null): void {
    const { lesson, person } = from;
    if (!lesson || (at && !this.may(from, board, at.page))) return;
    if (at) lesson.arrows.set(person, { ...at, board, by: person });
    else lesson.arrows.delete(person);
    this.tell(lesson);
  }

  /** Takes every arrow away. */
  clear({ lesson }: LiveConnection): void {
    if (!lesson) return;
    lesson.arrows.clear();
    this.tell(lesson);
  }

  /** @param rest whether the lamp stays so for now: until then a message may be lost */
  lamp(from: LiveConnection, board: Id, lamp: Lamp | null, final: boolean): void {
    const { lesson } = from;
    if (!lesson || (!teaches(from.role) && from.person !== lesson.lead)) return;
    if (lamp && !from.boardNow(board)?.pages.has(lamp.page)) return;
    lesson.lamp = lamp && { ...lamp, board };
    this.tell(lesson, !final);
  }

  restore(): void {
    // What was shown on pages isn’t kept: the one who pointed does so again.
  }

  sendSnapshot(window: LiveConnection): void {
    const { lesson } = window;
    if (lesson && (lesson.lamp || lesson.arrows.size > 0)) this.tellOne(window, lesson, false);
  }

  /** Something is hidden or shown from now on, or somebody has left. */
  tell(lesson: LiveLesson, live = false): void {
    for (const window of this.classroom.windows(lesson)) this.tellOne(window, lesson, live);
  }

  private tellOne(window: LiveConnection, lesson: LiveLesson, live: boolean): void {
    const sees = ({ board, page }: Arrow | LitLamp): boolean =>
      maySee(window.viewer, this.classroom.audienceOf(lesson, board, page));
    const { lamp } = lesson;
    const shown = {
      arrows: [...lesson.arrows.values()].filter(sees),
      lamp: lamp && sees(lamp) ? lamp : null,
    };
    const bytes = pack({ kind: 'shown', shown } satisfies ServerMessage);
    if (live) window.sendLive(bytes);
    else window.send(bytes);
  }

  /** Who may point on a page: the person who leads, and anyone who may write there. */
  private may(from: LiveConnection, board: Id, page: Id): boolean {
    const state = from.boardNow(board);
    const here = state?.pages.get(page);
    if (!state || !here) return false;
    return (
      teaches(from.role) ||
      (!here.hidden && (from.person === from.lesson?.lead || mayWriteOn(from.actor(), state, here)))
    );
  }
}
