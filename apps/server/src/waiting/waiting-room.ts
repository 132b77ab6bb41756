import { CLOSE, pack } from '@cuaderno/core';
import type { Id, ServerMessage, Waiting } from '@cuaderno/core';
import type { WebSocket } from 'ws';
import type { Courses } from '../courses/service.js';
import type { Lessons } from '../lessons/service.js';
import { Allowance } from '../live/allowance.js';
import { EarlyComers } from './early.js';

/** Signs of life from a tutor's window: so many a second, and so many at once; and bytes of one. */
const RATE = 2;
const AT_ONCE = 20;
const MAX_BYTES = 200;

/** A window of a tutor that is told who waits, wherever in Cuaderno it is. */
interface Watcher {
  readonly socket: WebSocket;
  readonly tutor: Id;
  /** Whether the session it came with still lasts. */
  isOn(): boolean;
}

/**
 * Tells a tutor, on whatever screen they are, who is at the door of a lesson of theirs, and who waits for one that
 * isn't open yet.
 */
export class WaitingRoom {
  readonly early = new EarlyComers((course) => this.courseChanged(course));
  private readonly watchers = new Set<Watcher>();

  constructor(
    private readonly courses: Courses,
    private readonly lessons: Lessons,
    private readonly failed: (error: unknown, where: string) => void,
  ) {}

  /** A tutor's window; it is told at once, and then whenever something changes. */
  watch(watcher: Watcher): void {
    const { socket } = watcher;
    const allowance = new Allowance(RATE, AT_ONCE);
    this.watchers.add(watcher);
    socket.on('message', (data: Buffer) => {
      // A sign of life is answered; there is nothing else to say.
      if (!watcher.isOn()) return socket.close(CLOSE.notIn);
      if (data.length <= MAX_BYTES && allowance.take()) return say(socket, { kind: 'pong', n: 0 });
      socket.removeAllListeners('message');
      socket.close(CLOSE.flood);
    });
    socket.on('close', () => this.watchers.delete(watcher));
    socket.on('error', () => undefined);
    this.tell(watcher.tutor);
  }

  /** Somebody came to the door of a lesson of this tutor, or left it. */
  changed(tutor: Id): void {
    if ([...this.watchers].some((watcher) => watcher.tutor === tutor)) this.tell(tutor);
  }

  /** Sessions have ended: anyone who came by one of them hears nothing more. */
  sessionsEnded(): void {
    for (const { socket, isOn } of this.watchers) if (!isOn()) socket.close(CLOSE.notIn);
  }

  close(): void {
    this.early.close();
  }

  private courseChanged(course: Id): void {
    if (this.watchers.size === 0) return;
    this.courses.byId(course).then(
      (found) => found && this.changed(found.tutor),
      (error: unknown) => this.failed(error, 'who waits for a lesson'),
    );
  }

  private tell(tutor: Id): void {
    this.waitingFor(tutor).then(
      (who) => {
        for (const watcher of this.watchers)
          if (watcher.tutor === tutor && watcher.isOn())
            say(watcher.socket, { kind: 'waiting', who });
      },
      (error: unknown) => this.failed(error, 'who waits'),
    );
  }

  private async waitingFor(tutor: Id): Promise<Waiting[]> {
    const open = this.lessons.ofTutor(tutor);
    const who: Waiting[] = [];
    for (const lesson of open) {
      const names = lesson
        .arrivals()
        .filter(({ state }) => state === 'waiting')
        .map(({ name }) => name);
      if (names.length > 0) who.push(await this.waiting(lesson.course, lesson.tutorBoard, names));
    }
    const ofOpen = new Set(open.map(({ course }) => course));
    for (const course of this.early.waitedFor) {
      if (ofOpen.has(course)) continue;
      const found = await this.courses.byId(course);
      if (found?.tutor !== tutor) continue;
      who.push(await this.waiting(course, null, this.early.of(course)));
    }
    return who;
  }

  private async waiting(
    course: Id,
    board: Id | null,
    names: readonly (string | null)[],
  ): Promise<Waiting> {
    const found = await this.courses.byId(course);
    return { course, courseName: found?.name ?? '', board, names: [...names] };
  }
}

function say(socket: WebSocket, message: ServerMessage): void {
  if (socket.readyState === socket.OPEN) socket.send(pack(message));
}
