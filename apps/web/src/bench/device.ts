import { useEffect, useState, useSyncExternalStore } from 'react';

/** Keeps the screen awake while a bench is open; browsers without it let it sleep as they are set. */
export function useWakeLock(active: boolean): void {
  useEffect(() => {
    if (!active || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const take = async () => {
      if (document.visibilityState !== 'visible') return;
      try {
        const taken = await navigator.wakeLock.request('screen');
        if (over) await taken.release();
        else lock = taken;
      } catch {
        lock = null; // refused on low battery: the screen may sleep, nothing else changes
      }
    };
    const again = () => void take();
    again();
    document.addEventListener('visibilitychange', again);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', again);
      void lock?.release();
    };
  }, [active]);
}

const listenFullScreen = (listener: () => void) => {
  document.addEventListener('fullscreenchange', listener);
  return () => document.removeEventListener('fullscreenchange', listener);
};

/** Whether the bench fills the screen, and a way in and out. */
export function useFullScreen(): { full: boolean; toggle: () => void; possible: boolean } {
  const full = useSyncExternalStore(
    listenFullScreen,
    () => document.fullscreenElement !== null && document.fullscreenElement !== undefined,
  );
  const possible = typeof document.documentElement.requestFullscreen === 'function';
  const toggle = () => void (full ? document.exitFullscreen() : document.documentElement.requestFullscreen());
  return { full, toggle, possible };
}

export interface Switch {
  on: boolean;
  toggle: () => void;
}

/** A choice that this device remembers. */
export function useSwitch(key: string, usual: boolean): Switch {
  const [on, setOn] = useState(() => (localStorage.getItem(key) ?? (usual ? 'on' : 'off')) === 'on');
  const toggle = () => {
    localStorage.setItem(key, on ? 'off' : 'on');
    setOn(!on);
  };
  return { on, toggle };
}

const SPEECH_KEY = 'schmelz-speech';
const speaks = () => localStorage.getItem(SPEECH_KEY) === 'on';

/** Says a few words aloud where the maker has asked for it and the browser can. */
export function say(words: string): void {
  if (!speaks() || typeof speechSynthesis === 'undefined') return;
  speechSynthesis.cancel();
  const utterance = new SpeechSynthesisUtterance(words);
  utterance.lang = 'en';
  utterance.rate = 1.05;
  speechSynthesis.speak(utterance);
}

export function useSpeech(): { on: boolean; toggle: () => void; possible: boolean } {
  const [on, setOn] = useState(speaks);
  const toggle = () => {
    localStorage.setItem(SPEECH_KEY, on ? 'off' : 'on');
    setOn(!on);
    if (!on) say('Spoken words are on');
  };
  return { on, toggle, possible: typeof speechSynthesis !== 'undefined' };
}
