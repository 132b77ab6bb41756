import { provideZonelessChangeDetection } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { newId } from '@cuaderno/core/id';
import type { Person } from '@cuaderno/core/features';
import { PermissionsPanel } from './permissions-panel';
import type { MayLevel, MayWord } from './permissions-panel';

const ida = {
  id: newId(),
  name: 'Ida',
  nameOrdinal: 1,
  role: 'student',
  trust: 'write',
  rules: {},
};

describe('what students may do', () => {
  let fixture: ComponentFixture<PermissionsPanel>;
  let said: MayWord[];

  async function open(first: MayLevel, rules: object = {}): Promise<void> {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(PermissionsPanel);
    for (const [name, value] of Object.entries({
      people: [{ ...ida, ...rules }] as unknown as Person[],
      classRules: { turn: false },
      courseRules: {},
      boardRules: {},
      pageRules: { trust: 'view' },
      number: '3',
      first,
    }))
      fixture.componentRef.setInput(name, value);
    said = [];
    fixture.componentInstance.said.subscribe((word) => said.push(word));
    await fixture.whenStable();
  }
  const box = (label: string): HTMLInputElement =>
    [...(fixture.nativeElement as HTMLElement).querySelectorAll('label')]
      .find((one) => one.textContent.trim().startsWith(label))!
      .querySelector('input')!;

  it('is said for all, and for one only where it differs from all', async () => {
    await open('all');
    expect(box('Turn pages alone').checked).toBeFalse();
    box('Add pages').click();
    box('Hands on').click();
    expect(said).toEqual([
      { kind: 'rules', who: 'all', over: { addPages: true } },
      { kind: 'trust', who: 'all', trust: 'hands' },
    ]);
    TestBed.resetTestingModule();
    await open({ who: ida.id }, { rules: { turn: true } });
    expect(box('Turn pages alone').checked).toBeTrue();
    box('Turn pages alone').click();
    box('Add pages').click();
    expect(said).toEqual([
      { kind: 'rules', who: ida.id, over: { turn: null } },
      { kind: 'rules', who: ida.id, over: { addPages: true } },
    ]);
  });

  it('is only taken away by a page or a board', async () => {
    await open('page');
    expect(box('Watching').checked).toBeTrue();
    box('Run sounds and films').click();
    box('Hands on').click();
    expect(said).toEqual([
      { kind: 'page', rules: { trust: 'view', runMedia: false } },
      { kind: 'page', rules: {} },
    ]);
    expect(box('Run sounds and films')).toBeTruthy();
    expect(() => box('Write to all')).toThrow();
  });

  it('is how every lesson of the course begins', async () => {
    await open('course');
    box('Writing').click();
    expect(said).toEqual([{ kind: 'course', rules: { trust: 'write' } }]);
  });
});
