import { AxeBuilder } from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** Holds what is shown to every rule of axe by day, and to that of contrast by night: nothing but colours is other then. */
export async function axeFindsNothing(page: Page, what: string): Promise<void> {
  await page.emulateMedia({ colorScheme: 'light' });
  await atRest(page);
  await clean(new AxeBuilder({ page }), `${what}, by day`);
  await page.emulateMedia({ colorScheme: 'dark' });
  await atRest(page);
  await clean(new AxeBuilder({ page }).withRules(['color-contrast']), `${what}, by night`);
  await page.emulateMedia({ colorScheme: 'light' });
}

/** Waits until what comes or goes has done so, for some frames: what is half there has half its contrast. */
async function atRest(page: Page): Promise<void> {
  await page.evaluate(async () => {
    for (let quiet = 0; quiet < 5; quiet++) {
      await new Promise(requestAnimationFrame);
      const going = document.getAnimations().filter((animation) => animation instanceof CSSTransition);
      if (going.length > 0) quiet = -1;
      await Promise.all(going.map((transition) => transition.finished.catch(() => null)));
    }
  });
}

async function clean(axe: AxeBuilder, what: string): Promise<void> {
  const { violations } = await axe.analyze();
  expect(violations.map(({ id, nodes }) => `${what}: ${id} ${nodes[0]?.html.slice(0, 160)}`)).toEqual([]);
}
