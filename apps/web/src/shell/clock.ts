import { useEffect, useState } from 'react';
import { now as theTime } from '../units/now.ts';

/** The time, again and again; a screen with a running clock asks for it, every other one does not. */
export function useNow(everyMs = 500): number {
  const [now, setNow] = useState(theTime);
  useEffect(() => {
    const timer = setInterval(() => setNow(theTime()), everyMs);
    return () => clearInterval(timer);
  }, [everyMs]);
  return now;
}

const VOLUME_KEY = 'schmelz-volume';
const USUAL_VOLUME = 0.5;
/** How loud, 0 to 1. */
export const soundVolume = (): number => Number(localStorage.getItem(VOLUME_KEY) ?? USUAL_VOLUME);
export const setSoundVolume = (volume: number): void => localStorage.setItem(VOLUME_KEY, String(volume));

const SOUND_KEY = 'schmelz-sound';
export const soundIsOn = (): boolean => localStorage.getItem(SOUND_KEY) !== 'off';
export const switchSound = (on: boolean): void => localStorage.setItem(SOUND_KEY, on ? 'on' : 'off');

let audio: AudioContext | null = null;

/** A short pattern of tones, Hz and seconds; silent where the browser has not been touched yet. */
export function sound(tones: readonly (readonly [number, number])[], volume = 0.5 * soundVolume()): void {
  if (!soundIsOn() || volume <= 0) return;
  try {
    audio ??= new AudioContext();
  } catch {
    return; // no sound on this device
  }
  let at = audio.currentTime;
  for (const [hertz, seconds] of tones) {
    const [tone, gain] = [audio.createOscillator(), audio.createGain()];
    tone.frequency.value = hertz;
    gain.gain.setValueAtTime(volume, at);
    gain.gain.exponentialRampToValueAtTime(0.001, at + seconds);
    tone.connect(gain).connect(audio.destination);
    tone.start(at);
    tone.stop(at + seconds);
    at += seconds * 0.9;
  }
}

/** Each kind of wait has its own sound. */
export const SOUNDS = {
  melt: [
    [330, 0.25],
    [330, 0.4],
  ],
  freeze: [
    [880, 0.12],
    [1175, 0.2],
  ],
  oven: [
    [660, 0.5],
    [880, 0.5],
    [660, 0.7],
  ],
  cool: [[440, 0.3]],
  dry: [
    [523, 0.12],
    [523, 0.12],
  ],
  wait: [
    [494, 0.14],
    [587, 0.14],
    [494, 0.2],
  ],
  tap: [[520, 0.05]],
  /** A key that means nothing yet. */
  notNow: [
    [165, 0.07],
    [165, 0.07],
  ],
  beat: [[1320, 0.03]],
  close: [
    [990, 0.06],
    [990, 0.06],
  ],
  reject: [[200, 0.12]],
} as const;
