import { chromium, type Page } from '@playwright/test';
import { setTimeout as wait } from 'node:timers/promises';
import { TimingTable } from './figures.ts';
import { ServerProcess } from './server-process.ts';

/**
 * What the eye waits for in the real interface: from a key or a move of the mouse to painted counts,
 * and how long rows stay blank while the thumb of the sheet is dragged.
 */
export async function measureBrowser(dir: string): Promise<void> {
  const server = await ServerProcess.start(dir);
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(server.address);
    await page.locator('[data-tally]').waitFor();
    const table = new TimingTable('in the browser');
    table.add('typing a limit to the painted tally', await typing(page));
    table.add('dragging a brush to the painted tally', await dragging(page));
    table.add('dragging the thumb: rows blank', await scrolling(page));
    table.print();
  } finally {
    await browser.close();
    await server.stop();
  }
}

const LINES = 'nace 16 25 43; in CZ, PL, AT, DE, FR; headcount 10-249; revenue 1m..40m eur';

async function tapeOf(page: Page, lines: string): Promise<void> {
  const entry = page.getByLabel('Add a line');
  await entry.fill(lines);
  await entry.press('Enter');
  await page
    .locator('[data-line]')
    .nth(lines.split(';').length - 1)
    .waitFor();
  await page.locator('[data-tally]').waitFor();
}

/**
 * In the page: notes the time from the last `event` before a count was taken off the tape, because
 * it no longer held, to the paint of the one that took its place.
 */
async function watch(page: Page, event: string): Promise<void> {
  await page.evaluate((name) => {
    const seen: number[] = [];
    let last = 0;
    let since = 0;
    Object.assign(window, { seen });
    addEventListener(name, () => (last = performance.now()), true);
    new MutationObserver(() => {
      const counted = document.querySelector('[data-tally]') !== null;
      if (!counted) since ||= last;
      else if (since) {
        const from = since;
        since = 0;
        requestAnimationFrame(() => setTimeout(() => seen.push(performance.now() - from)));
      }
    }).observe(document.body, { subtree: true, attributes: true, attributeFilter: ['data-tally'] });
  }, event);
}

const seen = (page: Page) => page.evaluate(() => (window as unknown as { seen: number[] }).seen);

async function typing(page: Page): Promise<number[]> {
  await tapeOf(page, LINES);
  await page.locator('[data-line]').nth(2).click();
  const to = page.getByRole('textbox', { name: 'to', exact: true });
  await to.waitFor();
  await watch(page, 'input');
  for (let i = 0; i < 60; i++) {
    await to.fill(String(60 + i * 7));
    await wait(160);
  }
  return seen(page);
}

/** Drags over the bars of the histogram and back, as a brush does. */
async function dragging(page: Page): Promise<number[]> {
  await page.reload();
  await page.locator('[data-tally]').waitFor();
  const bars = page.getByRole('button', { name: /companies$/ });
  await bars.first().waitFor();
  const boxes = [];
  for (const bar of await bars.all()) boxes.push((await bar.boundingBox())!);
  await watch(page, 'pointermove');
  const [first] = boxes;
  const last = boxes.at(-1)!;
  await page.mouse.move(first!.x + 4, first!.y + first!.height / 2);
  await page.mouse.down();
  for (let i = 0; i <= 60; i++) {
    const share = i <= 30 ? i / 30 : (60 - i) / 30;
    await page.mouse.move(first!.x + 4 + share * (last.x - first!.x), first!.y + first!.height / 2);
    await wait(120);
  }
  await page.mouse.up();
  return seen(page);
}

/** How long rows in view stay blank, looked at every frame, while the thumb moves to another place in each. */
async function scrolling(page: Page): Promise<number[]> {
  await page.goto(new URL('/', page.url()).href);
  await page.locator('[data-row]').first().waitFor();
  return page.evaluate(async () => {
    const sheet = document.querySelector('[data-sheet]')!;
    const isBlank = () => {
      const box = sheet.getBoundingClientRect();
      return [...sheet.querySelectorAll('[role=row]:not([data-row])')].some((row) => {
        const { top, bottom } = row.getBoundingClientRect();
        return row.ariaRowIndex !== '1' && bottom > box.top + 40 && top < box.bottom;
      });
    };
    const blanks: number[] = [];
    let since = 0;
    const frames = 360;
    for (let i = 0; i < frames || since; i++) {
      const share = Math.min(1, i / frames);
      sheet.scrollTop = (sheet.scrollHeight - sheet.clientHeight) * Math.sin(share * Math.PI * 1.5) ** 2;
      await new Promise(requestAnimationFrame);
      await new Promise((resolve) => setTimeout(resolve));
      if (isBlank()) since ||= performance.now();
      else if (since) {
        blanks.push(performance.now() - since);
        since = 0;
      }
    }
    return blanks.length ? blanks : [0];
  });
}
