import { ComponentHarness } from '@angular/cdk/testing';
import type { Point } from '@cuaderno/core/geometry';

/** What somebody does on the stage with a mouse; places are in CSS px from its corner. */
export class StageHarness extends ComponentHarness {
  static readonly hostSelector = 'cua-stage';
  private readonly glass = this.locatorFor('.host');

  /** Presses at the first place, moves through the others and lets go at the last. */
  async drag(...through: readonly Point[]): Promise<void> {
    await this.send('pointerdown', through[0]!);
    for (const at of through.slice(1)) await this.send('pointermove', at);
    await this.send('pointerup', through.at(-1)!);
  }

  /** Moves over it without touching. */
  async hover(at: Point): Promise<void> {
    await this.send('pointermove', at);
  }

  async doubleClick(at: Point): Promise<void> {
    await this.send('dblclick', at);
  }

  private async send(type: string, { x, y }: Point): Promise<void> {
    const glass = await this.glass();
    const { left, top } = await glass.getDimensions();
    await glass.dispatchEvent(type, {
      pointerType: 'mouse',
      pointerId: 1,
      button: type === 'pointermove' ? -1 : 0,
      clientX: left + x,
      clientY: top + y,
      pressure: 0.5,
    });
  }
}
