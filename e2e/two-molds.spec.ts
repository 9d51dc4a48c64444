import type { Page } from '@playwright/test';
import { expect, test } from './workshop.ts';
import { twoMolds } from './things.ts';

/** Ordered of each; a fourth is cast, because a later step may spoil one. */
const HEADS = 3;

/** The mold that the bench says is next. */
const nextMold = async (page: Page) =>
  ((await page.getByRole('heading', { level: 2 }).first().textContent()) ?? '').split('is next')[0]!.trim();

/** Whatever was poured last has set: the clock is moved on, not waited for. */
const set = (page: Page) => page.clock.fastForward('01:00');

const counts = async (page: Page, url: string) => {
  const [pour] = await (await page.request.get(`${url}/api/pours`)).json();
  const { log } = await (await page.request.get(`${url}/api/pours/${pour.id}`)).json();
  const of = (kind: string) => log.filter((entry: { kind: string }) => entry.kind === kind);
  return { pour, of };
};

for (const by of ['keyboard', 'touch'] as const) {
  test(`a whole session with two molds in turn, by ${by} only`, async ({ page, empty }) => {
    test.setTimeout(180_000);
    await twoMolds(empty.url, HEADS);
    await page.clock.install();
    await page.goto(`${empty.url}/pour`);
    /** A bench action by its key, or by the button that says it. */
    const act = async (key: string, name: RegExp) => {
      if (by === 'keyboard') await page.keyboard.press(key);
      else await page.getByRole('button', { name }).first().click();
    };
    /** A button that has no key of its own is reached with Tab and pressed with Enter. */
    const press = async (name: RegExp) => {
      const button = page.getByRole('button', { name });
      if (by === 'touch') return button.click();
      await expect(button).toBeEnabled();
      await button.focus();
      await page.keyboard.press('Enter');
    };
    await press(/^To the pot: 8 heads, 2 molds/);

    // Before: two molds with what goes into them, pins first, hooks to count out.
    await expect(page.getByText('shots, two molds in turn')).toBeVisible();
    await expect(
      page.getByText(/Pins first in 1, 2, at blank shots too: a filled cavity without its pin leaks/),
    ).toBeVisible();
    await expect(page.getByText('Hook 4/0, count out')).toBeVisible();
    await press(/^Pot is on/);
    await page.clock.fastForward('45:00');
    // Warm-up: each mold has its blank shots, in turn.
    const blanks = page.getByRole('heading', { name: /^Blank shots, Twin/ });
    await expect(blanks).toBeVisible();
    const begins = await blanks.textContent();
    await act(' ', /Blank poured/);
    // The next mold is read once the bench has heard of the blank shot.
    await expect(blanks).not.toHaveText(begins!);
    const first = await nextMold(page);
    await set(page);
    await act(' ', /Blank poured/);
    await expect.poll(() => nextMold(page)).not.toBe(first);
    for (let more = 0; more < 2; more++) {
      await set(page);
      await act('g', /Go on with hooks/);
    }
    await expect(page.getByText('Shot 2 of')).toBeVisible();
    await set(page);

    // The first mold is open again: a head is short at the barb and kept; the next is re-dipped.
    await act('1', /^Cavity 1: 1 good/);
    // One key upon the other, as a hand that knows them: each is said of what the one before it made.
    await act('s', /^S short/);
    if (by === 'touch') await press(/^barb/);
    await act('d', /second grade/);
    await expect(page.getByRole('button', { name: /^Cavity 1: 0 good. Last one is bad, short/ })).toBeVisible();
    await act('2', /^Cavity 2: 1 good/);
    await act('q', /wrong hook/);
    await act('r', /re-dipped/);
    await expect(page.getByText(/Pin out first/)).toBeVisible();

    // The other one first, once; a mold goes away and comes back; no hook left, and fetched again.
    const planned = await nextMold(page);
    await act('t', /Other mold first/);
    await expect.poll(() => nextMold(page)).not.toBe(planned);
    await expect(page.getByText('because you said so')).toBeVisible();
    if (by === 'touch') await press(/^\+ More/);
    await act('c', /^C Change the mold/);
    await page
      .getByRole('dialog')
      .getByRole('button', { name: 'Off the pot' })
      .first()
      [by === 'touch' ? 'click' : 'focus']();
    if (by === 'keyboard') await page.keyboard.press('Enter');
    await expect(page.getByText('the only one that still wants heads')).toBeVisible();
    await act('z', /^Z Undo/);
    await expect(page.getByText('the only one that still wants heads')).toHaveCount(0);

    // Until every ticket has its heads.
    const enough = page.getByRole('heading', { name: 'All heads are there' });
    for (let shots = 0; shots < 12 && !(await enough.isVisible()); shots++) {
      await set(page);
      const goOn = page.getByRole('button', { name: /Go on with hooks/ });
      const poured = page.getByRole('button', { name: /^Space Poured/ });
      await expect(goOn.or(poured).or(enough).first()).toBeVisible();
      if (await enough.isVisible()) break;
      const before = (await counts(page, empty.url)).of('shot').length;
      if (await goOn.isVisible()) await act('g', /Go on with hooks/);
      else await act(' ', /^Space Poured/);
      await expect.poll(async () => (await counts(page, empty.url)).of('shot').length).toBe(before + 1);
    }
    await expect(enough).toBeVisible();
    // The last shot of the other mold is looked at too, and a digit means the heads that are shown.
    const shown = page.getByRole('heading', { level: 2 }).first();
    const before = (await shown.textContent())!;
    await act('.', /Its last shot/);
    await expect(shown).not.toHaveText(before);
    await expect(shown).toContainText('its last shot');
    const firstCavity = page.getByRole('button', { name: /^Cavity 1: .* Last one/ });
    const wasGood = /Last one was good/.test((await firstCavity.getAttribute('aria-label'))!);
    await act('1', /^Cavity 1: /);
    await expect(
      page.getByRole('button', { name: wasGood ? /^Cavity 1: .*is bad/ : /^Cavity 1: .*was good/ }),
    ).toBeVisible();
    await act('z', /^Z Undo/);
    await expect(enough).toBeVisible();
    await act(' ', /The pot is off/);
    await expect(page.getByRole('button', { name: /Weigh back and close/ })).toBeVisible();
    await act(' ', /Weigh back and close/);
    await page
      .getByRole('dialog')
      .getByRole('button', { name: 'Close the pour' })
      [by === 'touch' ? 'click' : 'focus']();
    if (by === 'keyboard') await page.keyboard.press('Enter');

    // After: both molds with what they gave, time by stretch, heads sorted into their tickets.
    await expect(page.getByRole('heading', { name: 'Where the time went' })).toBeVisible();
    await expect(page.getByRole('list', { name: 'What Twin ball gave' })).toBeVisible();
    await expect(page.getByRole('list', { name: 'What Twin rocker gave' })).toBeVisible();
    await expect(page.getByRole('list', { name: 'Sort them into their tickets' }).getByRole('listitem')).toHaveCount(2);
    await expect(page.getByText('1 second grade').first()).toBeVisible();
    await expect(page.getByRole('status')).toHaveCount(0);
    const { pour, of } = await counts(page, empty.url);
    expect(pour.closed).toBe(true);
    expect(new Set(of('shot').map((shot: { moldId: string }) => shot.moldId)).size).toBe(2);
    expect(of('reject').some((reject: { goes?: string }) => reject.goes === 'second grade')).toBe(true);
    expect(of('reject').some((reject: { goes?: string }) => reject.goes === 'parts back')).toBe(true);
  });
}

test('the number that matters is read at two metres: 160 px high at 1280x800, 7:1, in both themes', async ({
  page,
  empty,
}) => {
  await twoMolds(empty.url, HEADS);
  await page.setViewportSize({ width: 1280, height: 800 });
  for (const theme of ['dark', 'light']) {
    await page.addInitScript((name) => localStorage.setItem('schmelz-theme', name), theme);
    await page.goto(`${empty.url}/pour`);
    await page
      .getByRole('button', { name: /^To the pot|^Back to pour/ })
      .or(page.getByRole('link', { name: /^Back to pour/ }))
      .first()
      .click();
    const cold = page.getByRole('button', { name: 'Pot is on' });
    await cold
      .or(page.getByRole('heading', { name: 'Melt ready in' }))
      .first()
      .waitFor();
    if (await cold.isVisible()) await cold.click();
    const number = page.locator('h1 + p span').first();
    await expect(number).toHaveText(/^\d+:\d\d$/);
    const { high, contrast, fits } = await number.evaluate((element) => {
      const style = getComputedStyle(element);
      const pen = document.createElement('canvas').getContext('2d')!;
      pen.font = `${style.fontWeight} ${style.fontSize} ${style.fontFamily}`;
      const { actualBoundingBoxAscent } = pen.measureText('0123456789');
      // Any colour notation, as the screen mixes it.
      const rgb = (colour: string) => {
        pen.fillStyle = colour;
        pen.fillRect(0, 0, 1, 1);
        return [...pen.getImageData(0, 0, 1, 1).data].slice(0, 3);
      };
      const light = (colour: string) => {
        const [r, g, b] = rgb(colour).map((part) =>
          part / 255 <= 0.04045 ? part / 255 / 12.92 : ((part / 255 + 0.055) / 1.055) ** 2.4,
        );
        return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
      };
      const [ink, ground] = [light(style.color), light(getComputedStyle(document.body).backgroundColor)];
      const box = element.parentElement!;
      return {
        high: actualBoundingBoxAscent,
        contrast: (Math.max(ink, ground) + 0.05) / (Math.min(ink, ground) + 0.05),
        fits: element.getBoundingClientRect().right <= box.getBoundingClientRect().right + 1,
      };
    });
    expect(high).toBeGreaterThanOrEqual(160);
    expect(contrast).toBeGreaterThanOrEqual(7); // WCAG 2.2, 1.4.6 contrast (enhanced)
    expect(fits).toBe(true);
  }
});
