import type { Material } from '@schmelz/contract';
import { finishSchool, FINISH_TASKS, ROUTE_TEMPLATES, type RouteStep } from '@schmelz/core';
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { ids, materials } from '../../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../../test/render.tsx';
import { useCatalogue } from '../../shell/catalogue.ts';
import { PartsEditor, type PartLine } from './PartsEditor.tsx';
import { RouteEditor } from './RouteEditor.tsx';

// The way of a head and what goes into it, as a form writes them: what is kept is looked at after each touch.
beforeEach(prepareBrowser);
afterEach(cleanup);

const ring = { ...materials[1]!, id: 'ring', kind: 'ring', name: 'Split ring', hook: null } as unknown as Material;
const glue = { ...materials[1]!, id: 'glue', kind: 'glue', name: 'Quick epoxy', hook: null } as unknown as Material;
const START: RouteStep[] = [
  { key: 'trim', station: 'trim', does: 'Trim' },
  { key: 'paint', station: 'paint', does: 'Paint' },
  { key: 'finish', station: 'finish', does: 'Count and bag' },
];
let route: readonly RouteStep[] = [];
let parts: readonly PartLine[] = [];

function Form({ first = START, lines = [] }: { first?: RouteStep[]; lines?: PartLine[] }) {
  const catalogue = useCatalogue();
  const [steps, setSteps] = useState<readonly RouteStep[]>(first);
  const [all, setAll] = useState<readonly PartLine[]>(lines);
  [route, parts] = [steps, all];
  return (
    catalogue && (
      <>
        <RouteEditor route={steps} catalogue={catalogue} onChange={setSteps} />
        <PartsEditor parts={all} route={steps} catalogue={catalogue} onChange={setAll} />
      </>
    )
  );
}
async function open(form = <Form />) {
  fakeApi({ 'GET /materials': [...materials, ring, glue] });
  renderAt(form);
  await screen.findByText('Its way');
}
const step = (nth: number) =>
  within(within(screen.getByRole('list', { name: 'Steps' })).getAllByRole('listitem')[nth - 1]!);

describe('the way of a head', () => {
  test('is taken whole from one that others follow', async () => {
    await open();
    const template = ROUTE_TEMPLATES[1]!;
    await userEvent.selectOptions(screen.getByLabelText('Start from'), template.id);
    expect(route.map(({ does }) => does)).toEqual(template.steps.map(({ does }) => does));
    // It is the maker's own from then on: the template stays as it is.
    await userEvent.clear(step(1).getByLabelText('Step 1'));
    await userEvent.type(step(1).getByLabelText('Step 1'), 'Snip');
    expect(route[0]!.does).toBe('Snip');
    expect(template.steps[0]!.does).not.toBe('Snip');
  });

  test('has steps earlier, out and one more; no two share a key, and the last one stays', async () => {
    await open();
    await userEvent.click(step(2).getByRole('button', { name: 'Step 2 earlier' }));
    expect(route.map(({ key }) => key)).toEqual(['paint', 'trim', 'finish']);
    expect(step(1).getByRole('button', { name: 'Step 1 earlier' })).toHaveProperty('disabled', true);
    await userEvent.click(screen.getByRole('button', { name: 'Another step' }));
    await userEvent.click(screen.getByRole('button', { name: 'Another step' }));
    expect(route.map(({ key }) => key)).toEqual(['paint', 'trim', 'finish', 'finish-2', 'finish-3']);
    await userEvent.click(step(4).getByRole('button', { name: 'Leave out step 4' }));
    await userEvent.click(screen.getByRole('button', { name: 'Another step' }));
    expect(new Set(route.map(({ key }) => key)).size).toBe(route.length);
    for (let left = route.length; left > 1; left--) {
      await userEvent.click(step(1).getByRole('button', { name: 'Leave out step 1' }));
    }
    expect(step(1).getByRole('button', { name: 'Leave out step 1' })).toHaveProperty('disabled', true);
  });

  test('at another station a step has another key, and leaves the paint of the old one', async () => {
    await open(<Form first={START.map((each) => (each.key === 'paint' ? { ...each, recipeId: ids.recipe } : each))} />);
    expect((step(2).getByLabelText('Recipe of this step') as HTMLSelectElement).value).toBe(ids.recipe);
    await userEvent.selectOptions(step(2).getByLabelText('At'), 'finish');
    expect(route[1]).toMatchObject({ key: 'finish-2', station: 'finish', recipeId: null });
    expect(step(2).queryByLabelText('Recipe of this step')).toBeNull();
  });

  test('what is done at the finish brings its words and its wait, as its school has them', async () => {
    await open();
    const [task] = FINISH_TASKS;
    await userEvent.selectOptions(step(3).getByLabelText('Done there'), task!.id);
    const usual = finishSchool(task!.id, null);
    expect(route[2]).toMatchObject({ task: task!.id, school: usual.id, wait: usual.wait ?? null });
    await userEvent.selectOptions(step(3).getByLabelText('Done there'), '');
    expect(route[2]).toMatchObject({ task: null, school: null });
  });

  test.each([
    ['1.5', 90],
    ['0.5', 30],
    ['0,25', 15],
    ['90', 5400],
  ])('a wait of %s min is %d s, as it is typed', async (typed, seconds) => {
    await open();
    const field = step(2).getByLabelText(/^Wait after it/) as HTMLInputElement;
    await userEvent.type(field, typed);
    expect(field.value).toBe(typed);
    expect(route[1]!.wait).toEqual({ name: 'paint dries', seconds });
    await userEvent.clear(field);
    expect(route[1]!.wait).toBeNull();
  });
});

describe('what else goes into a head', () => {
  test('is added at the last step, of what is on the shelf and is no hook, metal or powder', async () => {
    await open();
    await userEvent.click(screen.getByRole('button', { name: 'Another part' }));
    expect(parts).toEqual([{ partId: 'ring', quantity: '1', waste: '0', step: 'finish' }]);
    const options = within(screen.getByLabelText('Part')).getAllByRole('option');
    expect(options.map(({ textContent }) => textContent)).toEqual(['Split ring', 'Quick epoxy']);
    await userEvent.selectOptions(screen.getByLabelText('Part'), 'Quick epoxy');
    await userEvent.clear(screen.getByLabelText(/^A head/));
    await userEvent.type(screen.getByLabelText(/^A head/), '0.2');
    await userEvent.type(screen.getByLabelText(/^Wasted/), '5');
    await userEvent.selectOptions(screen.getByLabelText('At the step'), 'cast in');
    expect(parts).toEqual([{ partId: 'glue', quantity: '0.2', waste: '05', step: 'pour' }]);
  });
  test('one is left out, and the others stay as they were', async () => {
    const lines = ['1', '2', '3'].map((quantity) => ({ partId: 'ring', quantity, waste: '0', step: 'finish' }));
    await open(<Form lines={lines} />);
    await userEvent.click(screen.getAllByRole('button', { name: 'Leave it out' })[1]!);
    expect(parts.map(({ quantity }) => quantity)).toEqual(['1', '3']);
  });
});
