import { writeFileSync } from 'node:fs';
import { expect, test } from './workshop.ts';
import { aTicketToBake, aTicketToPaint } from './things.ts';

test.describe('paint and bake', () => {
  test('a ticket in three colours at the bench: painted with rejects, baked on its clock, looked at', async ({
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
    const row = (minute: number, fahrenheit: number | string) =>
      `2026-05-31 18:${String(minute).padStart(2, '0')}:00,${fahrenheit}`;
    const minutes = Array.from({ length: 41 }, (_, minute) => minute).filter((minute) => minute < 12 || minute > 20);
    writeFileSync(
      file,
      [
        'When,Oven F',
        ...minutes.map((minute) => row(minute, minute === 3 ? 'open' : minute < 6 ? 70 + 46 * minute : 350)),
      ].join('\n'),
    );
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
    await expect(page.getByRole('heading', { name: /^set to 1[6789]\d °C, the oven cures all of it/ })).toBeVisible();
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
    const said = page.getByRole('status');
    await expect(said).toContainText(`goes to number 1 of ${before.length}`);
    for (let down = 1; down < before.length; down++) {
      const where = await said.textContent();
      await page.keyboard.press('ArrowDown');
      await expect(said).not.toHaveText(where!);
      await expect(said).toContainText(`goes to number ${down + 1} of`);
    }
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

test.describe('ways, jars and the oven', () => {
  test('a house way is chosen, shows at the bench, and a product keeps its own', async ({ page, demo }) => {
    await page.goto(`${demo.url}/trim/ways`);
    const seconds = page.getByRole('button', { name: /^Seconds a head: \d+\. Why/ });
    await expect(seconds).toHaveAttribute('aria-label', /: 12\./);
    await page.getByRole('radio', { name: 'Ground on a disc' }).click();
    await expect(seconds).not.toHaveAttribute('aria-label', /: 12\./);
    await expect(page.getByText(/A disc throws lead dust/)).toBeVisible();
    await page.goto(`${demo.url}/trim`);
    await expect(page.getByText(/side cutters, disc, eye cover, dust mask/)).toBeVisible();
    await page.getByRole('link', { name: /^Begin with/ }).click();
    await expect(page.getByText(/A disc throws lead dust/)).toBeVisible();
    await page.goto(`${demo.url}/trim/ways`);
    await page.getByRole('radio', { name: 'Filed' }).click();
    await expect(seconds).toHaveAttribute('aria-label', /: 12\./);
    // Footballs keep their pin in through the paint, whatever the house does.
    await page.goto(`${demo.url}/paint/ways`);
    await expect(page.getByRole('radio', { name: 'No hole' })).toHaveAttribute('aria-checked', 'true');
    await page.getByLabel('The ways of').selectOption({ label: 'Rocker 21 g, mussel with frost' });
    await expect(page.getByRole('radio', { name: /pulled hot, head by head/ })).toHaveAttribute('aria-checked', 'true');
    await expect(page.getByText('its own way')).toBeVisible();
  });

  test('the demo’s jars tell what stays on, the scale is read, and the oven is learned from its empty run', async ({
    page,
    demo,
  }) => {
    await page.goto(`${demo.url}/paint/jars`);
    const stays = page.getByRole('button', { name: /^Powder that stays on: \d+\. Why/ });
    const share = Number(/(\d+)\. Why/.exec((await stays.getAttribute('aria-label'))!)![1]);
    // So short a demo weighs its jars once: the usual is said until they are weighed again.
    expect(share).toBe(70);
    await page.goto(`${demo.url}/bake/oven`);
    await expect(page.getByRole('heading', { name: /the minutes that were written down/ })).toBeVisible();
    await expect(page.getByRole('button', { name: /^Offset of the oven: -[345](\.\d)? K/ })).toBeVisible();
    await page.getByRole('button', { name: 'Reckon with this oven' }).click();
    await expect(page.getByRole('heading', { name: /under its mark is what Large toaster oven holds/ })).toBeVisible();
    await page.goto(`${demo.url}/bake/program`);
    await expect(
      page.getByText(/This oven holds [345](\.\d)? K under its mark: set there, its air comes to/),
    ).toBeVisible();
    await page.goto(`${demo.url}/bake/loads`);
    await expect(page.getByRole('img', { name: /^Eight wires with \d+ heads on 8 bars/ }).first()).toBeVisible();
  });

  test('a bake that counts from warm metal: the door is opened, it comes out hot, and the shelf says when it is not', async ({
    page,
    empty,
  }) => {
    const ticket = await aTicketToBake(empty.url);
    await page.clock.install();
    await page.goto(`${empty.url}/bake`);
    await page.getByLabel('Name').fill('177 °C, 20 min');
    await page.getByRole('button', { name: 'Add the program' }).click();
    await expect(page.getByText(/20 min, oven hot first, from warm metal/)).toBeVisible();
    const api = async (path: string) => (await page.request.get(`${empty.url}/api${path}`)).json();
    const [product] = await api('/products');
    const program = (await api('/bake-programs')).find((each: { from: string }) => each.from === 'metal');
    await page.request.put(`${empty.url}/api/products/${product.id}`, {
      data: { ...product, id: undefined, bakeProgramId: program.id },
    });
    // The ticket was released before: it takes the program over when that is said.
    await page.goto(`${empty.url}/tickets/${ticket}`);
    await page.getByRole('button', { name: 'Make these heads so too' }).click();
    await expect(page.getByText('Its product is another now')).toHaveCount(0);
    await page.goto(`${empty.url}/bake/${ticket}`);
    await expect(page.getByText(/177 °C for 20 min, oven hot first, counted from warm metal/)).toBeVisible();
    await page.keyboard.press('Space');
    await expect(page.getByRole('heading', { name: 'Warming; take out in about' })).toBeVisible();
    await page.clock.fastForward('12:00');
    // The metal is warm by the model: from now on twenty minutes are counted.
    await expect(page.getByRole('heading', { name: 'Take out in', exact: true })).toBeVisible();
    await page.keyboard.press('d');
    await expect(page.getByRole('heading', { name: 'The door is open' })).toBeVisible();
    await page.clock.fastForward('01:00');
    await page.keyboard.press('d');
    await expect(page.getByRole('heading', { name: 'Take out in', exact: true })).toBeVisible();
    await page.clock.fastForward('25:00');
    await expect(page.getByRole('heading', { name: /Take them out/ })).toBeVisible();
    await expect(page.getByText(/It is full/)).toBeVisible();
    await page.keyboard.press('Space');
    await expect(page.getByText(/^Hot\. Fit to handle in/)).toBeVisible();
    await expect(page.getByRole('link', { name: /^Hot, load \d+/ })).toBeVisible();
    await page.clock.fastForward('20:00');
    await expect(page.getByText(/^Hot\. Fit to handle in/)).toHaveCount(0);
    await expect(page.getByRole('status')).toHaveCount(0);
  });

  test('a liquid recipe is made, a product takes it, and its coats dry on the shelf', async ({ page, empty }) => {
    const ticket = await aTicketToPaint(empty.url);
    await page.clock.install();
    // The paint: liquid, with its wait instead of a label.
    await page.goto(`${empty.url}/stock`);
    await page.getByRole('button', { name: 'New material' }).click();
    const material = page.getByRole('dialog');
    await material.getByLabel('Kind').selectOption('powder');
    await material.getByLabel('Name').fill('Vinyl yellow');
    await material.getByLabel('It is').selectOption('liquid');
    await material.getByLabel('Wait before the next coat').fill('6');
    await material.getByRole('button', { name: 'Add it' }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('button', { name: /Vinyl yellow$/ })).toBeVisible();
    // The recipe: two coats of it, drawn as it will look.
    await page.goto(`${empty.url}/paint/recipes`);
    await page.getByRole('button', { name: 'New recipe' }).click();
    const recipe = page.getByRole('dialog');
    await recipe.getByLabel('Name').fill('Yellow, dipped');
    await recipe.getByLabel('First').selectOption({ label: 'Vinyl yellow' });
    await recipe.getByLabel('Coats').selectOption('2');
    await recipe.getByRole('button', { name: 'Add the recipe' }).click();
    await page.keyboard.press('Escape');
    await expect(page.getByRole('button', { name: /^Yellow, dipped/ })).toBeVisible();
    // The product on the line takes it, and no bake.
    await page.goto(`${empty.url}/products`);
    await page
      .getByRole('button', { name: /^Change it/ })
      .first()
      .click();
    const product = page.getByRole('dialog');
    await product.getByLabel('Paint').selectOption({ label: 'Yellow, dipped' });
    await product.getByLabel('Bake').selectOption({ label: 'no bake' });
    await product.getByRole('button', { name: 'Keep the product' }).click();
    await expect(page.getByText(/is changed/)).toBeVisible();
    // What is on the line stays as it was released, until its ticket says otherwise.
    await page.goto(`${empty.url}/tickets/${ticket}`);
    await page.getByRole('button', { name: 'Make these heads so too' }).click();
    await expect(page.getByText('Its product is another now')).toHaveCount(0);
    await page.goto(`${empty.url}/paint/${ticket}`);
    await expect(page.getByRole('heading', { name: 'Heads for coat 1' })).toBeVisible();
    await expect(page.getByText(/Paint and thinner burn/)).toBeVisible();
    await page.keyboard.press('Space');
    await expect(page.getByRole('heading', { name: 'Coat 1 dries' })).toBeVisible();
    await expect(page.getByRole('link', { name: /^Coat 1 dries, ticket \d+/ })).toBeVisible();
    await page.clock.fastForward('06:10:00');
    await expect(page.getByRole('heading', { name: 'Heads for coat 2' })).toBeVisible();
    await page.keyboard.press('Space');
    // The last coat is on: from now on they are looked at one by one.
    await expect(page.getByRole('heading', { name: 'Left to paint' })).toBeVisible();
    await expect(page.getByText('The leader hole is clear')).toBeVisible();
    await expect(page.getByRole('status')).toHaveCount(0);
  });

  test('sprues are weighed back and a jar is weighed: the lead and the jar say so', async ({ page, empty }) => {
    const ticket = await aTicketToPaint(empty.url);
    const quantity = async (kind: string) => {
      const all = await (await page.request.get(`${empty.url}/api/materials`)).json();
      return all.find((each: { kind: string }) => each.kind === kind).quantity as number;
    };
    const before = await quantity('lead');
    await page.goto(`${empty.url}/trim/${ticket}`);
    await expect(page.getByRole('heading', { name: 'All seen here' })).toBeVisible();
    await page.keyboard.press('w');
    await page.getByLabel('They weigh').fill('a handful');
    await page.getByRole('button', { name: 'Keep this weight' }).click();
    await expect(page.getByRole('alert')).toContainText('a handful');
    await page.getByLabel('They weigh').fill('24 g');
    await page.getByRole('button', { name: 'Keep this weight' }).click();
    await expect.poll(() => quantity('lead')).toBeCloseTo(before + 0.024, 6);
    await page.goto(`${empty.url}/paint/jars`);
    await page.getByLabel('It weighs').fill('210 g');
    await page.getByLabel('Of that, the empty jar').fill('40 g');
    await page.getByRole('button', { name: 'Keep this weight' }).click();
    await expect(page.getByRole('button', { name: /^Left of White: 170 g/ })).toBeVisible();
  });
});
