import type { Page } from '@playwright/test';
import { expectNoAxeViolations } from './axe.js';
import { SharedProcessServer } from './house.js';
import { samplePdf } from './pdfs.js';
import { hasCome, Someone } from './people.js';
import { expect, test } from './story.js';

// A microphone that beeps; whether a window has it is asked, and answered as each browser is told.
test.use({
  launchOptions: {
    // The one without a window takes no sound in.
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--use-fake-device-for-media-stream'],
  },
});

let server: SharedProcessServer;
test.beforeEach(async () => {
  server = await SharedProcessServer.start();
});
test.afterEach(() => server.close());

interface Listening extends Window {
  connections: RTCPeerConnection[];
  players: HTMLMediaElement[];
}

/** Has a window tell what it hears, by what the browser itself measures (W3C getStats). */
async function listen(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const window = globalThis as unknown as Listening;
    window.connections = [];
    window.players = [];
    const Real = RTCPeerConnection;
    globalThis.RTCPeerConnection = class extends Real {
      constructor(configuration?: RTCConfiguration) {
        super(configuration);
        window.connections.push(this);
      }
    };
    const { play } = HTMLMediaElement.prototype;
    HTMLMediaElement.prototype.play = function (this: HTMLMediaElement) {
      window.players.push(this);
      return play.call(this);
    };
  });
}

/** How much sound has come so far, of all others together. */
const energyAt = ({ page }: Someone): Promise<number> =>
  page.evaluate(async () => {
    const { connections } = globalThis as unknown as Listening;
    let energy = 0;
    for (const connection of connections)
      for (const report of (await connection.getStats()).values())
        if (report.type === 'inbound-rtp') energy += report.totalAudioEnergy ?? 0;
    return energy;
  });

/** How many voices are played so that they are heard. */
const heardAt = ({ page }: Someone): Promise<number> =>
  page.evaluate(
    () =>
      (globalThis as unknown as Listening).players.filter(
        ({ muted, paused, srcObject }) => !muted && !paused && srcObject !== null,
      ).length,
  );

const hears = async (who: Someone): Promise<void> => {
  const before = await energyAt(who);
  await expect.poll(() => energyAt(who)).toBeGreaterThan(before);
};

const microphone = ({ page }: Someone) => page.getByRole('switch', { name: 'Microphone' });

test('three hear one another; the tutor mutes and asks; who may not use a microphone listens', async ({
  browser,
}) => {
  const maren = await Someone.at(browser, { permissions: ['microphone'] });
  await listen(maren.page);
  await maren.setUp(server.url);
  await maren.makeCourse('Reading the tides');
  await maren.bring('Tides.pdf', await samplePdf(1));
  const link = server.url + (await maren.openLesson());
  const noor = await Someone.at(browser, { permissions: ['microphone'] });
  await listen(noor.page);
  await noor.join(link, 'Noor');
  const ida = await Someone.at(browser, {
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  await listen(ida.page);
  await ida.join(link, 'Ida');

  await test.step('the tutor speaks with one touch, and all hear her', async () => {
    await expect(microphone(maren)).not.toBeChecked();
    await microphone(maren).click();
    await expect(microphone(maren)).toBeChecked();
    await Promise.all([hears(noor), hears(ida)]);
    await expect.poll(() => heardAt(ida)).toBe(1);
    await expect(noor.page.getByRole('img', { name: 'microphone on' })).toHaveCount(1);
  });

  await test.step('a student answers, and is seen to speak', async () => {
    await microphone(noor).click();
    await hears(maren);
    await expect(maren.page.locator('cua-people-panel .speaks')).toBeVisible();
    await expectNoAxeViolations(maren, 'voices, tutor');
  });

  await test.step('who denied the microphone is told what to do, and listens', async () => {
    await microphone(ida).tap();
    await expect(ida.page.getByRole('alert')).toContainText('doesn’t allow the microphone');
    await expectNoAxeViolations(ida, 'voices, a phone without a microphone');
    await ida.button('Just listen').tap();
    await expect(ida.page.getByRole('alert')).toHaveCount(0);
    await expect(microphone(ida)).not.toBeChecked();
    await hears(ida);
  });

  await test.step('the tutor mutes one student, who is told', async () => {
    await expect.poll(() => heardAt(ida)).toBe(2);
    await maren.button('More for Noor').click();
    await maren.page.getByRole('menuitem', { name: 'Mute', exact: true }).click();
    await expect(noor.page.getByText('Maren Solheim has muted your microphone.')).toBeVisible();
    await expect(microphone(noor)).not.toBeChecked();
    await expect.poll(() => heardAt(ida)).toBe(1);
    await expect.poll(() => heardAt(maren)).toBe(0);
  });

  await test.step('and asks her to switch it on again: that is hers to do', async () => {
    await maren.button('More for Noor').click();
    await maren.page.getByRole('menuitem', { name: 'Ask to switch the microphone on' }).click();
    await expect(noor.page.getByText('Maren Solheim would like to hear you.')).toBeVisible();
    await expect(microphone(noor)).not.toBeChecked();
    await noor.button('Switch on').click();
    await expect(microphone(noor)).toBeChecked();
    await hears(maren);
    await expect.poll(() => heardAt(maren)).toBe(1);
  });

  await test.step('a window that was reloaded hears again, and who comes late does', async () => {
    await ida.page.reload();
    await hears(ida);
    await expect.poll(() => heardAt(ida)).toBe(2);
  });

  await test.step('who is sent out is heard by nobody and hears nobody', async () => {
    await maren.button('More for Noor').click();
    await maren.page.getByRole('menuitem', { name: 'Send out for this lesson' }).click();
    await expect.poll(() => heardAt(maren)).toBe(0);
    await expect.poll(() => heardAt(ida)).toBe(1);
    await expect.poll(() => heardAt(noor)).toBe(0);
    expect(
      await noor.page.evaluate(() =>
        (globalThis as unknown as Listening).connections.every(
          ({ connectionState }) => connectionState === 'closed',
        ),
      ),
    ).toBeTruthy();
  });

  await test.step('all is silent when the lesson is over', async () => {
    await maren.button('Close the lesson').click();
    const closing = maren.page.getByRole('dialog');
    await hasCome(closing);
    await closing.getByRole('button', { name: 'Close the lesson' }).click();
    await expect(ida.page.getByText('The lesson is over')).toBeVisible();
    await expect.poll(() => heardAt(ida)).toBe(0);
  });
});
