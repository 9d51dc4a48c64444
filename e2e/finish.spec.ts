import { writeFileSync } from 'node:fs';
import { expect, test } from './workshop.ts';
import { aTicketToPaint } from './things.ts';

test.describe('paint and bake', () => {
  test('a three-colour batch at the bench: painted with rejects, baked on its clock, looked at', async ({
    page,
    empty,
  }) => {
    const ticket = await aTicketToPaint(empty.url);
    await page.clock.install();
    await page.goto(`${empty.url}/paint/heat`);
    // What the bench needs to know first: how long under the gun.
    await expect(page.getByRole('heading', { name: /under the heat gun to 170 °C/ })).toBeVisible();
    await page.goto(`${empty.url}/paint/${ticket}`);
    await expect(page.getByRole('heading', { name: 'Left to paint' })).toBeVisible();
    await page.keyboard.press('1');
    await expect(page.getByText('1 runs')).toBeVisible();
    for (let head = 0; head < 5; head++) await page.keyboard.press('Space');
    await expect(page.getByRole('status')).toHaveCount(0);
    await page.getByRole('link', { name: 'On to bake' }).click();
    await expect(page.getByRole('heading', { name: 'Hang up and load' })).toBeVisible();
    await page.getByRole('button', { name: /Door is shut/ }).click();
    await expect(page.getByRole('heading', { name: 'Take out in' })).toBeVisible();
    await page.clock.fastForward('40:00');
    await expect(page.getByRole('heading', { name: /Take them out/ })).toBeVisible();
    await page.getByRole('button', { name: /Taken out/ }).click();
    await expect(page.getByRole('heading', { name: 'Out, to look at' })).toBeVisible();
    await expect(page.getByRole('status')).toHaveCount(0);
    await page.goto(`${empty.url}/bake/past`);
    await expect(page.getByRole('heading', { name: 'heads went out under-cured, of 5 baked' })).toBeVisible();
  });

  test('an oven log with gaps and Fahrenheit says how far a bake went', async ({ page, empty }, info) => {
    await aTicketToPaint(empty.url);
    const file = info.outputPath('evening.csv');
    const row = (minute: number, fahrenheit: number | string) => `2026-05-31 18:${String(minute).padStart(2, '0')}:00,${fahrenheit}`; // prettier-ignore
    const minutes = Array.from({ length: 41 }, (_, minute) => minute).filter((minute) => minute < 12 || minute > 20);
    writeFileSync(file, ['When,Oven F', ...minutes.map((minute) => row(minute, minute === 3 ? 'open' : minute < 6 ? 70 + 46 * minute : 350))].join('\n')); // prettier-ignore
    await page.goto(`${empty.url}/bake/log`);
    await expect(page.getByRole('heading', { name: 'no oven log yet' })).toBeVisible();
    await page.getByRole('button', { name: 'Import a log' }).click();
    const sheet = page.getByRole('dialog');
    await sheet.getByLabel('File').setInputFiles(file);
    await sheet.getByLabel('Time is in').selectOption('When');
    await sheet.getByLabel('and is').selectOption('date and time');
    await sheet.getByRole('button', { name: 'Take it in' }).click();
    // 34 minutes at 350 F after a ramp, for a powder that wants 20 at 177 C: over a full cure.
    await expect(page.getByRole('heading', { name: 'of a full cure: full' })).toBeVisible();
    const cure = page.getByRole('button', { name: /^Cure by the log: \d+\. Why/ });
    const share = Number(/(\d+)\. Why/.exec((await cure.getAttribute('aria-label'))!)![1]);
    expect(share).toBeGreaterThan(125);
    expect(share).toBeLessThan(165);
    await expect(page.getByText(/10 min of it are gaps, bridged in a straight line/)).toBeVisible();
    // In a head there is no lag: the same log has gone farther.
    await page.getByText('In a head', { exact: true }).click();
    await expect(cure).not.toHaveAttribute('aria-label', new RegExp(`: ${share}\\.`));
  });

  test("the demo's under-baked month is found, and what gives way is said", async ({ page, demo }) => {
    await page.goto(`${demo.url}/bake/past`);
    await expect(page.getByText(/^Worst in .*: \d+ of \d+ heads/)).toBeVisible();
    await expect(page.getByRole('cell', { name: /150 °C/ }).first()).toBeVisible();
    await expect(page.getByText('hardly begun: dry to the touch, not cured').first()).toBeVisible();
    await page.getByRole('link', { name: 'Which program' }).click();
    await expect(page.getByRole('heading', { name: /^at 1[67]\d °C cure all of it/ })).toBeVisible();
    await expect(page.getByRole('row', { name: /121 °C, 20 min/ })).toContainText('hardly begun');
  });

  test('the order of colours: moved by keyboard it says what that costs, and goes back', async ({ page, demo }) => {
    await page.goto(`${demo.url}/paint/order`);
    const list = page.getByRole('list', { name: 'Order of colours' });
    await expect(page.getByText(/The best order there is/)).toBeVisible();
    const names = () =>
      list.getByRole('button').evaluateAll((all) => all.map((each) => each.getAttribute('aria-label')));
    const before = await names();
    await list.getByRole('button').first().focus();
    await page.keyboard.press('Space');
    for (let down = 1; down < before.length; down++) {
      await page.waitForTimeout(250);
      await page.keyboard.press('ArrowDown');
    }
    await page.waitForTimeout(250);
    await page.keyboard.press('Space');
    await expect(page.getByText(/more than the best order/)).toBeVisible();
    expect(await names()).not.toEqual(before);
    await page.getByRole('button', { name: 'Back to the best order' }).click();
    await expect.poll(names).toEqual(before);
  });

  test('own seconds make the gun known', async ({ page, demo }) => {
    await page.goto(`${demo.url}/paint/heat`);
    const seconds = page.getByRole('button', { name: /^Seconds of heat: \d+\. Why/ });
    const read = async () => Number(/: (\d+)\./.exec((await seconds.getAttribute('aria-label'))!)![1]);
    const usual = await read();
    for (let count = 0; count < 3; count++) {
      await page.getByLabel(/^Seconds for/).fill(String(usual + 8));
      await page.getByRole('button', { name: 'Keep this count' }).click();
      await expect(page.getByText(`Your gun, from ${count + 1}`)).toBeVisible();
    }
    await expect.poll(read).toBeGreaterThan(usual + 3);
    await page.getByRole('button', { name: /Begin/ }).click();
    await expect(page.getByText('head 1', { exact: true })).toBeVisible();
  });
});
