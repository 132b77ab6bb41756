import { PageCanvas } from './page-canvas';

describe('the desk', () => {
  let container: HTMLElement;
  let pageCanvas: PageCanvas;
  let draws: number;

  const pixel = (x: number, y: number): number[] => {
    const canvas = container.querySelector('canvas')!;
    return [...canvas.getContext('2d')!.getImageData(x, y, 1, 1).data];
  };

  beforeEach(() => {
    container = document.createElement('div');
    container.style.cssText =
      'position:relative;width:200px;height:100px;background:rgb(10, 20, 30)';
    document.body.append(container);
    draws = 0;
    pageCanvas = new PageCanvas(container, (context) => {
      draws++;
      context.fillStyle = '#ffffff';
      context.fillRect(20, 20, 20, 20);
    });
  });
  afterEach(() => {
    pageCanvas.close();
    container.remove();
  });

  it('has the colour of its ground around the pages, and nothing shows through', () => {
    pageCanvas.resize({ width: 200, height: 100 });
    const ratio = devicePixelRatio;
    expect(pixel(2, 2)).toEqual([10, 20, 30, 255]);
    expect(pixel(30 * ratio, 30 * ratio)).toEqual([255, 255, 255, 255]);
  });

  it('is never black for a frame: it is drawn as soon as it has another size', () => {
    pageCanvas.resize({ width: 200, height: 100 });
    pageCanvas.resize({ width: 150, height: 100 });
    expect(draws).toBe(2);
    expect(pixel(2, 2)).toEqual([10, 20, 30, 255]);
    pageCanvas.resize({ width: 150, height: 100 });
    expect(draws).toBe(2);
  });

  it('is drawn once a frame, however often that is asked for, and not after it was closed', async () => {
    pageCanvas.resize({ width: 200, height: 100 });
    const frame = (): Promise<number> => new Promise((done) => requestAnimationFrame(done));
    for (let i = 0; i < 5; i++) pageCanvas.drawSoon();
    await frame();
    expect(draws).toBe(2);
    pageCanvas.drawSoon();
    pageCanvas.close();
    await frame();
    expect(draws).toBe(2);
    expect(container.querySelector('canvas')).toBeNull();
  });
});
