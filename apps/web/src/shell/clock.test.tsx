import { act, renderHook } from '@testing-library/react';
import { prepareBrowser } from '../test/render.tsx';
import { sound, soundIsOn, SOUNDS, switchSound, useNow } from './clock.ts';

beforeEach(prepareBrowser);

/** A stand-in for the browser's audio that keeps what it was asked to play. */
class FakeAudio {
  static played: number[] = [];
  currentTime = 0;
  destination = {};
  createOscillator() {
    const tone = {
      frequency: { value: 0 },
      connect: (to: unknown) => to,
      start: () => FakeAudio.played.push(tone.frequency.value),
      stop: () => {},
    };
    return tone;
  }
  createGain() {
    return { gain: { setValueAtTime() {}, exponentialRampToValueAtTime() {} }, connect: (to: unknown) => to };
  }
}

describe('clocks', () => {
  test('the time goes on while a screen shows it, and stops when it leaves', () => {
    jest.useFakeTimers({ now: 1_000_000 });
    const { result, unmount } = renderHook(() => useNow(200));
    expect(result.current).toBe(1_000_000);
    act(() => void jest.advanceTimersByTime(1000));
    expect(result.current).toBe(1_001_000);
    unmount();
    expect(jest.getTimerCount()).toBe(0);
    jest.useRealTimers();
  });

  test('each kind of wait has a sound of its own, and it can be silenced', () => {
    Object.assign(globalThis, { AudioContext: FakeAudio });
    const heard = (name: keyof typeof SOUNDS) => {
      FakeAudio.played = [];
      sound(SOUNDS[name]);
      return FakeAudio.played.join();
    };
    const all = (Object.keys(SOUNDS) as (keyof typeof SOUNDS)[]).map(heard);
    expect(new Set(all).size).toBe(all.length);
    expect(heard('freeze')).toBe('880,1175');
    switchSound(false);
    expect([soundIsOn(), heard('freeze')]).toEqual([false, '']);
  });
});
