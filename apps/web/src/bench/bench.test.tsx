import type { Entry } from '@schmelz/core';
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { sound, SOUNDS } from '../shell/clock.ts';
import { sayToLog } from '../api/outbox.ts';
import { settings } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, renderAt } from '../test/render.tsx';
import { AtBench } from './AtBench.tsx';
import { BenchFrame, Unsaved, useBenchKeys, type BenchAction } from './BenchFrame.tsx';
import { entryInWords } from './entry-words.ts';
import { undoActions } from './undo.ts';

jest.mock('../shell/clock.ts', () => ({
  ...jest.requireActual<object>('../shell/clock.ts'),
  sound: jest.fn(),
}));
beforeEach(() => {
  prepareBrowser();
  fakeApi();
});
/** What a bench stands in. */
const Around = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={new QueryClient()}>
    <MemoryRouter>{children}</MemoryRouter>
  </QueryClientProvider>
);

const units = {
  temperature: (celsius: number) => `${celsius} °C`,
  bulk: (kg: number) => `${kg} kg`,
  head: (kg: number) => `${1000 * kg} g`,
};
const words = (said: Record<string, unknown>) =>
  entryInWords({ id: 'a', at: 0, ...said } as unknown as Entry, units as Parameters<typeof entryInWords>[1]);

test.each([
  [{ kind: 'start' }, 'begun'],
  [{ kind: 'good', count: 4, step: 'trim' }, '4 good, at trim'],
  [{ kind: 'good' }, '0 good'],
  [{ kind: 'reject', cause: 'short', position: 3, goes: 'melt' }, '1 not good: short, cavity 3, to melt'],
  [{ kind: 'reject', count: 2 }, '2 not good: no cause'],
  [{ kind: 'load', count: 40, setC: 177 }, '40 into the oven at 177 °C'],
  [{ kind: 'load' }, 'into the oven'],
  [{ kind: 'unload', coolS: 120 }, 'out of the oven, cooling 2 min'],
  [{ kind: 'unload', coolS: 0 }, 'out of the oven'],
  [{ kind: 'door', open: true }, 'door open'],
  [{ kind: 'door', open: false }, 'door shut'],
  [{ kind: 'coat', paint: 'Primer' }, 'a coat of Primer'],
  [{ kind: 'coat' }, 'a coat'],
  [{ kind: 'sprue', massKg: 0.2 }, '0.2 kg of sprues weighed'],
  [{ kind: 'take', count: 12 }, '12 taken off the shelf'],
  [{ kind: 'charge', massKg: 2 }, '2 kg into the pot'],
  [{ kind: 'feed' }, '0 kg fed to the pot'],
  [{ kind: 'shot', positions: [1, 2] }, 'poured, 2 cavities'],
  [{ kind: 'shot' }, 'poured, 0 cavities'],
  [{ kind: 'blocked', position: 2 }, 'left out for tonight, cavity 2'],
  [{ kind: 'mold', away: true }, 'mold put away'],
  [{ kind: 'mold', away: false }, 'mold brought to the pot'],
  [{ kind: 'hooks', left: 0 }, '0 hooks left, counted'],
  [{ kind: 'hooks', left: 7 }, '7 hooks left, counted'],
  [{ kind: 'weighed', massKg: 0.01, position: 1 }, '10 g on the scale, cavity 1'],
  [{ kind: 'done', what: 'tilted' }, 'tilted'],
  [{ kind: 'done' }, 'done'],
  [{ kind: 'stirred' }, 'jar stirred'],
  [{ kind: 'something new' }, 'something new'],
] as const)('%j is said as %s', (said, as) => {
  expect(words(said)).toBe(as);
});

test('taps that are only here are counted; none are not mentioned', () => {
  const { rerender } = render(<Unsaved count={0} />);
  expect(screen.queryByRole('status')).toBeNull();
  rerender(<Unsaved count={1} />);
  expect(screen.getByRole('status').textContent).toBe(' 1 tap is kept here until the server answers.');
  rerender(<Unsaved count={3} />);
  expect(screen.getByRole('status').textContent).toContain('3 taps are');
});

const action = (more: Partial<BenchAction>): BenchAction => ({
  ...{ key: 'G', label: 'All', weight: 'quiet', run: jest.fn() },
  ...more,
});

test('a key is heard once as long as it is held, not while one types, not with Ctrl, and not where it may not be', () => {
  const main = action({ key: 'Space', code: ' ', label: 'Poured' });
  const off = action({ key: 'B', disabled: true });
  function Keys() {
    useBenchKeys([main, off]);
    return <input aria-label="typed" />;
  }
  render(<Keys />);
  fireEvent.keyDown(window, { key: ' ' });
  fireEvent.keyDown(window, { key: ' ', repeat: true });
  fireEvent.keyDown(window, { key: ' ', ctrlKey: true });
  fireEvent.keyDown(screen.getByLabelText('typed'), { key: ' ' });
  fireEvent.keyDown(window, { key: 'b' });
  expect(main.run).toHaveBeenCalledTimes(1);
  expect(off.run).not.toHaveBeenCalled();
});

test('a tap beside every button is the next thing; on a button it is that button, and no more than once', () => {
  const main = action({ key: 'Space', code: ' ', label: 'Poured', weight: 'main' });
  const other = action({ key: 'P', label: 'Pause' });
  const hidden = action({ key: 'Q', label: 'Hidden', elsewhere: true });
  const frame = (tapAnywhere: BenchAction) => (
    <Around>
      <BenchFrame actions={[main, other, hidden]} tapAnywhere={tapAnywhere} stub={<p>Left to pour</p>}>
        <p>the mold</p>
      </BenchFrame>
    </Around>
  );
  const { rerender } = render(frame(main));
  fireEvent.click(screen.getByText('the mold'));
  expect(main.run).toHaveBeenCalledTimes(1);
  fireEvent.click(screen.getByRole('button', { name: /Pause/ }));
  expect(other.run).toHaveBeenCalledTimes(1);
  expect(main.run).toHaveBeenCalledTimes(1);
  expect(screen.queryByRole('button', { name: /Hidden/ })).toBeNull();
  act(() => void fireEvent.keyDown(window, { key: 'q' }));
  expect(hidden.run).toHaveBeenCalledTimes(1);
  rerender(frame({ ...main, disabled: true }));
  fireEvent.click(screen.getByText('the mold'));
  expect(main.run).toHaveBeenCalledTimes(1);
});

test('what is pressed too early is answered by a sound and a word, and not done; the word goes by itself', () => {
  jest.useFakeTimers();
  const heard = jest.mocked(sound).mockClear();
  const early = action({ key: 'Space', code: ' ', label: 'Poured', disabled: true, notNow: 'Not yet: 4 s' });
  const off = action({ key: 'B', disabled: true });
  render(
    <Around>
      <BenchFrame actions={[early, off]} tapAnywhere={early} stub={<p>Open in</p>}>
        <p>the mold</p>
      </BenchFrame>
    </Around>,
  );
  const presses = [
    () => fireEvent.keyDown(window, { key: ' ' }),
    () => fireEvent.click(screen.getByRole('button', { name: /Poured/ })),
    () => fireEvent.click(screen.getByText('the mold')),
  ];
  for (const [before, press] of presses.entries()) {
    expect(screen.queryByText('Not yet: 4 s')).toBeNull();
    act(() => void press());
    expect(screen.getByText('Not yet: 4 s')).toBeTruthy();
    expect(heard.mock.calls).toEqual(Array(before + 1).fill([SOUNDS.notNow]));
    act(() => void jest.advanceTimersByTime(3000));
  }
  act(() => void fireEvent.keyDown(window, { key: 'b' }));
  expect(heard).toHaveBeenCalledTimes(3);
  expect(early.run).not.toHaveBeenCalled();
  jest.useRealTimers();
});

test('undo names what it takes back; what was undone can be brought back, and only then', () => {
  const back = { last: undefined, canBringBack: false, undo: jest.fn(), bringBack: jest.fn() };
  expect(undoActions(back)).toMatchObject([{ key: 'Z', disabled: true }]);
  const both = undoActions({ ...back, last: { kind: 'shot' }, canBringBack: true });
  expect(both).toMatchObject([{ key: 'Z', hint: 'shot', disabled: false }, { key: 'Y' }]);
  both[1]!.run();
  expect(back.bringBack).toHaveBeenCalled();
  expect(back.undo).not.toHaveBeenCalled();
});

describe('who stands at the bench', () => {
  const withPeople = (people: string[]) => fakeApi({ 'GET /settings': { ...settings, people } });
  const saidOf = async (api: ReturnType<typeof fakeApi>, path: string) => {
    sayToLog(path, { kind: 'blank' });
    await waitFor(() => expect(api.writes().some((each) => each.path === `${path}/entries`)).toBe(true));
    return api.writes().find((each) => each.path === `${path}/entries`)!.body as { who?: string };
  };
  test('is asked where two or more work, and put on all that is said from then on', async () => {
    const api = withPeople(['Runa', 'Tevo']);
    renderAt(<AtBench />);
    expect((await saidOf(api, '/pours/nobody')).who).toBeUndefined();
    await userEvent.selectOptions(await screen.findByLabelText('At this bench'), 'Tevo');
    expect((await saidOf(api, '/pours/tevo')).who).toBe('Tevo');
  });
  test('is nobody any more once the workshop does not know the name; one alone is never asked', async () => {
    localStorage.setItem('schmelz-who', 'Tevo');
    const api = withPeople(['Runa']);
    renderAt(<AtBench />);
    await waitFor(() => expect(localStorage.getItem('schmelz-who')).toBeNull());
    expect(screen.queryByLabelText('At this bench')).toBeNull();
    expect((await saidOf(api, '/pours/alone')).who).toBeUndefined();
  });
});
