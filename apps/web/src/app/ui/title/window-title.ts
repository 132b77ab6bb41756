import { Injectable } from '@angular/core';

const APPLICATION = 'Cuaderno';

/** The title of the window: the screen's name, and before it how many wait for the tutor. */
@Injectable({ providedIn: 'root' })
export class WindowTitle {
  private screen: string | null = null;
  private waiting = 0;

  /** What is on screen; `null` where the application's name says it. */
  name(screen: string | null): void {
    this.screen = screen;
    this.say();
  }

  /** How many people wait for the tutor. */
  wait(count: number): void {
    this.waiting = count;
    this.say();
  }

  private say(): void {
    const name = this.screen ? `${this.screen} · ${APPLICATION}` : APPLICATION;
    document.title = this.waiting > 0 ? `(${this.waiting} waiting) ${name}` : name;
  }
}
