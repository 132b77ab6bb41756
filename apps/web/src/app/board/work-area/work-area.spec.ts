import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { TestBed } from '@angular/core/testing';
import { itemsOn } from '@cuaderno/core/board';
import { CLOSE } from '@cuaderno/core/features';
import type { BoardSession } from '../../live/board-session';
import type { LessonLine } from '../../live/lesson-line';
import { PretendLesson } from '../../live/pretend-lesson';
import { Screen } from '../../testing/screen';
import { TypedAhead } from '../../ui/popup/typed-ahead';
import { PaperSource } from '../drawing/paper-source';
import type { StageProbe } from '../stage/stage-probe';
import { WorkArea } from './work-area';
import { WorkAreaHarness } from './work-area.harness';

describe('the work area', () => {
  let lesson: PretendLesson;
  let line: LessonLine;
  let session: BoardSession;
  let screen: Screen<WorkArea>;
  let harness: WorkAreaHarness;

  beforeEach(async () => {
    lesson = new PretendLesson();
    line = lesson.dial('/live/lesson');
    session = line.open(null);
    lesson.welcome('student');
    screen = await Screen.show(WorkArea, { session, papers: new PaperSource() }, {});
    screen.element.style.cssText = 'display:flex;width:900px;height:700px';
    harness = await TestbedHarnessEnvironment.harnessForFixture(screen.fixture, WorkAreaHarness);
  });
  afterEach(() => {
    line.close();
    localStorage.clear();
  });

  const drawn = (): string[] =>
    lesson.line.of('ops').flatMap(({ ops }) => ops.map(({ kind }) => kind));
  const stage = (): StageElement['cuaStage'] =>
    screen.element.querySelector<StageElement>('cua-stage .host')!.cuaStage;
  /** Draws a line on the first page. */
  const draw = async (): Promise<void> => {
    await screen.settles();
    const places = [100, 140, 200].map((x) => ({ x, y: 100 + x / 4 }));
    const through = places.map((place) => stage().locate(lesson.pages[0]!.id, place)!);
    await (await harness.stage()).drag(...through);
  };

  it('has a pen in hand for who may write, and none for who is watching', async () => {
    expect(await harness.canTake('Pen')).toBeFalse();
    await draw();
    expect(drawn()).toEqual([]);
    lesson.trust('student', 'write');
    expect(await harness.canTake('Pen')).toBeTrue();
    expect(await harness.inHand()).toBe('Pen');
    await draw();
    expect(drawn()).toEqual(['ink.add']);
  });

  it('knows in the next lesson, too, what was chosen for fingers', async () => {
    lesson.trust('student', 'write');
    await screen.settles();
    expect(await harness.fingersWrite()).toBeNull();
    await (await harness.stage()).dragPen({ x: 300, y: 300 }, { x: 330, y: 310 });
    await screen.settles();
    expect(await harness.fingersWrite()).toBeFalse();
    await harness.switchFingers();
    expect(await harness.fingersWrite()).toBeTrue();
    TestBed.resetTestingModule();
    const other = await Screen.show(WorkArea, { session, papers: new PaperSource() }, {});
    const again = await TestbedHarnessEnvironment.harnessForFixture(other.fixture, WorkAreaHarness);
    await other.settles();
    expect(await again.fingersWrite()).toBeTrue();
  });

  it('undoes what was drawn, and does it again', async () => {
    lesson.trust('student', 'write');
    await draw();
    await harness.press('Undo');
    await harness.press('Redo');
    expect(drawn()).toEqual(['ink.add', 'items.remove', 'items.restore']);
  });

  it('takes tools by touch and by key, but not while something else is in front of it', async () => {
    lesson.trust('student', 'write');
    await harness.take('Eraser');
    expect(await harness.inHand()).toBe('Eraser');
    // What is typed right after a touch may be meant for something that is opening.
    while (TestBed.inject(TypedAhead).isOpening()) await new Promise(requestAnimationFrame);
    await harness.key('p');
    expect(await harness.inHand()).toBe('Pen');
    screen.fixture.componentRef.setInput('away', true);
    await harness.key('e');
    expect(await harness.inHand()).toBe('Pen');
  });

  it('shows one person’s ink alone, where that is asked for', async () => {
    lesson.trust('student', 'write');
    await draw();
    const items = (): number => itemsOn(stage().board().pages.get(lesson.pages[0]!.id)!).length;
    expect(items()).toBe(1);
    screen.fixture.componentRef.setInput('only', lesson.other);
    await screen.settles();
    expect(items()).toBe(0);
  });

  it('says below the page that the connection is lost, and that nothing is', async () => {
    lesson.trust('student', 'write');
    lesson.line.end();
    await screen.settles();
    expect(session.line()).not.toBe('live');
    await draw();
    expect(session.unconfirmed()).toBe(1);
  });

  it('goes on where it was when a line that was ended for a moment is back', async () => {
    lesson.line.end(CLOSE.again);
    await screen.settles();
    expect(screen.element.querySelector('cua-stage')).not.toBeNull();
  });
});

interface StageElement extends Element {
  readonly cuaStage: StageProbe;
}
