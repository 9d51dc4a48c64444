import { act, renderHook } from '@testing-library/react';
import { say, useFullScreen, useSpeech, useWakeLock } from './device.ts';

beforeEach(() => localStorage.clear());

describe('the screen', () => {
  test('stays awake while a bench is open, and is let go with it', async () => {
    const release = jest.fn(async () => undefined);
    const request = jest.fn(async () => ({ release }));
    Object.assign(navigator, { wakeLock: { request } });
    const { unmount, rerender } = renderHook(({ on }) => useWakeLock(on), { initialProps: { on: false } });
    expect(request).not.toHaveBeenCalled();
    rerender({ on: true });
    expect(request).toHaveBeenCalledWith('screen');
    await act(async () => undefined);
    unmount();
    expect(release).toHaveBeenCalledTimes(1);
  });

  test('a refusal of the lock changes nothing else', async () => {
    Object.assign(navigator, { wakeLock: { request: async () => Promise.reject(new Error('low battery')) } });
    const { unmount } = renderHook(() => useWakeLock(true));
    await act(async () => undefined);
    expect(() => unmount()).not.toThrow();
  });

  test('fills the screen and leaves it again', () => {
    const root = document.documentElement as HTMLElement & { requestFullscreen: () => Promise<void> };
    let full = false;
    Object.defineProperty(document, 'fullscreenElement', { configurable: true, get: () => (full ? root : null) });
    const turn = (on: boolean) => async () => {
      full = on;
      act(() => void document.dispatchEvent(new Event('fullscreenchange')));
    };
    root.requestFullscreen = turn(true);
    document.exitFullscreen = turn(false);
    const { result } = renderHook(() => useFullScreen());
    expect(result.current).toMatchObject({ full: false, possible: true });
    result.current.toggle();
    expect(result.current.full).toBe(true);
    result.current.toggle();
    expect(result.current.full).toBe(false);
  });
});

test('words are spoken only where they were asked for', () => {
  const speak = jest.fn();
  const words = () => speak.mock.calls.map(([utterance]) => (utterance as { text: string }).text);
  Object.assign(globalThis, {
    speechSynthesis: { speak, cancel: jest.fn() },
    SpeechSynthesisUtterance: class {
      readonly text: string;
      constructor(text: string) {
        this.text = text;
      }
    },
  });
  say('Skim the old skin off.');
  expect(words()).toEqual([]);
  const { result } = renderHook(() => useSpeech());
  expect(result.current.possible).toBe(true);
  act(() => result.current.toggle());
  expect(result.current.on).toBe(true);
  say('Skim the old skin off.');
  expect(words()).toEqual(['Spoken words are on', 'Skim the old skin off.']);
  act(() => result.current.toggle());
  say('Nothing now.');
  expect(words()).toHaveLength(2);
});
