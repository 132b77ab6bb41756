import { MAX_OPERATIONS, newId, operation } from '@cuaderno/core';
import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { House } from '../testing/harness.js';
import { plainPdf } from '../testing/pdf-files.js';

/** Size of the disk, in MB. */
const SIZE = 8;

/** A disk of its own for what is kept; `null` where this machine doesn't let one be made. */
function smallDisk(): string | null {
  const folder = mkdtempSync(join(tmpdir(), 'cuaderno-disk-'));
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${SIZE}m`, 'tmpfs', folder], {
      stdio: 'ignore',
    });
    return folder;
  } catch {
    rmSync(folder, { recursive: true });
    return null;
  }
}

describe('a full disk', () => {
  let house: House;
  let disk: string | null;

  beforeEach(async () => {
    disk = smallDisk();
    house = await House.open('full', disk ? { dataFolder: join(disk, 'data') } : {});
  });
  afterEach(async () => {
    await house.close();
    if (!disk) return;
    execFileSync('umount', ['-l', disk]);
    rmSync(disk, { recursive: true });
  });

  const large = (): Buffer => {
    const bytes = Buffer.alloc(2 * SIZE * 1024 * 1024, 'x');
    bytes.write('%PDF-1.7\n');
    return bytes;
  };
  const fill = (): void => {
    mkdirSync(disk!, { recursive: true });
    try {
      for (let i = 0; ; i++) writeFileSync(join(disk!, `filler-${i}`), Buffer.alloc(64 * 1024));
    } catch {
      // There is no more room, as was wished.
    }
  };
  const makeRoom = (): void => {
    for (const name of readdirSync(disk!)) if (name.startsWith('filler')) rmSync(join(disk!, name));
  };

  it('is told as that, whatever fills it, and takes nothing with it', async () => {
    // Where no disk can be made, what a full one says is said by hand.
    if (!disk)
      spyOn(house.app.files, 'put').and.rejectWith(
        Object.assign(new Error('write'), { code: 'ENOSPC' }),
      );
    const response = await house.tutor.upload(house.course.id, 'Large.pdf', large());
    expect(response.statusCode).withContext(response.body).toBe(507);
    expect(response.json<{ title: string }>().title).toBe('The disk of this machine is full.');
    if (!disk) return;
    const sent = await house.uploadMaterial(house.tutor, 'Large.pdf', large());
    expect(sent.status).toBe(507);
    // Nothing of it is left, and there is room for what fits.
    expect(readdirSync(join(house.folder, 'files', 'incoming'))).toEqual([]);
    for (const name of readdirSync(join(house.folder, 'uploads')))
      rmSync(join(house.folder, 'uploads', name));
    const small = await house.tutor.upload(house.course.id, 'Small.pdf', await plainPdf(1));
    expect(small.statusCode).withContext(small.body).toBe(201);
  });

  it('confirms nothing that isn’t kept; what was drawn comes when there is room', async () => {
    if (!disk) return pending('this machine lets no disk be made');
    const maren = await house.tutorWindow();
    const { outline: board } = await maren.hears('board.opened');
    const page = board!.pages[0]!.id;
    const name = operation({ kind: 'page.change', page, to: { name: 'Ebb' }, from: { name: '' } });
    fill();
    // Larger than what is left in the last block of the file.
    const title = 'x'.repeat(110);
    const ops = Array.from({ length: MAX_OPERATIONS - 1 }, () =>
      operation({ kind: 'board.rename', title: title + newId().slice(0, 4), former: '' }),
    );
    maren.send({ kind: 'ops', ops: [name, ...ops] });
    await maren.ends();
    expect(maren.told.some(({ kind }) => kind === 'confirmed')).toBeFalse();
    // Anyone who comes meanwhile is told that writing rests, and what is sent is left with who sent it.
    const again = await house.tutorWindow();
    expect((await again.hears('board.opened')).outline!.pages[0]!.name).toBe('');
    expect((await again.hears('keeping')).on).toBeFalse();
    again.send({ kind: 'ops', ops: [name] });
    await again.hearsTimes('keeping', 2);
    expect(again.told.some(({ kind }) => kind === 'confirmed')).toBeFalse();
    makeRoom();
    await again.hears('keeping', ({ on }) => on);
    again.send({ kind: 'ops', ops: [name] });
    await again.hears('confirmed', ({ ids }) => ids.includes(name.id));
    expect(existsSync(join(house.folder, 'cuaderno.db'))).toBeTrue();
  });
});
