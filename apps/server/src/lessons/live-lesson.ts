import { afterWord, GivenRole, maySee, teaches } from '@cuaderno/core';
import type {
  Actor,
  Arrival,
  Arrow,
  Audience,
  DoorState,
  DoorWord,
  Id,
  LessonBoard,
  LitLamp,
  Machine,
  Person,
  Role,
  Rules,
  Signal,
  Trust,
  View,
  Viewer,
  WindowSize,
} from '@cuaderno/core';

/** Someone who came to a lesson, whether they are in it or not. */
export interface Participant {
  readonly id: Id;
  readonly name: string;
  readonly nameOrdinal: number;
  role: Role;
  /** SHA-256 of what their browser keeps; a tutor has none. */
  readonly device: string | null;
  /** Whom the link was made for that they came by, if it was a guest's. */
  readonly guest: string | null;
  trust: Trust;
  /** What is said for them besides their pen. */
  rules: Rules;
  door: DoorState;
  /** When they came to the door, last, in ms since 1970. */
  since: number;
  /** The name under which this browser was let into the course before, if it was. */
  known: string | null;
  /** Windows connected just now, in the lesson and at its door. */
  windows: number;
  doorWindows: number;
  board: Id | null;
  page: Id | null;
  /** Counts hands in the order in which they went up; `null` while it is down. */
  handAt: number | null;
  signal: Signal | null;
  /** What their window is on, and what it shows. */
  machine: Machine | null;
  view: View | null;
  size: WindowSize | null;
  /** How long a word takes to them and back, in ms, last. */
  roundTrip: number | null;
}

/** Bytes of ink and words of one student, and of all, that a lesson keeps at most: twenty hours of a pen that never rests. */
const MOST_OF_ONE = 24_000_000;
const MOST_OF_ALL = 240_000_000;

/** What is known of someone when they come. */
export type JoinRequest = Pick<
  Participant,
  'id' | 'name' | 'nameOrdinal' | 'role' | 'trust' | 'rules' | 'door' | 'device' | 'guest'
>;

/** An open lesson: who is in it, and who holds a pen. Kept in memory; its changes go to disk too. */
export class LiveLesson {
  private readonly people = new Map<Id, Participant>();
  /** Bytes that each student has written so far, as far as this server knows, and all of them. */
  private readonly written = new Map<Id, number>();
  private writtenByAll = 0;
  /** Since when nobody who teaches has had a window on it, in ms since 1970; `null` while one has. */
  tutorAwaySince: number | null = Date.now();

  /** Its boards in the order in which they came. */
  private readonly boards = new Map<Id, LessonBoard>();

  /** Whether students' windows follow the tutor's, and what that showed last. */
  inStep = false;
  view: { readonly board: Id; readonly view: View } | null = null;

  /** What holds for all students where nothing else is said for one; who comes late has this, too. */
  rules: Rules = {};
  /** The student who leads; `null` while the tutor does. */
  lead: Id | null = null;
  /** When it is to end, in ms since 1970; `null` where that isn't planned. */
  endsAt: number | null = null;
  nextHand = 1;
  /** Arrows that stand on pages, one for each who left one, and the lamp. */
  readonly arrows = new Map<Id, Arrow>();
  lamp: LitLamp | null = null;

  constructor(
    readonly id: Id,
    readonly course: Id,
    readonly openedAt: number,
    readonly tutor: Id,
  ) {}

  /** It is on this board from now on, last of its boards if it wasn't before. */
  putBoard(board: LessonBoard): void {
    this.boards.set(board.id, board);
  }

  isOn(board: Id): boolean {
    return this.boards.has(board);
  }

  /** Whether the class has a board. */
  shows(board: Id): boolean {
    return this.boards.get(board)?.shown ?? false;
  }

  allBoards(): LessonBoard[] {
    return [...this.boards.values()];
  }

  /** Where anyone begins who comes: on the board of the one who leads, or the one that the class was given last. */
  get startBoard(): Id {
    const led = this.people.get(this.leader)?.board;
    if (led && this.shows(led)) return led;
    const all = this.allBoards();
    return (all.findLast(({ shown }) => shown) ?? all[0]!).id;
  }

  /** Where its tutor is, or was last. */
  get tutorBoard(): Id {
    return this.people.get(this.tutor)?.board ?? this.startBoard;
  }

  add(person: JoinRequest, since = Date.now(), known: string | null = null): Participant {
    const participant: Participant = {
      ...person,
      since,
      known,
      windows: 0,
      doorWindows: 0,
      board: null,
      page: null,
      handAt: null,
      signal: null,
      machine: null,
      view: null,
      size: null,
      roundTrip: null,
    };
    this.people.set(person.id, participant);
    return participant;
  }

  /** Anyone who came, in or not. */
  person(id: Id): Participant | undefined {
    return this.people.get(id);
  }

  /** The person who came with this browser. */
  ofDevice(device: string): Participant[] {
    return [...this.people.values()].filter((person) => person.device === device);
  }

  /** Students who are in; neither those who help nor those who watch. */
  students(): Participant[] {
    return this.allArrivals().filter(({ door, role }) => door === 'in' && role === 'student');
  }

  /** Whether somebody is kept out: a stranger may be them, without what their browser kept. */
  get keepsOut(): boolean {
    return this.allArrivals().some(({ door }) => door === 'barred');
  }

  /** Whether anyone who teaches has a window on it. */
  get isTaught(): boolean {
    for (const { role, windows } of this.people.values())
      if (teaches(role) && windows > 0) return true;
    return false;
  }

  /** Whether somebody can be given the lead. */
  mayLead(id: Id): boolean {
    const role = this.people.get(id)?.role;
    return this.hasIn(id) && (role === 'student' || role === 'helper');
  }

  /** Whether somebody is in it. */
  hasIn(id: Id): boolean {
    return this.people.get(id)?.door === 'in';
  }

  /** How many came besides its tutor, in or not. */
  get came(): number {
    return this.allArrivals().length;
  }

  /**
   * Takes the tutor's word for one, or for all who wait; returns to whom it applied.
   * @param as what who is let in is from now on; who is in already, as something else, is let in anew
   */
  word(who: Id | 'all', word: DoorWord, as?: GivenRole): Participant[] {
    const meant = this.allArrivals().filter((person) =>
      who === 'all' ? person.door === 'waiting' && person.doorWindows > 0 : person.id === who,
    );
    return meant.filter((person) => {
      const door = afterWord(person.door, word);
      if (door) person.door = door;
      const changes = word === 'in' && as !== undefined && person.role !== as;
      return door !== null || (changes && person.door === 'in');
    });
  }

  /** How many of this name came before, plus one. */
  nextOrdinal(name: string): number {
    const same = name.toLocaleLowerCase();
    const taken = [...this.people.values()].filter((p) => p.name.toLocaleLowerCase() === same);
    return Math.max(0, ...taken.map(({ nameOrdinal }) => nameOrdinal)) + 1;
  }

  actor(id: Id): Actor {
    const person = this.people.get(id);
    return person?.door === 'in'
      ? { id, role: person.role, trust: person.trust, person: person.rules, course: this.rules }
      : { id, role: 'student', trust: 'view' };
  }

  /** Whether so many bytes more of a student's are kept with the lesson. */
  mayKeep(id: Id, bytes: number): boolean {
    return (
      (this.written.get(id) ?? 0) + bytes <= MOST_OF_ONE && this.writtenByAll + bytes <= MOST_OF_ALL
    );
  }

  keeps(id: Id, bytes: number): void {
    this.written.set(id, (this.written.get(id) ?? 0) + bytes);
    this.writtenByAll += bytes;
  }

  /** Who leads just now. */
  get leader(): Id {
    return this.lead ?? this.tutor;
  }

  /** The page of a board that the one who leads is on, if they are on that board. */
  leaderPage(board: Id): Id | null {
    const leader = this.people.get(this.leader);
    return leader?.board === board ? leader.page : null;
  }

  /**
   * Everyone who is in, in order of arrival, as one of them sees it. Where students look and what they
   * signal is the tutor's to know; where the one who leads is, everyone's.
   * @param audienceOf whom a page of a board is for
   */
  list(viewer: Viewer, audienceOf: (board: Id, page: Id) => Audience): Person[] {
    const all = [...this.people.values()].filter(({ door }) => door === 'in');
    const hands = all.filter(({ handAt }) => handAt !== null).sort((a, b) => a.handAt! - b.handAt!);
    return all.map((person) => {
      const tells = maySee(viewer, 'tutors');
      const own = maySee(viewer, new Set([person.id]));
      const { id, name, nameOrdinal, trust, rules, signal, machine, view, size, roundTrip } =
        person;
      const isFollowed =
        id === this.leader && maySee(viewer, audienceOf(person.board ?? '', person.page ?? ''));
      return {
        id,
        name,
        nameOrdinal,
        role: person.role,
        trust,
        here: person.windows > 0,
        board: tells || isFollowed ? person.board : null,
        page: tells || isFollowed ? person.page : null,
        rules: own ? rules : {},
        hand: person.handAt === null ? null : hands.indexOf(person) + 1,
        signal: own ? signal : null,
        machine: tells ? machine : null,
        roundTrip: tells ? roundTrip : null,
        view: tells || viewer.id === this.leader ? view : null,
        size: tells || viewer.id === this.leader ? size : null,
      };
    });
  }

  /** Everyone who is at the door just now, and everyone who was sent out. */
  arrivals(): Arrival[] {
    return this.allArrivals()
      .filter(
        ({ door, doorWindows }) =>
          door === 'out' || door === 'barred' || (door !== 'in' && doorWindows > 0),
      )
      .map(({ id, name, nameOrdinal, role, door, since, known, guest }) => ({
        id,
        name,
        nameOrdinal,
        role: GivenRole.catch('student').parse(role),
        state: door,
        since,
        known,
        guest,
      }));
  }

  private allArrivals(): Participant[] {
    return [...this.people.values()].filter(({ role }) => role !== 'tutor');
  }
}
