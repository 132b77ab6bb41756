import * as z from 'zod';
import { BoardOutline, PageSnapshot } from '../board/index.js';
import { Id, ids } from '../id/index.js';
import { HighlightName, InkName } from '../ink/index.js';
import { Operation, ToldOperation } from '../ops/index.js';
import { DoorState, DoorWord, Role, Rules, RulesOver, Trust } from '../permissions/index.js';
import { Arrival, Machine, Person, Waiting } from './person.js';
import { Problem } from './problem.js';
import { Lamp, Place, Shown } from './showing.js';
import { ChatLine, ChatTo, MAX_CHAT, Signal } from './talk.js';
import { View, WindowSize } from './view.js';

/** Number of this protocol. A browser with another one is asked to reload. */
export const PROTOCOL = 7;

/** Pages in one message at most. */
export const MAX_PAGES = 50;
/** Operations in one message at most. */
export const MAX_OPERATIONS = 100;
const seq = z.number().int().min(0);
const bytes = (max: number) =>
  z.custom<Uint8Array>(
    (value) => value instanceof Uint8Array && value.length <= max,
    `at most ${max} bytes`,
  );

const width = z.number().positive().max(200);
const Style = z.discriminatedUnion('tool', [
  z.strictObject({ tool: z.literal('pen'), ink: InkName, width }),
  z.strictObject({ tool: z.literal('highlighter'), ink: HighlightName, width }),
]);

/** A stroke begins: where and how it is drawn, and its first points. May be lost, never stored. */
const LiveInk = z.strictObject({
  kind: z.literal('live.ink'),
  start: z.strictObject({ page: Id, style: Style }),
  points: bytes(20_000),
});

/** The next points of a stroke under way, at frame rate: see `live-piece.ts`, also for how it travels. */
const LiveMore = z.strictObject({ kind: z.literal('live.more'), piece: bytes(20_000) });

/** What stands for a stroke under way. The id of the operation that it will be is its writer's alone until that is kept. */
const number = z.number().int().min(0);

/** What a browser sends. */
export const ClientMessage = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('hello'),
    protocol: z.number().int(),
    /** Last entry this browser has, or -1 for none: then the board is sent as it is. */
    since: z.number().int().min(-1),
  }),
  z.strictObject({
    kind: z.literal('ops'),
    ops: z.array(Operation).min(1).max(MAX_OPERATIONS),
  }),
  /** `stroke` is the id of the operation that follows. */
  LiveInk.extend({ stroke: Id }),
  LiveMore,
  /** The stroke under way was given up. */
  z.strictObject({ kind: z.literal('live.end'), stroke: Id }),
  /** What is on these pages is to be sent. */
  z.strictObject({ kind: z.literal('pages'), ids: ids(MAX_PAGES) }),
  /** Which page this browser shows. */
  z.strictObject({ kind: z.literal('look'), page: Id }),
  /** Gives or takes pens: one person's or every student's. The tutor's alone to send. */
  z.strictObject({ kind: z.literal('trust'), who: z.union([Id, z.literal('all')]), trust: Trust }),
  /** Says what else someone may do, or the class; `null` unsays it. The tutor's alone to send. */
  z.strictObject({
    kind: z.literal('rules'),
    who: z.union([Id, z.literal('all')]),
    over: RulesOver,
  }),
  /** Hands over the lead, or takes it back with `null`. The tutor's alone to send. */
  z.strictObject({ kind: z.literal('lead'), who: Id.nullable() }),
  /** Plans the end of the lesson, in ms since 1970. The tutor's alone to send. */
  z.strictObject({ kind: z.literal('plan'), endsAt: z.number().min(0).max(1e14).nullable() }),
  /** Raises one's own hand or lowers it. */
  z.strictObject({ kind: z.literal('hand'), up: z.boolean() }),
  /** Lowers someone's hand, or all. The tutor's alone to send. */
  z.strictObject({ kind: z.literal('lower'), who: z.union([Id, z.literal('all')]) }),
  z.strictObject({ kind: z.literal('signal'), signal: Signal.nullable() }),
  /** Takes all signals in. The tutor's alone to send. */
  z.strictObject({ kind: z.literal('signals.clear') }),
  z.strictObject({
    kind: z.literal('chat'),
    id: Id,
    to: ChatTo,
    text: z.string().max(4 * MAX_CHAT),
  }),
  /** Empties the chat. The tutor's alone to send. */
  z.strictObject({ kind: z.literal('chat.empty') }),
  /** Where one points; at frame rate, may be lost. `null` takes the dot away. */
  z.strictObject({ kind: z.literal('point'), at: Place.nullable() }),
  /** Leaves one's arrow standing, or takes it away. */
  z.strictObject({ kind: z.literal('arrow'), at: Place.nullable() }),
  /** Takes everyone's arrows away. The tutor's alone to send. */
  z.strictObject({ kind: z.literal('arrows.clear') }),
  /** Lights the lamp, moves it, or puts it out. */
  z.strictObject({ kind: z.literal('lamp'), lamp: Lamp.nullable(), rest: z.boolean() }),
  /** What this window shows while it isn't followed by others, and on what machine; when it rests. */
  z.strictObject({ kind: z.literal('window'), machine: Machine, size: WindowSize, view: View }),
  /** Lets in who waits, sends out who is in. The tutor's alone to send. */
  z.strictObject({ kind: z.literal('door'), who: z.union([Id, z.literal('all')]), word: DoorWord }),
  /** Whether students' windows follow the tutor's from now on. The tutor's alone to send. */
  z.strictObject({ kind: z.literal('step'), on: z.boolean() }),
  /** What the tutor's window shows; at frame rate, and once more when it rests. */
  z.strictObject({ kind: z.literal('view'), view: View, rest: z.boolean() }),
  /** Brings every student's window here, once. The tutor's alone to send. */
  z.strictObject({ kind: z.literal('gather'), view: View }),
  z.strictObject({ kind: z.literal('ping'), n: z.number().int().min(0) }),
]);
export type ClientMessage = z.infer<typeof ClientMessage>;

/** Entries of one person at one time: entry `from`, `from + 1` …, one for each operation. */
const Entries = z.strictObject({
  from: seq,
  by: Id,
  at: z.number(),
  ops: z.array(ToldOperation),
});
export type Entries = z.infer<typeof Entries>;

/** What the server sends. */
export const ServerMessage = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('welcome'),
    you: Id,
    role: Role,
    /** What time it is for the server, in ms since 1970. */
    now: z.number(),
    /** The lesson that is open on this board, if one is. */
    lesson: z.strictObject({ id: Id, openedAt: z.number() }).nullable(),
    /** The page to begin on: where the tutor is. */
    page: Id.nullable(),
    /**
     * The board, with what is on the page in view; what is on the others is asked for. `null` where all
     * that was missed follows as `applied`.
     */
    board: BoardOutline.nullable(),
  }),
  /** What was asked for: those of these pages that there are, as they stand after entry `seq`. */
  z.strictObject({
    kind: z.literal('pages'),
    seq,
    ids: z.array(Id),
    pages: z.array(PageSnapshot),
  }),
  /** Someone's operations, in their place and on disk. */
  Entries.extend({ kind: z.literal('applied') }),
  /** One's own operations are in their place and on disk; `ids` are theirs, in order of `seq`. */
  z.strictObject({
    kind: z.literal('confirmed'),
    at: z.number(),
    seqs: z.array(seq),
    ids: z.array(Id),
  }),
  z.strictObject({ kind: z.literal('refused'), id: Id, problem: Problem }),
  /** `n` stands for the stroke in the pieces that follow. */
  LiveInk.extend({ by: Id, n: number }),
  LiveMore.extend({ n: number }),
  /** It is this item by now, which follows, or was given up. */
  z.strictObject({ kind: z.literal('live.end'), n: number, item: Id.nullable() }),
  /** Everyone in the lesson, in order of arrival. */
  z.strictObject({ kind: z.literal('people'), people: z.array(Person) }),
  /** To the tutor: who is at the door, and who was sent out, in order of coming. */
  z.strictObject({ kind: z.literal('door'), arrivals: z.array(Arrival) }),
  /** Who waits for any of a tutor's lessons, for whatever screen the tutor is on. */
  z.strictObject({ kind: z.literal('waiting'), who: z.array(Waiting) }),
  /** To someone at the door: where they stand. */
  z.strictObject({ kind: z.literal('door.state'), state: DoorState }),
  z.strictObject({ kind: z.literal('step'), on: z.boolean() }),
  /** What holds for the class, and who leads: `null` while the tutor does. */
  z.strictObject({
    kind: z.literal('class'),
    rules: Rules,
    lead: Id.nullable(),
    /** When the lesson is to end, in ms since 1970, if that was planned. */
    endsAt: z.number().nullable(),
  }),
  /** Messages that were written, the earlier first; all that one may read when one comes. */
  z.strictObject({ kind: z.literal('chat'), lines: z.array(ChatLine) }),
  z.strictObject({ kind: z.literal('chat.empty') }),
  z.strictObject({ kind: z.literal('point'), by: Id, at: Place.nullable() }),
  z.strictObject({ kind: z.literal('shown'), shown: Shown }),
  /** What the tutor's window shows, to be shown here too; `once` leaves it free to move after that. */
  z.strictObject({ kind: z.literal('view'), view: View, once: z.boolean() }),
  z.strictObject({
    kind: z.literal('lesson'),
    lesson: z.strictObject({ id: Id, openedAt: z.number() }).nullable(),
  }),
  /** Whether what is written can be kept just now: while the disk is full, writing rests. */
  z.strictObject({ kind: z.literal('keeping'), on: z.boolean() }),
  /** The lesson was closed; nothing more will come. */
  z.strictObject({ kind: z.literal('over'), at: z.number() }),
  /** What students may look at of the tutor's materials isn't what it was. */
  z.strictObject({ kind: z.literal('materials') }),
  /** A file was handed over, fetched or taken back. */
  z.strictObject({ kind: z.literal('handed') }),
  /** To the tutor: late lines have come, or wait no more. To a student: the tutor has added theirs, or left them. */
  z.strictObject({ kind: z.literal('late') }),
  /** A message was not taken; the connection goes on. */
  z.strictObject({ kind: z.literal('problem'), problem: Problem }),
  z.strictObject({ kind: z.literal('pong'), n: z.number().int() }),
]);
export type ServerMessage = z.infer<typeof ServerMessage>;
