import type { DoorRule, GivenRole } from '@cuaderno/core/permissions';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  model,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { firstValueFrom } from 'rxjs';
import { Attempt } from '../../api/attempt';
import { CoursesApi } from '../../api/courses-api';
import type { Course, GuestLink } from '../../api/shapes';
import { copyText } from '../../browser/copy-text';
import { Button } from '../../ui/button/button';
import { Confirm } from '../../ui/confirm/confirm';
import { LIST } from '../../ui/list/list';
import { Tip } from '../../ui/tip/tip';
import { GIVEN_ROLES, ROLE_WORDS } from '../../live/role-words';
import { JoinCard, joinLink } from './join-card';
import { ProblemMessage } from '../../ui/problem/problem-message';

/** Who comes in by themselves, in words. */
const RULES: readonly { rule: DoorRule; label: string; detail: string }[] = [
  { rule: 'ask', label: 'I let everyone in', detail: 'New arrivals wait at the door.' },
  {
    rule: 'known',
    label: 'Who was here before comes in',
    detail: 'By the browser they use, not by the name they type.',
  },
  {
    rule: 'all',
    label: 'Anyone with the link comes in',
    detail: 'Also somebody who got it from a student.',
  },
];

/** How students come into a course: its link and code, who waits at the door, links for guests, its end. */
@Component({
  selector: 'cua-way-in',
  imports: [Button, Confirm, FormsModule, JoinCard, LIST, ProblemMessage, Tip],
  templateUrl: './way-in.html',
  styleUrl: './way-in.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WayIn {
  readonly course = model.required<Course>();
  /** Whether a lesson of it is open. */
  readonly open = input(false);

  private readonly coursesApi = inject(CoursesApi);
  private readonly id = computed(() => this.course().id);
  protected readonly rules = RULES;
  protected readonly roles = GIVEN_ROLES;
  protected readonly roleWords = ROLE_WORDS;
  /** What the next guest is in the lesson. */
  protected readonly role = signal<GivenRole>('student');
  protected readonly means = computed(
    () => GIVEN_ROLES.find(({ role }) => role === this.role())!.means,
  );
  protected readonly guests = signal<readonly GuestLink[]>([]);
  protected readonly copied = signal<string | null>(null);
  /** What is asked about before it is done. */
  protected readonly asking = signal<'link' | 'retire' | null>(null);
  protected readonly attempt = new Attempt();

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => void this.attempt.make(() => this.loadGuests(id)));
    });
  }

  protected setDoor(door: DoorRule): void {
    const before = this.course();
    this.course.set({ ...before, door });
    void this.attempt.make(async () => {
      try {
        await firstValueFrom(this.coursesApi.setDoorRule(this.id(), { door }));
      } catch (error) {
        this.course.set(before);
        throw error;
      }
    });
  }

  protected renew(): void {
    void this.attempt.make(async () => {
      const now = await firstValueFrom(this.coursesApi.renewJoinLink(this.id()));
      this.course.update((course) => ({ ...course, ...now }));
      this.asking.set(null);
    });
  }

  protected retire(): void {
    void this.attempt.make(async () => {
      await firstValueFrom(this.coursesApi.retireCourse(this.id()));
      this.course.update((course) => ({
        ...course,
        retiredAt: Date.now(),
        nextAt: null,
        nextUntil: null,
      }));
      this.asking.set(null);
    });
  }

  protected resume(): void {
    void this.attempt.make(async () => {
      await firstValueFrom(this.coursesApi.resumeCourse(this.id()));
      const { course } = await firstValueFrom(this.coursesApi.readCourse(this.course().id));
      this.course.set(course);
    });
  }

  protected invite(field: HTMLInputElement): void {
    const guest = field.value.trim();
    if (guest === '') return;
    void this.attempt.make(async () => {
      const link = await firstValueFrom(
        this.coursesApi.createGuestLink(this.id(), { guest, role: this.role() }),
      );
      this.guests.update((list) => [...list, link]);
      field.value = '';
      this.role.set('student');
      await this.copy(link);
    });
  }

  protected async copy(link: GuestLink): Promise<void> {
    if (await copyText(joinLink(link.token))) this.copied.set(link.id);
  }

  protected end(link: GuestLink): void {
    void this.attempt.make(async () => {
      await firstValueFrom(this.coursesApi.cancelGuestLink(this.course().id, link.id));
      this.guests.update((list) => list.filter(({ id }) => id !== link.id));
    });
  }

  private async loadGuests(course: string): Promise<void> {
    this.guests.set(await firstValueFrom(this.coursesApi.listGuestLinks(course)));
  }
}
