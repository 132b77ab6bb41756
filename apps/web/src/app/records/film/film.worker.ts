/// <reference lib="webworker" />
import { boardFromSnapshot, onlyBy, pagesInOrder } from '@cuaderno/core/board';
import { displayStroke } from '@cuaderno/core/display';
import { unpack } from '@cuaderno/core/wire';
import type { Board, BoardSnapshot, Page } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import type { KeptEntry } from '@cuaderno/core/log';
import { filmFrames, filmLength, Pace, Replay, pageInView } from '@cuaderno/core/replay';
import type { Drawing, Moment } from '@cuaderno/core/replay';
import {
  BufferTarget,
  CanvasSource,
  getFirstEncodableVideoCodec,
  Output,
  WebMOutputFormat,
} from 'mediabunny';
import { renderItemOf, paint } from '../../board/drawing/render-items';
import { Pictures } from '../../board/drawing/pictures';
import { allHere } from '../../board/drawing/all-here';
import { cssFont } from '../../board/drawing/text-fonts';
import { formatSecond } from '../../ui/time/format-time';
import { showTimesIn } from '../../ui/time/shown-zone';
import { knowFonts } from './fonts';
import { filmSize, placeOf, STRIP } from './film-size';
import type { FilmNews, FilmTask, FilmWord } from './film-task';
import { PageOnFilm } from './page-on-film';

/* Makes a film of a replay, away from the thread that draws: frame by frame, as fast as this machine can. */

/** Frames a second while something happens: a pen moves smoothly, and half as many would do for the eye. */
const RATE = 20;
/** How long a frame stands at most, in ms: players find their way in a film by its frames. */
const STILL = 2000;
/** Bits a pixel and second: lines on paper are little to tell. */
const BITS = 1.2;
const LETTERS = cssFont({ font: 'plain', bold: false, slant: false }, 18);
const GROUND = '#efe8dc';
const INK = '#16213f';
const SOFT = '#5b627d';
/** Pages that are kept drawn. */
const KEPT = 6;
/** Anyone who wrote this lately is named, in ms of the lesson. */
const LATELY = 1500;

const say = (news: FilmNews, transfer: Transferable[] = []): void => postMessage(news, transfer);

const asked = new Map<number, (bitmap: ImageBitmap | null) => void>();

addEventListener('message', ({ data }: MessageEvent<FilmWord>) => {
  if (data.kind === 'paper') {
    asked.get(data.ask)?.(data.bitmap);
    asked.delete(data.ask);
    return;
  }
  make(data).catch((error: unknown) => {
    say({ kind: 'fault', fault: 'failed', why: String(error) });
  });
});

async function make(task: FilmTask): Promise<void> {
  showTimesIn(task.zone);
  const { fonts } = self as unknown as { readonly fonts: FontFaceSet };
  knowFonts(task.fonts, fonts);
  const said = `0:/ ${task.people.map(({ label }) => label).join('')}`;
  await fonts.load(LETTERS, said).catch(() => undefined);
  const { before, entries } = unpack(task.log) as { before: BoardSnapshot; entries: KeptEntry[] };
  const replay = new Replay(boardFromSnapshot(before), entries);
  const pace = task.skipsIdle
    ? Pace.skippingIdle(task.whole, [...replay.events, ...task.beside])
    : Pace.even(task.whole);
  const wish = { speed: task.speed, rate: RATE, still: STILL };
  const frames = filmFrames(pace, replay.events, task.turns, wish);
  const end = replay.at(task.whole.to).board;
  const size = filmSize(pagesInOrder(end), replay.events);
  const codec = await getFirstEncodableVideoCodec(['vp9', 'vp8'], size);
  if (!codec) return say({ kind: 'fault', fault: 'no-encoder', why: '' });

  const canvas = new OffscreenCanvas(size.width, size.height);
  const target = new BufferTarget();
  const output = new Output({ format: new WebMOutputFormat(), target });
  const film = new CanvasSource(canvas, {
    codec,
    bitrate: Math.round(size.width * size.height * BITS),
    keyFrameInterval: 5,
    // What changes is a pen's tip: it need not be looked for everywhere.
    contentHint: 'text',
    latencyMode: 'realtime',
  });
  output.addVideoTrack(film, { frameRate: RATE });
  await output.start();
  const painter = new FilmPainter(canvas, task);
  for (const [i, { at, length, time }] of frames.entries()) {
    await painter.paint(replay.at(time), time, replay);
    await film.add(at / 1000, length / 1000);
    if (i % 25 === 0) say({ kind: 'progress', part: i / frames.length });
  }
  await output.finalize();
  const bytes = new Uint8Array(target.buffer!);
  say({ kind: 'done', film: bytes, length: filmLength(pace, wish) + STILL }, [bytes.buffer]);
}

/** Draws frames: the page that is shown then, lines under way on it, and a strip with the time under it. */
class FilmPainter {
  private readonly context: OffscreenCanvasRenderingContext2D;
  private readonly pictures = new Pictures();
  private readonly pages = new Map<Id, PageOnFilm>();
  private asks = 0;
  /** Deeds that were done by the last frame. */
  private done = 0;
  constructor(
    private readonly canvas: OffscreenCanvas,
    private readonly task: FilmTask,
  ) {
    this.context = canvas.getContext('2d', { alpha: false })!;
  }

  async paint(moment: Moment, time: number, replay: Replay): Promise<void> {
    const { only, turns } = this.task;
    const board = only ? onlyBy(moment.board, only) : moment.board;
    const pages = pagesInOrder(board);
    const id = pageInView(moment, turns, time);
    const page = pages.find((one) => one.id === id) ?? pages[0];
    const { context, canvas } = this;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'source-over';
    context.fillStyle = GROUND;
    context.fillRect(0, 0, canvas.width, canvas.height);
    if (page) {
      const place = placeOf(page, canvas);
      const picture = await this.pageOf(page, place);
      await picture.show(page, (items) => allHere(items, this.pictures));
      context.drawImage(picture.canvas, place.x, place.y);
      context.save();
      context.beginPath();
      context.rect(place.x, place.y, place.width, place.height);
      context.clip();
      context.setTransform(place.scale, 0, 0, place.scale, place.x, place.y);
      for (const drawing of moment.drawing)
        if (drawing.page === page.id && (!only || drawing.by === only)) this.line(drawing);
      context.restore();
    }
    this.strip(board, page, moment, time, replay);
  }

  private line({ style, points }: Drawing): void {
    for (const display of displayStroke({ style, points })) {
      this.context.globalCompositeOperation =
        display.blend === 'multiply' ? 'multiply' : 'source-over';
      paint(this.context, renderItemOf(display));
    }
  }

  private strip(
    board: Board,
    page: Page | undefined,
    moment: Moment,
    time: number,
    replay: Replay,
  ): void {
    const { context, canvas, task } = this;
    const middle = canvas.height - STRIP / 2;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.globalCompositeOperation = 'source-over';
    context.textBaseline = 'middle';
    context.font = LETTERS;
    context.textAlign = 'left';
    context.fillStyle = SOFT;
    const pages = pagesInOrder(board);
    const number = pages.findIndex((one) => one.id === page?.id) + 1;
    const said = `${formatSecond(time)}   ${number} / ${pages.length}`;
    context.fillText(said, 14, middle);
    let x = 14 + context.measureText(said).width + 28;
    const writing = this.writers(replay, moment, time);
    for (const { id, label, colour } of task.people) {
      // A film of one person's ink names no other.
      if (!writing.has(id) || (task.only && id !== task.only)) continue;
      context.fillStyle = colour;
      context.beginPath();
      context.arc(x + 6, middle, 6, 0, 2 * Math.PI);
      context.fill();
      context.fillStyle = INK;
      context.fillText(label, x + 18, middle);
      x += 18 + context.measureText(label).width + 20;
    }
  }

  /** Who has a pen on paper, or had a moment ago. */
  private writers({ events }: Replay, { drawing }: Moment, time: number): Set<Id> {
    // Frames follow each other in time.
    while (this.done < events.length && events[this.done]!.to <= time) this.done++;
    const writing = new Set(drawing.map(({ by }) => by));
    for (let i = this.done - 1; i >= 0 && events[i]!.to > time - LATELY; i--)
      if (events[i]!.kind === 'ink.add') writing.add(events[i]!.by);
    return writing;
  }

  /** The page as it was drawn last, or a bare one with what is printed on it. */
  private async pageOf(page: Page, place: ReturnType<typeof placeOf>): Promise<PageOnFilm> {
    const known = this.pages.get(page.id);
    if (known?.canvas.width === place.width && known.canvas.height === place.height) return known;
    const { paper } = page;
    const print = paper.kind === 'pdf' ? await this.print(paper, place) : null;
    const made = new PageOnFilm(place, print, this.pictures);
    this.pages.set(page.id, made);
    for (const id of this.pages.keys()) {
      if (this.pages.size <= KEPT) break;
      this.pages.delete(id);
    }
    return made;
  }

  private print(
    paper: Extract<Page['paper'], { kind: 'pdf' }>,
    { width, height, scale }: ReturnType<typeof placeOf>,
  ): Promise<ImageBitmap | null> {
    const ask = ++this.asks;
    return new Promise((resolve) => {
      asked.set(ask, resolve);
      say({ kind: 'paper', ask, paper, width, height, scale });
    });
  }
}
