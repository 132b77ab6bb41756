import {
  boardFromOutline,
  packMessage,
  pageFromSnapshot,
  PROTOCOL,
  readServerMessages,
} from '@cuaderno/core';
import type { Board, ClientMessage, DoorRule, Id, Problem, ServerMessage } from '@cuaderno/core';
import type { FastifyInstance, LightMyRequestResponse } from 'fastify';
import { rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import WebSocket from 'ws';
import { buildApp } from '../app.js';
import { testConfig } from '../config.js';
import type { Config } from '../config.js';
import { layFreshDatabase } from './fresh-database.js';
import { SharedWorkers } from './shared-workers.js';

/** A browser's cookies, and the requests it makes. */
export class Visitor {
  private readonly cookies = new Map<string, string>();

  constructor(private readonly app: FastifyInstance) {}

  /** As a browser sends them, one after the other. */
  get cookie(): string {
    return [...this.cookies.values()].join('; ');
  }

  set cookie(text: string) {
    this.cookies.clear();
    for (const pair of text.split('; ')) this.keep(pair);
  }

  /** The same browser, at a server that was started anew. */
  movedTo(app: FastifyInstance): Visitor {
    const visitor = new Visitor(app);
    visitor.cookie = this.cookie;
    return visitor;
  }

  async request(
    method: 'GET' | 'POST',
    url: string,
    payload?: object | Buffer,
    headers: Record<string, string> = {},
  ): Promise<LightMyRequestResponse> {
    const response = await this.app.inject({
      method,
      url: `/api${url}`,
      headers: { cookie: this.cookie, ...headers },
      ...(payload ? { payload } : {}),
    });
    const set = response.headers['set-cookie'];
    for (const cookie of [set ?? []].flat()) this.keep(cookie.split(';')[0]!);
    return response;
  }

  private keep(pair: string): void {
    this.cookies.set(pair.slice(0, pair.indexOf('=')), pair);
  }

  get(url: string): Promise<LightMyRequestResponse> {
    return this.request('GET', url);
  }

  post(url: string, body: object = {}): Promise<LightMyRequestResponse> {
    return this.request('POST', url, body);
  }

  upload(course: string, name: string, bytes: Buffer): Promise<LightMyRequestResponse> {
    const url = `/courses/${course}/boards/import?name=${encodeURIComponent(name)}`;
    return this.request('POST', url, bytes, { 'content-type': 'application/octet-stream' });
  }
}

/** Longest that is waited for a word, in ms: a machine that many share stands still for a minute now and then. */
const PATIENCE = 90_000;

/** As a window sends it; which board it is about needn't be said, where that is the one it opened first. */
export type Unplaced<M> = M extends { readonly board: Id }
  ? Omit<M, 'board'> & { readonly board?: Id }
  : M;

/** A connected window, with all it was told. */
export class Window {
  readonly told: ServerMessage[] = [];
  /** The board that it opened first. */
  board: Id | null = null;
  private readonly waiting = new Set<() => void>();
  closed: number | null = null;

  constructor(readonly socket: WebSocket) {
    socket.binaryType = 'nodebuffer';
    socket.on('message', (data: Buffer) => {
      const messages = readServerMessages(data);
      this.told.push(...messages);
      for (const message of messages)
        if (message.kind === 'board.opened') this.board ??= message.board;
      for (const check of this.waiting) check();
    });
    socket.on('close', (code) => {
      this.closed = code;
      for (const check of this.waiting) check();
    });
    socket.on('error', () => undefined);
  }

  send(message: Unplaced<ClientMessage>): void {
    this.socket.send(packMessage(this.placed(message)));
  }

  private placed(message: Unplaced<ClientMessage>): ClientMessage {
    const isPlaced = 'board' in message || !ON_BOARD.has(message.kind) || !this.board;
    return (isPlaced ? message : { ...message, board: this.board }) as ClientMessage;
  }

  /** Whatever was said so far or will be that fits; fails after a while. */
  hears<K extends ServerMessage['kind']>(
    kind: K,
    fits: (message: Extract<ServerMessage, { kind: K }>) => boolean = () => true,
  ): Promise<Extract<ServerMessage, { kind: K }>> {
    return this.until(() =>
      this.told.find(
        (m): m is Extract<ServerMessage, { kind: K }> =>
          m.kind === kind && fits(m as Extract<ServerMessage, { kind: K }>),
      ),
    );
  }

  /** So many of a kind, from the beginning. */
  async hearsTimes(kind: ServerMessage['kind'], times: number): Promise<void> {
    await this.until(() => this.told.filter((m) => m.kind === kind).length >= times || undefined);
  }

  /** Its board is here, or isn't to be had, or it isn't let in. */
  async isIn(): Promise<void> {
    const answers: ReadonlySet<string> = new Set(['board.opened', 'board.closed', 'problem']);
    await this.until(
      () => this.closed !== null || this.told.some(({ kind }) => answers.has(kind)) || undefined,
    );
  }

  /** Code with which the connection ended. */
  ends(): Promise<number> {
    return this.until(() => this.closed ?? undefined);
  }

  /** Whether an answer to this `ping` came before the connection ended. */
  isAlive(n: number): Promise<boolean> {
    this.send({ kind: 'ping', n });
    const pong = (): boolean => this.told.some((m) => m.kind === 'pong' && m.n === n);
    return this.until(() => pong() || (this.closed === null ? undefined : false));
  }

  /** The board as it was when this window came, all of it: what didn't come with it is asked for. */
  async wholeBoard(): Promise<Board> {
    const { outline } = await this.hears('board.opened');
    const { board, coming } = boardFromOutline(outline!);
    const ids = [...coming.keys()];
    if (ids.length === 0) return board;
    this.send({ kind: 'pages', ids });
    const { pages } = await this.hears('pages', (m) => m.ids.join() === ids.join());
    const rest = new Map(pages.map((page) => [page.id, pageFromSnapshot(page)]));
    return {
      ...board,
      pages: new Map([...board.pages].map(([id, page]) => [id, rest.get(id) ?? page])),
    };
  }

  /** The problem with this code. */
  async hearsProblem(code: string): Promise<Problem> {
    return (await this.hears('problem', (m) => m.problem.type === `urn:cuaderno:${code}`)).problem;
  }

  private until<T>(look: () => T | undefined): Promise<T> {
    return new Promise((resolve, reject) => {
      const check = (): void => {
        const found = look();
        if (found === undefined) return;
        clearTimeout(timer);
        this.waiting.delete(check);
        resolve(found);
      };
      const timer = setTimeout(() => {
        this.waiting.delete(check);
        reject(new Error(`Waited in vain; was told: ${this.told.map((m) => m.kind).join(', ')}`));
      }, PATIENCE);
      this.waiting.add(check);
      check();
    });
  }
}

/** Kinds of messages that are about a board. */
const ON_BOARD: ReadonlySet<string> = new Set<ClientMessage['kind']>([
  ...(['ops', 'pages', 'live.ink', 'page.viewed', 'window'] as const),
  ...(['view', 'gather', 'gather.one', 'point', 'arrow', 'lamp'] as const),
]);

const SHARED = new SharedWorkers();

/** A whole server with a folder of its own, a signed-in tutor, a course and a board. */
export class House {
  app!: FastifyInstance;
  tutor!: Visitor;
  course!: { id: string; linkToken: string; joinCode: string };
  board!: Id;
  port = 0;
  private readonly windows: Window[] = [];

  private constructor(private readonly config: Config) {}

  static async open(name: string, change: Partial<Config> = {}): Promise<House> {
    const house = new House(testConfig(name, { workers: SHARED, ...change }));
    rmSync(house.config.dataFolder, { recursive: true, force: true });
    await layFreshDatabase(house.config.dataFolder);
    await house.start();
    house.tutor = house.visitor();
    await house.tutor.post('/set-up', {
      name: 'Maren',
      email: 'maren@example.org',
      password: 'low-water-at-ten',
    });
    house.course = (await house.tutor.post('/courses', { name: 'Tides' })).json();
    // Most specs are about what happens inside: the door has its own.
    await house.setDoor('all');
    house.board = (
      await house.tutor.post(`/courses/${house.course.id}/boards`, { title: 'Ebb' })
    ).json<{ id: string }>().id;
    return house;
  }

  /** A server on a folder that is there; it has no tutor, course or board of its own. */
  static at(dataFolder: string): House {
    return new House(testConfig('at', { workers: SHARED, dataFolder }));
  }

  async start(): Promise<void> {
    this.app = await buildApp(this.config);
    await this.app.listen({ host: '127.0.0.1', port: 0 });
    this.port = (this.app.server.address() as AddressInfo).port;
  }

  /** Stops the server and starts it on the same folder. */
  async restart(): Promise<void> {
    await this.app.close();
    await this.start();
    this.tutor = this.tutor.movedTo(this.app);
  }

  /** The folder that holds everything. */
  get folder(): string {
    return this.config.dataFolder;
  }

  visitor(): Visitor {
    return new Visitor(this.app);
  }

  async close(): Promise<void> {
    for (const { socket } of this.windows) socket.terminate();
    await this.app.close();
    rmSync(this.config.dataFolder, { recursive: true, force: true });
  }

  async openLesson(): Promise<string> {
    return (await this.tutor.post(`/boards/${this.board}/lesson`)).json<{ id: string }>().id;
  }

  async setDoor(door: DoorRule): Promise<void> {
    await this.tutor.post(`/courses/${this.course.id}/door`, { door });
  }

  async student(name: string, visitor = this.visitor()): Promise<Visitor> {
    await visitor.post('/join', { by: { link: this.course.linkToken }, name });
    return visitor;
  }

  /** A request over the line itself, for what isn't answered in one piece. */
  fetch(who: Visitor, url: string, init: RequestInit = {}): Promise<Response> {
    return fetch(`http://127.0.0.1:${this.port}/api${url}`, {
      ...init,
      headers: { cookie: who.cookie, ...init.headers },
    });
  }

  /** Sends a file to a tutor's materials, whole. */
  async uploadMaterial(
    who: Visitor,
    name: string,
    bytes: Uint8Array,
    folder = '',
  ): Promise<Response> {
    const coded = (text: string): string => Buffer.from(text).toString('base64');
    return this.fetch(who, '/materials/uploads', {
      method: 'POST',
      headers: {
        'tus-resumable': '1.0.0',
        'upload-length': String(bytes.length),
        'upload-metadata': `name ${coded(name)},folder ${coded(folder)}`,
        'content-type': 'application/offset+octet-stream',
      },
      body: Buffer.from(bytes),
    });
  }

  /** Another tutor, who was invited. */
  async otherTutor(name: string): Promise<Visitor> {
    const { token } = (await this.tutor.post('/invitations')).json<{ token: string }>();
    const visitor = this.visitor();
    await visitor.post('/invitations/accept', {
      token,
      name,
      email: `${name.toLowerCase()}@example.org`,
      password: 'ropes-and-knots',
    });
    return visitor;
  }

  /** Connects; says hello unless told not to. */
  async window(who: Visitor, path = '/live/lesson', since: number | null = -1): Promise<Window> {
    const socket = new WebSocket(`ws://127.0.0.1:${this.port}${path}`, {
      headers: { cookie: who.cookie },
    });
    const window = new Window(socket);
    this.windows.push(window);
    await new Promise((resolve, reject) => socket.once('open', resolve).once('error', reject));
    const [, board = null] = /^\/live\/boards\/(.+)$/.exec(path) ?? [];
    if (since !== null)
      window.send({ kind: 'hello', protocol: PROTOCOL, boards: [{ board, since }] });
    if (since !== null) await window.isIn();
    return window;
  }

  tutorWindow(since: number | null = -1): Promise<Window> {
    return this.window(this.tutor, `/live/boards/${this.board}`, since);
  }

  /** A student with a window, and the tutor's; the student holds a pen if wished. */
  async lesson(pen = true): Promise<{
    maren: Window;
    ana: Window;
    anaId: Id;
    page: Id;
    student: Visitor;
    lesson: string;
  }> {
    const lesson = await this.openLesson();
    const student = await this.student('Ana');
    const [maren, ana] = await Promise.all([this.tutorWindow(), this.window(student)]);
    const welcome = await ana.hears('welcome');
    const { outline } = await ana.hears('board.opened');
    await maren.hears('board.opened');
    await maren.hears('people', ({ people }) => people.filter(({ here }) => here).length === 2);
    if (pen) {
      maren.send({ kind: 'trust', who: 'all', trust: 'write' });
      await ana.hears('people', ({ people }) =>
        people.some(({ id, trust }) => id === welcome.you && trust === 'write'),
      );
    }
    return { maren, ana, anaId: welcome.you, page: outline!.pages[0]!.id, student, lesson };
  }
}
