import { expect } from '@playwright/test';
import type { Browser, BrowserContextOptions, Locator, Page } from '@playwright/test';

/** A place on a page of the board, in points from its top left corner. */
export interface PagePoint {
  readonly x: number;
  readonly y: number;
}

/** The board of a window, as tests see it. */
export interface StageElement extends HTMLElement {
  cuaStage: {
    board(): {
      id: string;
      pages: Map<
        string,
        {
          removed: object | null;
          order: string;
          items: Map<string, { id: string; by: string; removed: object | null }>;
        }
      >;
    };
    locate(page: string, place: PagePoint): PagePoint | null;
    isSharp: boolean;
    goTo(page: string): void;
  };
}

/** Waits until a dialog has taken the focus, as it does when it has come: what is typed before may go astray. */
export async function hasCome(dialog: Locator): Promise<void> {
  await expect(dialog.locator(':focus')).toHaveCount(1);
}

/** Chooses of a list, which stays open though what is around it moves, as when somebody comes. */
export async function choose(list: Locator, name: string): Promise<void> {
  await list.click();
  await list.page().getByRole('option', { name }).click();
}

const MAREN = {
  name: 'Maren Solheim',
  email: 'maren@solheim.example',
  password: 'low-water-at-ten',
};

/** Someone at a browser of their own. */
export class Someone {
  private constructor(readonly page: Page) {}

  static async at(browser: Browser, options: BrowserContextOptions = {}): Promise<Someone> {
    const context = await browser.newContext({ acceptDownloads: true, ...options });
    return new Someone(await context.newPage());
  }

  /** Another tab of the same browser. */
  static async beside({ page }: Someone): Promise<Someone> {
    return new Someone(await page.context().newPage());
  }

  get stage(): Locator {
    return this.page.locator('cua-stage .host');
  }

  /** On the screen of a record: saves it as a PDF, as is proposed; returns where it lies and what it is called. */
  async saveRecord(): Promise<{ path: string; name: string }> {
    await this.button('Save…').click();
    const dialog = this.page.getByRole('dialog', { name: 'Save from this record' });
    const [download] = await Promise.all([
      this.page.waitForEvent('download'),
      dialog.getByRole('button', { name: 'Save' }).click(),
    ]);
    return { path: await download.path(), name: download.suggestedFilename() };
  }

  button(name: string | RegExp): Locator {
    return this.page.getByRole('button', { name });
  }

  async leave(): Promise<void> {
    await this.page.context().close();
  }

  /** The first visit: makes the tutor's account by its form. */
  async firstVisit(url: string): Promise<void> {
    await this.page.goto(url);
    await this.page.getByLabel('Your name').fill(MAREN.name);
    await this.page.getByLabel('E-mail').fill(MAREN.email);
    await this.page.getByLabel('Password').fill(MAREN.password);
    await this.button('Make the account').click();
    await expect(this.page.getByRole('heading', { name: /^Today/ })).toBeVisible();
  }

  /** A tutor signed in on Today. How one comes there is a story of its own. */
  async setUp(url: string): Promise<void> {
    await this.post(`${url}/api/set-up`, MAREN);
    await this.page.goto(url);
    await expect(this.page.getByRole('heading', { name: /^Today/ })).toBeVisible();
  }

  /** The tutor on another machine, signed in. */
  async signIn(url: string): Promise<void> {
    const { email, password } = MAREN;
    await this.post(`${url}/api/sign-in`, { email, password });
  }

  /** Makes a course by its form. */
  async makeCourseByForm(name: string): Promise<void> {
    await this.button('New course').click();
    await this.page.getByLabel('Name').fill(name);
    await this.button('Make the course').click();
    await expect(this.page.getByText('How students come in')).toBeVisible();
    await this.page.getByText('The door, guests, and a new link').click();
    const answered = this.page.waitForResponse(/\/door$/);
    await this.page.getByLabel('Anyone with the link comes in').check();
    expect((await answered).ok()).toBeTruthy();
  }

  /**
   * On the screen of a new course.
   * @param door most stories are about what happens inside: the door has its own
   */
  async makeCourse(name: string, door: 'ask' | 'all' = 'all'): Promise<void> {
    const { origin } = new URL(this.page.url());
    const { id } = await this.post<{ id: string }>(`${origin}/api/courses`, { name });
    await this.post(`${origin}/api/courses/${id}/door`, { door });
    await this.visit(`/courses/${id}`);
    await expect(this.page.getByText('How students come in')).toBeVisible();
  }

  /** Another screen, as by a link: the application isn't loaded anew. */
  private async visit(path: string): Promise<void> {
    await this.page.evaluate((path) => {
      history.pushState(null, '', path);
      dispatchEvent(new PopStateEvent('popstate'));
    }, path);
  }

  private async post<Answer = unknown>(url: string, data: object): Promise<Answer> {
    const response = await this.page.context().request.post(url, { data });
    expect(response.ok()).toBeTruthy();
    return (await response.json().catch(() => null)) as Answer;
  }

  async bring(name: string, buffer: Buffer): Promise<void> {
    await this.page
      .locator('input[type=file]')
      .setInputFiles({ name, mimeType: 'application/pdf', buffer });
    await this.isOnBoard();
  }

  async isOnBoard(): Promise<void> {
    await expect(this.stage).toBeVisible();
    await expect.poll(() => this.pageIds().then((ids) => ids.length)).toBeGreaterThan(0);
  }

  async openLesson(): Promise<string> {
    await this.button('Open the lesson').click();
    await expect(this.button('Close the lesson')).toBeVisible();
    const token = await this.page.evaluate(async () => {
      const id = location.pathname.split('/').pop()!;
      const answer = (await (await fetch(`/api/boards/${id}`)).json()) as {
        course: { linkToken: string };
      };
      return answer.course.linkToken;
    });
    return `/join/${token}`;
  }

  async join(url: string, name: string): Promise<void> {
    await this.knock(url, name);
    await this.isOnBoard();
  }

  /** The steps of trust of one student, as their tutor has them. */
  penOf(name: string): Locator {
    return this.page.getByRole('group', { name: `Pen of ${name}`, exact: true });
  }

  /** Gives a student a step of trust, with one touch. */
  async give(name: string, step: 'Watching' | 'Writing' | 'Hands on'): Promise<void> {
    await this.penOf(name).locator('label').filter({ hasText: step }).click();
  }

  /** Does something with the page in view, or with those that are picked. */
  async ofPages(wish: string): Promise<void> {
    await this.button(/^Th(is page|ese pages)$/).click();
    await this.page.getByRole('menuitem', { name: wish, exact: true }).click();
  }

  /** Opens what else can be done with what is chosen, or closes it. */
  async arrange(): Promise<void> {
    await this.button('Arrange …').click();
  }

  /** A student is told so, of their pen. */
  async isTold(words: string | RegExp): Promise<void> {
    await expect(this.page.locator('header .pen')).toContainText(words);
  }

  /** Comes to the door. */
  async knock(url: string, name: string): Promise<void> {
    await this.page.goto(url);
    await this.page.getByLabel('Your first name').fill(name);
    await this.button('Go in').click();
  }

  /** The board in view. */
  boardId(): Promise<string> {
    return this.stage.evaluate((element) => (element as StageElement).cuaStage.board().id);
  }

  pageIds(): Promise<string[]> {
    return this.stage.evaluate((element) =>
      [...(element as StageElement).cuaStage.board().pages.entries()]
        .filter(([, page]) => !page.removed)
        .sort(([, a], [, b]) => (a.order < b.order ? -1 : 1))
        .map(([id]) => id),
    );
  }

  /** Has this window show a page. */
  goTo(page: string): Promise<void> {
    return this.stage.evaluate((element, id) => (element as StageElement).cuaStage.goTo(id), page);
  }

  /** Ids of all lines on the board that are there, in one order for everyone. */
  lines(): Promise<string[]> {
    return this.stage.evaluate((element) =>
      [...(element as StageElement).cuaStage.board().pages.values()]
        .flatMap((page) => [...page.items.values()].filter((item) => !item.removed))
        .map(({ id }) => id)
        .sort(),
    );
  }

  /** Where a place of a page is in this window, in CSS px. */
  async locate(page: string, place: PagePoint): Promise<PagePoint> {
    const box = (await this.stage.boundingBox())!;
    const at = await this.stage.evaluate(
      (element, [id, p]) => (element as StageElement).cuaStage.locate(id, p),
      [page, place] as const,
    );
    return { x: box.x + at!.x, y: box.y + at!.y };
  }

  /** Puts the pen down and moves it through these places, without lifting it. */
  async penDown(page: string, places: readonly PagePoint[]): Promise<void> {
    const [first, ...rest] = await Promise.all(places.map((place) => this.locate(page, place)));
    await this.page.mouse.move(first!.x, first!.y);
    await this.page.mouse.down();
    for (const { x, y } of rest) await this.page.mouse.move(x, y, { steps: 4 });
  }

  async penUp(): Promise<void> {
    await this.page.mouse.up();
  }

  async draw(page: string, places: readonly PagePoint[]): Promise<void> {
    await this.penDown(page, places);
    await this.penUp();
  }

  async isSharp(): Promise<void> {
    await expect
      .poll(() => this.stage.evaluate((element) => (element as StageElement).cuaStage.isSharp))
      .toBeTruthy();
  }

  /**
   * Colour on screen at a place of a page. Read off a screenshot: what a person would see, all
   * canvases together.
   */
  async colourAt(page: string, place: PagePoint): Promise<[number, number, number]> {
    const { x, y } = await this.locate(page, place);
    const { PNG } = await import('pngjs');
    const shot = await this.page.screenshot({
      clip: { x: Math.round(x) - 1, y: Math.round(y) - 1, width: 3, height: 3 },
    });
    const { data } = PNG.sync.read(shot);
    const at = 4 * 4;
    return [data[at]!, data[at + 1]!, data[at + 2]!];
  }

  async seesInkAt(page: string, place: PagePoint): Promise<void> {
    await expect
      .poll(async () => Math.min(...(await this.colourAt(page, place))), { intervals: [100] })
      .toBeLessThan(150);
  }

  async seesPaperAt(page: string, place: PagePoint): Promise<void> {
    await expect
      .poll(async () => Math.min(...(await this.colourAt(page, place))))
      .toBeGreaterThan(240);
  }
}
