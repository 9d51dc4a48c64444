import type { Locator, Page } from '@playwright/test';
import { expect, test } from './workshop.ts';
import { aPourOn } from './things.ts';

const SIZES = [
  { width: 1280, height: 800 },
  { width: 820, height: 1180 },
];

/** Whether the middle of a thing is on the screen, as it stands, with nothing over it. */
const seen = (thing: Locator) =>
  thing.evaluate((element) => {
    const { left, right, top, bottom } = element.getBoundingClientRect();
    if (left < 0 || top < 0 || right > innerWidth + 1 || bottom > innerHeight + 1) return false;
    const there = document.elementFromPoint((left + right) / 2, (top + bottom) / 2);
    return there !== null && (element.contains(there) || there.contains(element));
  });

const allSeen = async (page: Page, what: Record<string, Locator>) => {
  const hidden: string[] = [];
  for (const [name, locator] of Object.entries(what)) {
    const all = await locator.all();
    if (all.length === 0) hidden.push(`${name}: not there`);
    for (const [index, each] of all.entries()) if (!(await seen(each))) hidden.push(`${name} ${index + 1}`);
  }
  return hidden;
};

/** What is not seen at one size does not hide what is not seen at another. */
const softly = expect.configure({ soft: true });
/** Shots that the server has heard of. */
async function shotsOf(page: Page, url: string, pourId: string): Promise<number> {
  const { log } = (await (await page.request.get(`${url}/api/pours/${pourId}`)).json()) as { log: { kind: string }[] };
  return log.filter(({ kind }) => kind === 'shot').length;
}

for (const { cavities, grams } of [
  { cavities: [1], grams: 227 },
  { cavities: [3], grams: 14 },
  { cavities: [6], grams: 10 },
  { cavities: [9], grams: 3.5 },
  { cavities: [3, 3], grams: 14 },
  { cavities: [6, 5], grams: 14 },
]) {
  test(`at the pot nothing that decides is hidden: ${cavities.join(' and ')} cavities of ${grams} g`, async ({
    page,
    empty,
  }) => {
    test.setTimeout(180_000);
    const pour = await aPourOn(empty.url, cavities, grams);
    await page.clock.install();
    await page.goto(`${empty.url}/pour/${pour.id}`);
    await page.getByRole('button', { name: 'Pot is on' }).click();
    await page.clock.fastForward('50:00');
    const keys = page.getByRole('group', { name: 'What happened' }).getByRole('button');
    const always = {
      number: page.locator('h1 + p span').first(),
      sentence: page.getByRole('heading', { level: 1 }),
      keys,
      'mold’s heat': page.getByText('Mold', { exact: true }),
      'metal’s heat': page.getByText('Metal', { exact: true }),
    };
    // What to do next is read from where one stands.
    expect(
      await always.sentence.evaluate((element) => Number.parseFloat(getComputedStyle(element).fontSize)),
    ).toBeGreaterThanOrEqual(40);
    for (const size of SIZES) {
      await page.setViewportSize(size);
      await softly.poll(() => allSeen(page, always), `warming, ${size.width}`).toEqual([]);
    }
    // A round of shots with hooks: one of each mold, and the first cavity of it short.
    for (const nth of cavities.keys()) {
      await page.keyboard.press('g');
      await expect.poll(() => shotsOf(page, empty.url, pour.id)).toBe(nth + 1);
      await page.clock.fastForward('02:00');
    }
    const cavity = page.getByRole('button', { name: /^Cavity \d/ });
    await expect(cavity.first()).toBeVisible();
    await page.keyboard.press('1');
    const said = page.getByRole('group', { name: /^Why it is bad|^Where, and what became/ }).getByRole('button');
    await expect(said.first()).toBeVisible();
    for (const size of SIZES) {
      await page.setViewportSize(size);
      await softly.poll(() => allSeen(page, { ...always, cavity, said }), `a reject, ${size.width}`).toEqual([]);
    }
  });
}

test('what is said at a bench for a moment stands over none of its keys, nor over its number', async ({
  page,
  empty,
}) => {
  const pour = await aPourOn(empty.url, [3, 3], 14);
  // A browser that keeps nothing says so as soon as the bench stands.
  await page.addInitScript(() => Object.defineProperty(window, 'indexedDB', { value: undefined }));
  await page.goto(`${empty.url}/pour/${pour.id}`);
  await page.getByRole('button', { name: 'Pot is on' }).click();
  const keys = page.getByRole('group', { name: 'What happened' }).getByRole('button');
  await expect(keys.first()).toBeVisible();
  for (const size of SIZES) {
    await page.setViewportSize(size);
    await page.reload();
    await expect(page.getByText('This browser does not keep taps on its disk')).toBeVisible();
    const what = {
      number: page.locator('h1 + p span').first(),
      sentence: page.getByRole('heading', { level: 1 }),
      keys,
    };
    await expect(keys.first()).toBeVisible();
    await expect.poll(() => allSeen(page, what), `${size.width}`).toEqual([]);
  }
});

test('that a tap did not count covers no key, number or place, at three sizes', async ({ page, empty }) => {
  const pour = await aPourOn(empty.url, [3, 3], 14);
  await page.goto(`${empty.url}/pour/${pour.id}`);
  await page.route('**/entries', (route) =>
    route.fulfill({ status: 422, json: { type: 'about:blank', title: 'No', status: 422, detail: 'Not this one.' } }),
  );
  await page.getByRole('button', { name: 'Pot is on' }).click();
  const badge = page.getByRole('button', { name: '1 tap did not count' });
  await expect(badge).toBeVisible();
  for (const size of [...SIZES, { width: 390, height: 844 }]) {
    await page.setViewportSize(size);
    const box = (await badge.boundingBox())!;
    // Whatever can be tapped or read stands clear of it.
    const under = await page.evaluate(({ x, y, width, height }) => {
      const own = [...document.querySelectorAll('button, a, h1, h2, [role=img], input')].filter(
        (element) => !/did not count/.test(element.textContent ?? ''),
      );
      return own
        .filter((element) => {
          const { left, right, top, bottom } = element.getBoundingClientRect();
          return right > left && left < x + width && right > x && top < y + height && bottom > y;
        })
        .map((element) => element.textContent || element.getAttribute('aria-label'));
    }, box);
    expect([size.width, under]).toEqual([size.width, []]);
    await badge.click({ trial: true });
  }
});

test('at every bench of the line what is next and all its keys are on the screen', async ({ page, demo }) => {
  for (const station of ['trim', 'paint', 'bake', 'finish']) {
    await page.goto(`${demo.url}/${station}`);
    await page.locator(`a[href*="/${station}/"]`).last().click();
    await page.getByRole('group', { name: 'What happened' }).waitFor();
    for (const size of SIZES) {
      await page.setViewportSize(size);
      const hidden = () =>
        allSeen(page, {
          number: page.locator('h1 + p span').first(),
          sentence: page.getByRole('heading', { level: 1 }),
          keys: page.getByRole('group', { name: 'What happened' }).getByRole('button'),
          // What is looked at before a head counts as good, where there is anything.
          ...(['bake', 'finish'].includes(station)
            ? {}
            : { checks: page.getByRole('region', { name: 'What to do' }).getByRole('listitem') }),
        });
      await softly.poll(hidden, `${station}, ${size.width}`).toEqual([]);
    }
  }
});
