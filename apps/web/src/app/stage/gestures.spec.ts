import { Gestures } from './gestures';
import type { GestureTarget } from './gestures';

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
    send('up', 'mouse', 1);
    expect(target.penDown.calls.first().args[0]).toEqual(
      jasmine.objectContaining({ x: 5 - element.getBoundingClientRect().x, pressure: 0.5 }),
    );
    expect(target.penMove).toHaveBeenCalledTimes(1);
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

  it('ignore a palm, and fingers while a stylus is near', () => {
    send('down', 'touch', 1, 0, 0, { width: 80, height: 60 });
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

  it('can be interrupted, once', () => {
    send('down', 'pen', 1);
    gestures.interrupt();
    gestures.interrupt();
    send('move', 'pen', 1, 5, 5);
    expect(target.penLost).toHaveBeenCalledTimes(1);
    expect(target.penMove).not.toHaveBeenCalled();
  });
});
