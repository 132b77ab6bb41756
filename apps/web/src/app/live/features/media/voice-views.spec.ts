import { signal } from '@angular/core';
import type { Person } from '@cuaderno/core/features';
import { Screen } from '../../../testing/screen';
import { pretendPerson } from '../../pretend-person';
import { MediaState } from './media-state';
import { MicrophoneSwitch } from './microphone-switch';
import { MuteAll } from './mute-all';
import { VoiceNotice } from './voice-notice';

describe('what is seen of voices', () => {
  const maren = pretendPerson({ id: 'maren', name: 'Maren Solheim', role: 'tutor' });
  const ida = pretendPerson({ id: 'ida', name: 'Ida' });
  const noor = pretendPerson({ id: 'noor', name: 'Noor' });
  const lesson = (me: Person, ...others: Person[]) => {
    const lead = signal<string | null>(null);
    const sent: unknown[] = [];
    const media = new MediaState(
      (message) => sent.push(message) > 0,
      (message) => void sent.push(message),
      () => [],
    );
    return {
      ...{ media, lead, sent },
      session: {
        me: signal(me.id),
        people: signal([me, ...others]),
        features: { media, pens: { lead } },
      },
    };
  };
  const on = (media: MediaState, ...who: string[]): void =>
    media.handlers['media.windows']({
      kind: 'media.windows',
      windows: who.map((person) => ({ id: `w-${person}`, person, microphone: 'on' })),
    });

  it('is one switch for one’s own, and none for who watches', async () => {
    const { media, session } = lesson(ida, maren);
    const toggled = spyOn(media, 'toggle').and.resolveTo();
    const screen = await Screen.show(MicrophoneSwitch, { session }, {});
    const button = screen.element.querySelector('button')!;
    expect(button.getAttribute('aria-checked')).toBe('false');
    button.click();
    expect(toggled).toHaveBeenCalledTimes(1);
    media.own.set('on');
    await screen.settles();
    expect(button.getAttribute('aria-checked')).toBe('true');
    session.people.set([{ ...ida, role: 'watcher' }, maren]);
    await screen.settles();
    expect(screen.element.querySelector('button')).toBeNull();
  });

  it('says who asks, and takes no for an answer', async () => {
    const { media, session } = lesson(ida, maren);
    const screen = await Screen.show(VoiceNotice, { session }, {});
    expect(screen.element.textContent.trim()).toBe('');
    media.askedBy.set('maren');
    await screen.settles();
    expect(screen.element.textContent).toContain('Maren Solheim would like to hear you.');
    const [, notNow] = screen.element.querySelectorAll('button');
    notNow!.click();
    await screen.settles();
    expect([media.askedBy(), media.own()]).toEqual([null, 'off']);
    media.fault.set('denied');
    await screen.settles();
    expect(screen.element.querySelector('[role=alert]')!.textContent).toContain(
      'The browser doesn’t allow the microphone here.',
    );
  });

  it('mutes all students while any is on, and all but who leads while one of them leads', async () => {
    const { media, session, lead, sent } = lesson(maren, ida, noor);
    const screen = await Screen.show(MuteAll, { session }, {});
    const words = (): string[] =>
      [...screen.element.querySelectorAll('button')].map(({ textContent }) => textContent.trim());
    on(media, 'maren');
    await screen.settles();
    expect(words()).toEqual([]);
    on(media, 'maren', 'ida', 'noor');
    await screen.settles();
    expect(words()).toEqual(['Mute all students']);
    lead.set('ida');
    await screen.settles();
    expect(words()).toEqual(['Mute all students', 'Mute all but who leads']);
    for (const button of screen.element.querySelectorAll('button')) button.click();
    expect(sent).toEqual([
      { kind: 'media.mute', who: 'all' },
      { kind: 'media.mute', who: 'all-but-lead' },
    ]);
  });
});
