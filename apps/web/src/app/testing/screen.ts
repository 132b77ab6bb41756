import { provideZonelessChangeDetection } from '@angular/core';
import type { Provider, Type } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { By } from '@angular/platform-browser';
import { provideRouter, Router } from '@angular/router';
import { addressOf } from '@cuaderno/contract/route';
import type { Route } from '@cuaderno/contract/route';
import type { Select } from 'primeng/select';
import { defer, isObservable, of, switchMap } from 'rxjs';
import type { Observable } from 'rxjs';
import { Api } from '../api/api';
import { ApiError } from '../api/problem';

/** What the server would answer, by method and path: a value, or a function of what was sent. */
export type PretendAnswers = Record<string, unknown>;

/** An error as the server tells it. */
export function problem(code: string, title: string, detail = 'Do this next.'): ApiError {
  return new ApiError({ type: `urn:cuaderno:${code}`, title, detail }, 400);
}

/** PretendAnswers as told, and keeps what was asked. */
export class PretendApi {
  readonly asked: { call: string; body: unknown }[] = [];

  constructor(private readonly answers: PretendAnswers) {}

  call(spec: Route, asked: PretendAsked = {}): Observable<unknown> {
    return this.answer(spec.method, spec, asked);
  }

  download(spec: Route, asked: PretendAsked = {}): Observable<unknown> {
    return this.answer('DOWNLOAD', spec, asked);
  }

  /** Is answered with steps on the way, and what comes at last. */
  send(spec: Route, asked: PretendAsked): Observable<unknown> {
    return this.answer('UPLOAD', spec, asked).pipe(
      switchMap((answer) => (isObservable(answer) ? answer : of({ answer }))),
    );
  }

  private answer(
    how: string,
    spec: Route,
    { params, query, body }: PretendAsked,
  ): Observable<unknown> {
    return defer(async () => {
      const call = `${how} ${addressOf(spec, params, query)}`;
      this.asked.push({ call, body });
      const answer = this.answers[call];
      const value: unknown =
        typeof answer === 'function' ? await (answer as (b: unknown) => unknown)(body) : answer;
      if (value === undefined && !(call in this.answers)) throw new Error(`Nobody answers ${call}`);
      if (value instanceof Error) throw value;
      return value;
    });
  }
}

interface PretendAsked {
  readonly params?: Readonly<Record<string, unknown>>;
  readonly query?: Readonly<Record<string, unknown>>;
  readonly body?: unknown;
}

/** Types into a field, as a person does. */
export function write(field: HTMLInputElement, value: string): void {
  field.value = value;
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

/** A screen on its own, and what a person could see and press on it. */
export class Screen<T> {
  private constructor(
    readonly fixture: ComponentFixture<T>,
    readonly api: PretendApi,
    readonly went: jasmine.Spy,
  ) {}

  static async show<T>(
    component: Type<T>,
    inputs: Record<string, unknown>,
    answers: PretendAnswers,
    others: readonly Provider[] = [],
  ): Promise<Screen<T>> {
    const api = new PretendApi(answers);
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        { provide: Api, useValue: api },
        ...others,
      ],
    });
    const router = TestBed.inject(Router);
    const went = spyOn(router, 'navigateByUrl').and.resolveTo(true);
    const fixture = TestBed.createComponent(component);
    for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
    const screen = new Screen(fixture, api, went);
    await screen.settles();
    return screen;
  }

  get element(): HTMLElement {
    return this.fixture.nativeElement as HTMLElement;
  }

  /** All words on it, with single spaces. */
  get text(): string {
    return (this.element.textContent ?? '').replace(/\s+/g, ' ').trim();
  }

  /** Where it went last. */
  get address(): string | null {
    const target: unknown = this.went.calls.mostRecent()?.args[0];
    return target ? String(target) : null;
  }

  button(name: string): HTMLButtonElement | undefined {
    return [...this.element.querySelectorAll('button')].find(
      (b) => (b.getAttribute('aria-label') ?? b.textContent).trim() === name,
    );
  }

  /** Where a link leads. */
  link(name: string): string | null {
    const link = [...this.element.querySelectorAll('a')].find((a) => a.textContent.trim() === name);
    return link?.getAttribute('href') ?? null;
  }

  async press(name: string): Promise<void> {
    const button = this.button(name);
    if (!button) throw new Error(`There is no button “${name}” in: ${this.text}`);
    button.click();
    await this.settles();
  }

  /** Types into a field and sends its form. */
  async send(field: string, value: string): Promise<void> {
    const input = this.element.querySelector<HTMLInputElement>(`input[name=${field}]`)!;
    write(input, value);
    input.form!.dispatchEvent(new SubmitEvent('submit', { cancelable: true }));
    await this.settles();
  }

  /** Chooses a value of a list of PrimeNG's, by its name. */
  async choose(name: string, value: unknown): Promise<void> {
    const list = this.fixture.debugElement
      .queryAll(By.css('p-select'))
      .find(({ componentInstance }) => (componentInstance as Select).ariaLabel === name);
    if (!list) throw new Error(`There is no list “${name}” in: ${this.text}`);
    list.triggerEventHandler('ngModelChange', value);
    await this.settles();
  }

  /** All that was asked has been answered and drawn. */
  async settles(): Promise<void> {
    await this.fixture.whenStable();
    // A turn of the event loop that no pretended clock hides.
    await new Promise<void>((done) => {
      const { port1, port2 } = new MessageChannel();
      port1.onmessage = () => {
        port1.close();
        done();
      };
      port2.postMessage(null);
    });
    await this.fixture.whenStable();
  }
}
