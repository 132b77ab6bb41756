import { Gestures } from './gestures';
import type { FingerUse } from './finger-use';
import type { GestureTarget } from './gestures';
import { recorded } from './recorded-touches.json';
import { SEQUENCES } from './touch-sequences';
import type { Touch } from './touch-sequences';

describe('gestures', () => {
  let element: HTMLElement;
  let target: jasmine.SpyObj<GestureTarget>;
  let gestures: Gestures;

  beforeEach(() => {
    element = document.createElement('div');
    document.body.append(element);
    target = jasmine.createSpyObj<GestureTarget>('target', [
      'writes',
      'penDown',
      'penMove',
      'penUp',
      'penLost',
      'pan',
      'pinch',
      'fling',
      'touched',
      'penInUse',
    ]);
    target.writes.and.returnValue(true);
    target.penDown.and.returnValue(true);
    gestures = new Gestures(element, target);
  });
  afterEach(() => {
    gestures.close();
    element.remove();
  });

  function send(
    kind: string,
    pointerType: string,
    pointerId: number,
    x = 0,
    y = 0,
    more: PointerEventInit = {},
  ): void {
    element.dispatchEvent(
      new PointerEvent(`pointer${kind}`, {
        pointerType,
        pointerId,
        clientX: x,
        clientY: y,
        button: kind === 'move' ? -1 : 0,
        pressure: 0.7,
        width: 10,
        height: 10,
        ...more,
      }),
    );
  }

  it('let a mouse write, without pressure of its own', () => {
    send('down', 'mouse', 1, 5, 6);
    send('move', 'mouse', 1, 9, 9);
    send('up', 'mouse', 1, 9, 9);
    expect(target.penDown.calls.first().args[0]).toEqual(
      jasmine.objectContaining({ x: 5 - element.getBoundingClientRect().x, pressure: 0.5 }),
    );
    expect(target.penMove).toHaveBeenCalledTimes(1);
    expect(target.penUp).toHaveBeenCalledTimes(1);
  });

  it('write where the browser doesn’t tell all places of a move: on plain http', () => {
    const { getCoalescedEvents } = PointerEvent.prototype;
    delete (PointerEvent.prototype as Partial<PointerEvent>).getCoalescedEvents;
    try {
      send('down', 'mouse', 1, 5, 6);
      send('move', 'mouse', 1, 9, 9);
      send('up', 'mouse', 1, 9, 9);
    } finally {
      PointerEvent.prototype.getCoalescedEvents = getCoalescedEvents;
    }
    expect(target.penMove.calls.first().args[0].length).toBe(1);
  });

  it('reach the end of a line of which a busy browser told no move', () => {
    send('down', 'pen', 1, 5, 6);
    send('up', 'pen', 1, 80, 60, { pressure: 0 });
    const [end] = target.penMove.calls.first().args[0];
    expect(end!.x).toBe(80 - element.getBoundingClientRect().x);
    expect(end!.pressure).toBeCloseTo(0.7, 5);
    expect(target.penUp).toHaveBeenCalledTimes(1);
  });

  it('keep a stylus’s pressure', () => {
    send('down', 'pen', 1);
    expect(target.penDown.calls.first().args[0].pressure).toBeCloseTo(0.7, 5);
  });

  it('move the page where there is no pen to write with', () => {
    target.writes.and.returnValue(false);
    send('down', 'touch', 1, 10, 10);
    send('move', 'touch', 1, 10, 30);
    expect(target.penDown).not.toHaveBeenCalled();
    expect(target.pan).toHaveBeenCalledWith(0, 20);
  });

  it('move the page with the middle button', () => {
    send('down', 'mouse', 1, 0, 0, { button: 1 });
    send('move', 'mouse', 1, 7, 0);
    expect(target.pan).toHaveBeenCalledWith(7, 0);
  });

  it('take a second finger that comes at once as moving, and give up what the first began', () => {
    send('down', 'touch', 1, 100, 100);
    send('down', 'touch', 2, 200, 100);
    expect(target.penLost).toHaveBeenCalledTimes(1);
    send('move', 'touch', 2, 300, 100);
    const [middle, , , factor] = target.pinch.calls.first().args;
    expect(factor).toBeCloseTo(2, 5);
    expect(middle.x).toBeCloseTo(200 - element.getBoundingClientRect().x, 0);
    expect(target.penUp).not.toHaveBeenCalled();
  });

  it('ignore fingers while a pen is near', () => {
    send('down', 'pen', 2);
    send('down', 'touch', 3, 50, 50);
    send('move', 'touch', 3, 90, 90);
    expect(target.penDown).toHaveBeenCalledTimes(1);
    expect(target.pan).not.toHaveBeenCalled();
    expect(target.pinch).not.toHaveBeenCalled();
    expect(target.penLost).not.toHaveBeenCalled();
  });

  it('give the stroke up when the system takes the pointer away', () => {
    send('down', 'pen', 1);
    send('cancel', 'pen', 1);
    expect(target.penLost).toHaveBeenCalledTimes(1);
    send('up', 'pen', 1);
    expect(target.penUp).not.toHaveBeenCalled();
  });

  describe('of a hand', () => {
    beforeEach(() => jasmine.clock().install());
    afterEach(() => jasmine.clock().uninstall());

    /** Plays what a hand does; time goes by as it did there. */
    const play = (
      touches: readonly Touch[],
      fingerUse: FingerUse = 'auto',
    ): { strokes: number[]; lost: number; moved: boolean } => {
      gestures.close();
      let time = 0;
      gestures = new Gestures(element, target, () => time);
      gestures.fingerUse = fingerUse;
      let down: number | null = null;
      const seen = { strokes: [] as number[], lost: 0, moved: false };
      let current = 0;
      target.penDown.and.callFake(() => {
        down = current;
        return true;
      });
      target.penUp.and.callFake(() => void seen.strokes.push(down!));
      target.penLost.and.callFake(() => void seen.lost++);
      target.pan.and.callFake(() => void (seen.moved = true));
      target.pinch.and.callFake(() => void (seen.moved = true));
      for (const { t, id, kind, type, x, y, width = 1, height = 1, ...more } of touches) {
        const passed = t - time;
        time = t;
        jasmine.clock().tick(passed);
        current = id;
        const event = new PointerEvent(`pointer${kind}`, {
          ...{ pointerType: type, pointerId: id, clientX: x, clientY: y, width, height },
          button: kind === 'move' ? -1 : 0,
          ...more,
        });
        Object.defineProperty(event, 'timeStamp', { value: t });
        element.dispatchEvent(event);
      }
      return seen;
    };

    for (const { what, touches, ...comes } of SEQUENCES)
      it(`are told apart: ${what}`, () => {
        expect(play(touches)).toEqual({ ...comes, strokes: [...comes.strokes] });
      });

    // As Chromium made them of the same contacts, with its ids, its times, and no size or strength at the end.
    for (const { what, strokes, ...comes } of SEQUENCES.filter(({ what }) => what in recorded))
      it(`are told apart as they come from a browser: ${what}`, () => {
        const touches = recorded[what as keyof typeof recorded] as readonly Touch[];
        const { strokes: drawn, ...seen } = play(touches);
        expect(seen).toEqual({ lost: comes.lost, moved: comes.moved });
        const kinds = (of: readonly Touch[], ids: readonly number[]): string[] =>
          ids.map((id) => of.find((touch) => touch.id === id)!.type);
        expect(kinds(touches, drawn)).toEqual(kinds(comes.touches, strokes));
      });

    it('say that a pen is in use, and when it has been away for a while', () => {
      const { touches } = SEQUENCES.find(({ what }) => what.startsWith('the pen has been away'))!;
      play(touches.filter(({ type }) => type === 'pen'));
      expect(target.penInUse.calls.allArgs()).toEqual([[true]]);
      play(touches);
      expect(target.penInUse.calls.mostRecent().args).toEqual([false]);
    });

    it('do what is asked of them: fingers write beside a pen, or move the page without one', () => {
      const finger = (id: number, t: number): Touch[] => [
        { t, id, kind: 'down', type: 'touch', x: 50, y: 50, width: 30, height: 30 },
        { t: t + 20, id, kind: 'move', type: 'touch', x: 90, y: 90, width: 30, height: 30 },
        { t: t + 40, id, kind: 'up', type: 'touch', x: 90, y: 90, width: 30, height: 30 },
      ];
      const pen = finger(1, 0).map((touch): Touch => ({ ...touch, type: 'pen' }));
      expect(play([...pen, ...finger(2, 2000)], 'write').strokes).toEqual([1, 2]);
      // The hand that holds the pen still doesn't.
      expect(play([...pen, ...finger(2, 300)], 'write').strokes).toEqual([1]);
      expect(play(finger(1, 0), 'move')).toEqual({ strokes: [], lost: 0, moved: true });
    });
  });

  it('can be interrupted, once', () => {
    send('down', 'pen', 1);
    gestures.interrupt();
    gestures.interrupt();
    send('move', 'pen', 1, 5, 5);
    expect(target.penLost).toHaveBeenCalledTimes(1);
    expect(target.penMove).not.toHaveBeenCalled();
  });
});
