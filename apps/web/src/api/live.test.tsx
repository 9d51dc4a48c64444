import { act, renderHook } from '@testing-library/react';
import { useLive, useScale } from './live.ts';

/** A stream of the test's own in the place of the browser's. */
class Stream {
  static open: Stream[] = [];
  onmessage: ((event: { data: string }) => void) | null = null;
  closed = false;
  onWeight: ((event: { data: string }) => void) | null = null;
  addEventListener(_: 'weight', listener: (event: { data: string }) => void) {
    this.onWeight = listener;
  }
  readonly url: string;
  constructor(url: string) {
    this.url = url;
    Stream.open.push(this);
  }
  close() {
    this.closed = true;
  }
  say(...readings: { place: string; at: number; celsius: number }[]) {
    act(() =>
      this.onmessage?.({ data: JSON.stringify(readings.map((each) => ({ channel: 1, name: each.place, ...each }))) }),
    );
  }
}

beforeEach(() => {
  Stream.open = [];
  Object.assign(globalThis, { EventSource: Stream });
  jest.useFakeTimers({ now: 1_000_000 });
});
afterEach(() => jest.useRealTimers());

test('one stream for all who look, closed with the last of them', () => {
  const pot = renderHook(() => useLive('pot'));
  const mold = renderHook(() => useLive('mold'));
  expect(Stream.open.map((stream) => stream.url)).toEqual(['/api/readings/stream']);
  Stream.open[0]!.say({ place: 'pot', at: 1_000_000, celsius: 371 });
  expect(pot.result.current?.celsius).toBe(371);
  expect(mold.result.current).toBeNull();
  pot.unmount();
  expect(Stream.open[0]!.closed).toBe(false);
  mold.unmount();
  expect(Stream.open[0]!.closed).toBe(true);
});

test('a probe that has gone silent is not what the pot is at now', () => {
  const pot = renderHook(() => useLive('pot'));
  Stream.open[0]!.say({ place: 'pot', at: 1_000_000, celsius: 371 });
  expect(pot.result.current).not.toBeNull();
  act(() => void jest.advanceTimersByTime(21_000));
  expect(pot.result.current).toBeNull();
  Stream.open[0]!.say({ place: 'pot', at: 1_021_000, celsius: 372 });
  expect(pot.result.current?.celsius).toBe(372);
  pot.unmount();
});

test('what was heard before a screen was left is not shown when it is opened again', () => {
  const first = renderHook(() => useLive('oven'));
  Stream.open[0]!.say({ place: 'oven', at: 1_000_000, celsius: 177 });
  first.unmount();
  const again = renderHook(() => useLive('oven'));
  expect(again.result.current).toBeNull();
  expect(Stream.open).toHaveLength(2);
  again.unmount();
});

test('the scale: settling, settled, empty, silent', () => {
  const scale = renderHook(() => useScale());
  expect(scale.result.current).toBeNull();
  const weigh = (...grams: number[]) => {
    const weights = grams.map((g, i) => ({
      name: 'scale',
      at: Date.now() + 1000 * (i + 1 - grams.length),
      kg: g / 1000,
    }));
    act(() => Stream.open.at(-1)!.onWeight?.({ data: JSON.stringify(weights) }));
  };
  weigh(8.1);
  expect(scale.result.current).toMatchObject({ steady: false, empty: false });
  weigh(10.61, 10.62, 10.61);
  expect(scale.result.current).toMatchObject({ steady: true });
  weigh(0, 0, 0);
  expect(scale.result.current).toMatchObject({ empty: true, steady: false });
  act(() => jest.advanceTimersByTime(40_000));
  expect(scale.result.current).toBeNull();
  scale.unmount();
});
