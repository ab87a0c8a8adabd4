import { expect, type Page } from '@playwright/test';
import type { Worksheet } from 'exceljs';
import { readFile } from 'node:fs/promises';

/** A user's hand: everything it does is counted as an act (a click, a key, or one typed entry finished with Enter). */
export class Hand {
  readonly page: Page;
  acts = 0;

  constructor(page: Page) {
    this.page = page;
  }

  async click(
    name: string | RegExp,
    role: 'button' | 'radio' | 'option' | 'checkbox' | 'menuitem' | 'link' | 'columnheader' = 'button',
  ): Promise<void> {
    this.acts++;
    await this.page.getByRole(role, { name }).first().click();
  }

  async key(key: string): Promise<void> {
    this.acts++;
    await this.page.keyboard.press(key);
  }

  /** Types into the entry of the tape and presses Enter; the line must then stand on the tape. */
  async line(text: string): Promise<void> {
    this.acts++;
    const lines = await this.page.locator('[data-line]').count();
    await this.page.locator('[data-entry]').fill(text);
    await this.page.locator('[data-entry]').press('Enter');
    await expect(this.page.locator('[data-line]')).toHaveCount(lines + text.split(';').length);
  }

  /** The tally once it is counted. */
  async tally(): Promise<number> {
    await expect(this.page.locator('[data-tally]')).toBeVisible();
    return Number(await this.page.locator('[data-tally]').getAttribute('data-tally'));
  }

  /** What a download that `act` starts contains. */
  async download(act: () => Promise<void>): Promise<Buffer> {
    const [download] = await Promise.all([this.page.waitForEvent('download'), act()]);
    return readFile(await download.path());
  }
}

/** Asks the API that the interface uses. */
export async function ask<T>(page: Page, path: string, body: unknown): Promise<T> {
  return (await (await page.request.post(path, { data: body })).json()) as T;
}

/** All text of a sheet. */
export function sheetText(sheet: Worksheet): string {
  const cells: string[] = [];
  sheet.eachRow((row) => row.eachCell((cell) => cells.push(cell.text)));
  return cells.join('\n');
}
