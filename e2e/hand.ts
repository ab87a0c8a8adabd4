import { expect, type Locator, type Page } from '@playwright/test';
import type { Worksheet } from 'exceljs';
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import yauzl from 'yauzl';
import type { WordedTally } from '../contract/responses.ts';

/** How a user works: with the mouse where there is something to point at, or by keys alone. */
export type Ways = 'mouse' | 'keys';
export const WAYS: readonly Ways[] = ['mouse', 'keys'];

type Role = 'button' | 'radio' | 'option' | 'checkbox' | 'menuitem' | 'link' | 'columnheader' | 'tab';

/** Roles whose focus is moved by arrows within what holds them. */
const BY_ARROWS: Partial<Record<Role, string>> = { menuitem: 'ArrowDown', option: 'ArrowDown' };

/**
 * A user's hand: everything it does is counted as an act (a click, a key, or one typed entry finished with Enter). By keys
 * alone it moves the focus to what it would point at, which is no act, as moving the mouse is none, and presses a key there.
 */
export class Hand {
  readonly page: Page;
  readonly by: Ways;
  acts = 0;

  constructor(page: Page, by: Ways = 'mouse') {
    this.page = page;
    this.by = by;
  }

  async click(name: string | RegExp, role: Role = 'button'): Promise<void> {
    const named = this.page.getByRole(role, { name }).first();
    const target = role === 'columnheader' && this.by === 'keys' ? named.getByRole('button').first() : named;
    await this.press(target, BY_ARROWS[role], role === 'checkbox' ? 'Space' : 'Enter');
  }

  /** Clicks something, or moves the focus there and presses a key. */
  async press(target: Locator, step = 'Tab', key = 'Enter'): Promise<void> {
    this.acts++;
    if (this.by === 'mouse') {
      await target.click();
      return;
    }
    await this.reach(target, step);
    await this.page.keyboard.press(key);
  }

  /** Moves the focus, a key at a time, until it is there. */
  async reach(target: Locator, step = 'Tab'): Promise<void> {
    await expect(target).toBeVisible();
    for (let moves = 0; moves < MOST_MOVES; moves++) {
      if (await target.evaluate((element) => element === document.activeElement)) return;
      await this.page.keyboard.press(step);
    }
    throw new Error(`The focus does not come to ${target.toString()} by ${step}.`);
  }

  async key(key: string): Promise<void> {
    this.acts++;
    await this.page.keyboard.press(key);
  }

  /** Types into the entry of the tape and presses Enter; the line must then stand on the tape. */
  async line(text: string): Promise<void> {
    const lines = await this.page.locator('[data-line]').count();
    await this.type(text);
    await expect(this.page.locator('[data-line]')).toHaveCount(lines + text.split(';').length);
  }

  /** Types into the entry of the tape and presses Enter. */
  async type(text: string): Promise<void> {
    this.acts++;
    const entry = this.page.locator('[data-entry]');
    if (this.by === 'keys') {
      await this.reach(entry);
      await this.page.keyboard.type(text);
      await this.page.keyboard.press('Enter');
      return;
    }
    await entry.fill(text);
    await entry.press('Enter');
  }

  /** Types into a field of a form, and presses a key that ends it; one act. */
  async enter(field: Locator, text: string, end?: string): Promise<void> {
    this.acts++;
    if (this.by === 'keys') await this.reach(field);
    else await field.focus();
    await this.page.keyboard.insertText(text);
    if (end) await this.page.keyboard.press(end);
  }

  /** The tally once it is counted. */
  async tally(): Promise<number> {
    await expect(this.page.locator('[data-tally]')).toBeVisible();
    return Number(await this.page.locator('[data-tally]').getAttribute('data-tally'));
  }

  /** How many of the tally an export has: without those that suppression lists keep off. */
  async goesOut(): Promise<number> {
    const left = await this.tally();
    const off = this.page.getByText(/of these (?:is|are) kept off exports/);
    return left - ((await off.count()) ? Number((await off.textContent())!.replace(/\D/g, '')) : 0);
  }

  /** What a download that `act` starts contains: the list itself, where how it was made is beside it in a ZIP. */
  async download(act: () => Promise<void>, timeout = 60_000): Promise<Buffer> {
    const [download] = await Promise.all([this.page.waitForEvent('download', { timeout }), act()]);
    const bytes = await readFile(await download.path());
    return download.suggestedFilename().endsWith('.zip') ? unpacked(bytes, /\.(csv|jsonl|vcf)$/) : bytes;
  }
}

/** The first file in a ZIP whose name is such. */
async function unpacked(bytes: Buffer, name: RegExp): Promise<Buffer> {
  const zip = await yauzl.fromBufferPromise(bytes, {});
  for await (const entry of zip.eachEntry()) {
    if (!name.test(entry.fileName)) continue;
    const chunks: Buffer[] = [];
    for await (const chunk of await zip.openReadStreamPromise(entry)) chunks.push(chunk as Buffer);
    return Buffer.concat(chunks);
  }
  throw new Error('There is no list in the ZIP.');
}

/** Moves of the focus after which something counts as out of its reach. */
const MOST_MOVES = 400;

/** Asks the API that the interface uses. */
export async function ask<T>(page: Page, path: string, body: unknown): Promise<T> {
  return (await (await page.request.post(path, { data: body })).json()) as T;
}

/** What the API says that a tape of companies with these lines leaves. */
export async function tallyOf(page: Page, lines: object[]): Promise<number> {
  const tape = { format: 'just-tally.tape', version: 1, subject: 'companies', lines };
  return (await ask<WordedTally>(page, '/api/tally', { tape })).tally;
}

/** All text of a sheet. */
export function sheetText(sheet: Worksheet): string {
  const cells: string[] = [];
  sheet.eachRow((row) => row.eachCell((cell) => cells.push(cell.text)));
  return cells.join('\n');
}

/** What a PDF says; it is left at a path. */
export function textOf(pdf: Buffer, path: string): string {
  writeFileSync(path, pdf);
  return spawnSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' }).stdout;
}
