import { Screen } from '../../../testing/screen';
import { CaptionLines } from './caption-lines';

describe('lines of captions', () => {
  const lines = (count: number) =>
    Array.from({ length: count }, (_, i) => ({ id: String(i), text: `Line ${i}` }));

  it('show the last one, and leave anyone who has gone back to read where they are', async () => {
    const screen = await Screen.show(CaptionLines, { lines: lines(20) }, {});
    const box = screen.element.querySelector<HTMLElement>('.lines')!;
    const isAtEnd = (): boolean => box.scrollHeight - box.scrollTop - box.clientHeight < 2;
    expect(isAtEnd()).toBeTrue();
    const add = async (count: number): Promise<void> => {
      screen.fixture.componentRef.setInput('lines', lines(count));
      await screen.settles();
    };
    await add(21);
    expect(isAtEnd()).toBeTrue();
    box.scrollTop = 40;
    box.dispatchEvent(new Event('scroll'));
    await add(22);
    expect(box.scrollTop).toBe(40);
    box.scrollTop = box.scrollHeight;
    box.dispatchEvent(new Event('scroll'));
    await add(23);
    expect(isAtEnd()).toBeTrue();
  });
});
