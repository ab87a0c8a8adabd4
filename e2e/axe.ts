import { AxeBuilder } from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** Holds what is shown to every rule of axe by day, and to that of contrast by night: nothing but colours is other then. */
export async function axeFindsNothing(page: Page, what: string): Promise<void> {
  await page.emulateMedia({ colorScheme: 'light' });
  await clean(new AxeBuilder({ page }), `${what}, by day`);
  await page.emulateMedia({ colorScheme: 'dark' });
  await clean(new AxeBuilder({ page }).withRules(['color-contrast']), `${what}, by night`);
  await page.emulateMedia({ colorScheme: 'light' });
}

async function clean(axe: AxeBuilder, what: string): Promise<void> {
  const { violations } = await axe.analyze();
  expect(violations.map(({ id, nodes }) => `${what}: ${id} ${nodes[0]?.html.slice(0, 160)}`)).toEqual([]);
}
