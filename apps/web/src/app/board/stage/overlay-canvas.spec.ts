import { OverlayCanvas } from './overlay-canvas';

describe('a canvas over the pages', () => {
  let container: HTMLElement;
  let overlay: OverlayCanvas;
  let draws: number;

  const canvas = (): HTMLCanvasElement => container.querySelector('canvas')!;
  const frame = (): Promise<number> => new Promise((done) => requestAnimationFrame(done));

  beforeEach(() => {
    container = document.createElement('div');
    container.style.cssText = 'position:relative;width:200px;height:100px';
    document.body.append(container);
    draws = 0;
    overlay = new OverlayCanvas(container, (context) => {
      draws++;
      context.fillStyle = '#ff0000';
      context.fillRect(20 * draws, 20, 20, 20);
    });
    overlay.resize({ width: 200, height: 100 });
  });
  afterEach(() => {
    overlay.close();
    container.remove();
  });

  it('is there only while something needs it', async () => {
    expect(getComputedStyle(canvas()).display).toBe('none');
    overlay.drawSoon(true);
    await frame();
    expect(getComputedStyle(canvas()).display).toBe('block');
    overlay.drawSoon(false);
    expect(getComputedStyle(canvas()).display).toBe('none');
    expect(draws).toBe(1);
  });

  it('holds what was drawn last and nothing of before, in CSS px', async () => {
    const ratio = devicePixelRatio;
    const alpha = (x: number): number =>
      canvas()
        .getContext('2d')!
        .getImageData(x * ratio, 30 * ratio, 1, 1).data[3]!;
    overlay.drawSoon(true);
    await frame();
    expect([alpha(30), alpha(50)]).toEqual([255, 0]);
    overlay.drawSoon(true);
    overlay.drawSoon(true);
    await frame();
    expect(draws).toBe(2);
    expect([alpha(30), alpha(50)]).toEqual([0, 255]);
  });

  it('is drawn at once where its size changes, and not after it was closed', async () => {
    overlay.drawSoon(true);
    await frame();
    overlay.resize({ width: 150, height: 100 });
    expect(draws).toBe(2);
    overlay.drawSoon(true);
    overlay.close();
    await frame();
    expect(draws).toBe(2);
    expect(container.querySelector('canvas')).toBeNull();
  });
});
