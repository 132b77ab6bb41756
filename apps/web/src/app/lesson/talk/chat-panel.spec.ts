import { provideZonelessChangeDetection } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { newId } from '@cuaderno/core/id';
import type { ChatLine, ChatTo } from '@cuaderno/core/features';
import { ChatPanel } from './chat-panel';

const [maren, ida] = [newId(), newId()];

describe('the chat', () => {
  let fixture: ComponentFixture<ChatPanel>;
  let sent: [ChatTo, string][];
  let goes: boolean;

  async function open(inputs: Record<string, unknown> = {}): Promise<HTMLElement> {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(ChatPanel);
    [sent, goes] = [[], true];
    const lines: ChatLine[] = [
      { id: newId(), by: ida, to: 'tutor', text: 'Where is Rigel?', at: 1 },
      { id: newId(), by: maren, to: ida, text: 'At the foot', at: 2 },
    ];
    const people = [
      { id: maren, name: 'Maren', nameOrdinal: 1, role: 'tutor' },
      { id: ida, name: 'Ida', nameOrdinal: 1, role: 'student' },
    ];
    const write = (to: ChatTo, text: string): boolean => goes && sent.push([to, text]) > 0;
    const all = { lines, people, me: ida, write, ...inputs };
    for (const [name, value] of Object.entries(all)) fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
    return fixture.nativeElement as HTMLElement;
  }
  async function type(host: HTMLElement, text: string): Promise<HTMLTextAreaElement> {
    const field = host.querySelector('textarea')!;
    field.value = text;
    field.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    return field;
  }

  it('says from whom and for whom a message is', async () => {
    const host = await open();
    const froms = [...host.querySelectorAll('.from')].map((p) =>
      p.textContent.replace(/\s+/g, ' ').trim(),
    );
    expect(froms[0]).toContain('You, to the tutor alone');
    expect(froms[1]).toContain('Maren, to you alone');
  });

  it('sends with Enter, and keeps what could not be sent', async () => {
    const host = await open();
    const field = await type(host, ' Thanks ');
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', shiftKey: true }));
    expect(sent).toEqual([]);
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await fixture.whenStable();
    expect(sent).toEqual([['all', 'Thanks']]);
    expect(field.value).toBe('');
    goes = false;
    await type(host, 'Again');
    host.querySelector('form')!.dispatchEvent(new Event('submit', { cancelable: true }));
    await fixture.whenStable();
    expect(field.value).toBe('Again');
  });

  it('says that one who helps reads what is written to the tutor; and they write to each', async () => {
    const tove = newId();
    const people = [
      { id: maren, name: 'Maren', nameOrdinal: 1, role: 'tutor' },
      { id: ida, name: 'Ida', nameOrdinal: 1, role: 'student' },
      { id: tove, name: 'Tove', nameOrdinal: 1, role: 'helper' },
    ];
    const options = (host: HTMLElement): string[] =>
      [...host.querySelectorAll('option')].map(({ textContent }) => textContent);
    const host = await open({ people });
    expect(options(host)).toEqual(['To all', 'To the tutor and Tove']);
    fixture.componentRef.setInput('me', tove);
    fixture.componentRef.setInput('isTutor', true);
    await fixture.whenStable();
    expect(options(host)).toEqual(['To all', 'To the tutor alone', 'To Ida alone']);
    expect(host.textContent).not.toContain('Delete all messages');
  });

  it('offers whom one may write to, or says why nobody', async () => {
    const host = await open({ notAll: 'Only the tutor writes to all in this class.' });
    expect([...host.querySelectorAll('option')].map(({ textContent }) => textContent)).toEqual([
      'To the tutor alone',
    ]);
    TestBed.resetTestingModule();
    const closed = await open({ notAll: 'No.', notTutor: 'The chat is closed.' });
    expect(closed.querySelector('textarea')).toBeNull();
    expect(closed.querySelector('.closed')!.textContent).toBe('The chat is closed.');
    TestBed.resetTestingModule();
    const tutors = await open({ me: maren, isTutor: true });
    expect([...tutors.querySelectorAll('option')].map(({ textContent }) => textContent)).toEqual([
      'To all',
      'To Ida alone',
    ]);
  });
});
