import type { Explanation, ExplanationsReply } from '@doodla/core';
import type { Page } from '@playwright/test';
import { PNG } from 'pngjs';
import { expect } from './fixtures';
import { darkInCanvas } from './pictures';

const SEEN_WIDTH = 320;

/** What is recorded on a page, by the hands of its teacher. */
export function recordingOn(page: Page) {
  const dialog = page.getByRole('dialog', { name: 'Explanations' });
  const panel = page.getByRole('group', { name: 'An explanation is recorded' });
  const open = async () => {
    await page.getByRole('button', { name: 'Explanations', exact: true }).click();
    await dialog.waitFor();
  };
  const seconds = async () => secondsOf(await panel.getByRole('timer').innerText());
  const lasts = (least: number) => expect.poll(seconds).toBeGreaterThanOrEqual(least);
  return {
    dialog,
    panel,
    open,
    button: (name: string) => panel.getByRole('button', { name, exact: true }),
    /** Begins one, after the countdown. */
    async begin(name: string): Promise<void> {
      await open();
      await expect(dialog.getByRole('meter')).toBeVisible();
      await dialog.getByRole('textbox', { name: 'Name' }).fill(name);
      await dialog.getByRole('button', { name: 'Record', exact: true }).click();
      await expect(page.getByText('3', { exact: true })).toBeVisible();
      await expect(panel).toHaveAttribute('data-recording', 'recording');
    },
    /** Waits until so many seconds are recorded. */
    lasts,
    /** Waits until so many seconds more are recorded. */
    goesOn: async (more: number) => lasts((await seconds()) + more),
    async finish(): Promise<void> {
      await panel.getByRole('button', { name: 'Finish' }).click();
      await expect(panel).toBeHidden();
    },
    /** Plays the explanation of a name. */
    async play(name: string) {
      await open();
      await dialog
        .getByRole('listitem')
        .filter({ hasText: name })
        .getByRole('button', { name: 'Play' })
        .click();
      return playedOn(page, name);
    },
  };
}

export function playedOn(page: Page, name: string) {
  const dialog = page.getByRole('dialog', { name });
  const picture = dialog.getByTestId('replay-page');
  return {
    dialog,
    status: dialog.getByTestId('replay-status'),
    slider: dialog.getByRole('slider', { name: 'Time' }),
    play: dialog.getByRole('button', { name: 'Play', exact: true }),
    ink: () => darkInCanvas(picture),
    /** How much ink there is once the picture is as large as it stays and drawn. */
    async settledInk(): Promise<number> {
      let before = -1;
      await expect
        .poll(async () => {
          const now = await darkInCanvas(picture);
          const isSame = now === before;
          before = now;
          return isSame;
        })
        .toBe(true);
      return before;
    },
  };
}

/** What a page shows that plays an explanation. */
export function playingOn(page: Page) {
  const picture = page.getByTestId('replay-page');
  return {
    picture,
    slider: page.getByRole('slider', { name: 'Time' }),
    play: page.getByRole('button', { name: 'Play', exact: true }),
    speed: page.getByRole('combobox', { name: 'Speed' }),
    /** What is seen of the page, at one size in all windows. */
    async seen(): Promise<PNG> {
      const source = await picture.evaluate((canvas: HTMLCanvasElement, width: number) => {
        const small = document.createElement('canvas');
        [small.width, small.height] = [width, Math.round((width * canvas.height) / canvas.width)];
        const ctx = small.getContext('2d')!;
        ctx.imageSmoothingQuality = 'high';
        ctx.drawImage(canvas, 0, 0, small.width, small.height);
        return small.toDataURL();
      }, SEEN_WIDTH);
      return PNG.sync.read(Buffer.from(source.split(',')[1]!, 'base64'));
    },
    /** Shows a time, and waits until it is drawn. */
    async goTo(time: number): Promise<void> {
      await page.getByRole('slider', { name: 'Time' }).fill(String(time));
      await expect(picture).toHaveAttribute('data-time', String(time));
    },
    time: async () => Number(await picture.getAttribute('data-time')),
  };
}

/** What is taken along of an explanation that plays. */
export function takingAlong(page: Page) {
  const part = page.getByRole('region', { name: 'Take it along' });
  return {
    part,
    open: () => page.getByRole('button', { name: 'Take it along' }).click(),
    /** Makes one and saves it. Gives its path and name. */
    async make(as: string): Promise<{ path: string; name: string }> {
      await part.getByLabel('As', { exact: true }).selectOption(as);
      await part.getByRole('button', { name: 'Make it', exact: true }).click();
      const link = part.getByRole('link', { name: /^Save / });
      const problem = part.getByRole('alert');
      await link.or(problem).waitFor();
      await expect(problem).toBeHidden();
      const [download] = await Promise.all([page.waitForEvent('download'), link.click()]);
      await part.getByRole('button', { name: 'Make something else' }).click();
      return { path: await download.path(), name: download.suggestedFilename() };
    },
  };
}

export const secondsOf = (time: string) => time.split(':').reduce((sum, part) => sum * 60 + Number(part), 0);

/** The explanations of what a page has open, and what the server has of them; asked for by the page itself. */
export function kept(page: Page) {
  const [, kind, id] = /\/(lesson|sitting)\/([\w-]+)/.exec(page.url())!;
  const path = `/api/logs/${kind}/${id}/explanations`;
  const get = async (of: string): Promise<Buffer> => {
    const bytes = await page.evaluate(async (address) => {
      const response = await fetch(address);
      return [...new Uint8Array(await response.arrayBuffer())];
    }, of);
    return Buffer.from(bytes);
  };
  return {
    list: async () => (JSON.parse((await get(path)).toString()) as ExplanationsReply).explanations,
    track: (of: Explanation, take: string, name: string) => get(`${path}/${of.id}/takes/${take}/${name}`),
  };
}
