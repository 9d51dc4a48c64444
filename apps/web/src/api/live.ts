import { now } from '../units/now.ts';
import type { ProbePlace } from '@schmelz/contract';
import { onScale, type OnScale, type Weight } from '@schmelz/core';
import { useEffect, useState } from 'react';

export interface LiveReading {
  channel: number;
  place: ProbePlace;
  name: string;
  at: number;
  celsius: number;
  /** No probe in a workshop reads that: its plug or its wire wants a look. */
  odd?: boolean;
}

type Listener = () => void;

/** One connection for all screens, open while one of them looks. */
const latest = new Map<ProbePlace, LiveReading>();
/** What cannot be, by the place that says it. */
const odd = new Map<ProbePlace, LiveReading>();
/** The newest readings of the scale: enough to see whether it has settled. */
const SCALE_KEPT = 32;
let weights: Weight[] = [];
const listeners = new Set<Listener>();
let source: EventSource | null = null;

function listen(listener: Listener): () => void {
  listeners.add(listener);
  if (!source && typeof EventSource !== 'undefined') {
    source = new EventSource('/api/readings/stream');
    source.onmessage = (event: MessageEvent<string>) => {
      for (const reading of JSON.parse(event.data) as LiveReading[]) {
        (reading.odd ? odd : latest).set(reading.place, reading);
      }
      listeners.forEach((each) => each());
    };
    source.addEventListener('weight', (event: MessageEvent<string>) => {
      weights = [...weights, ...(JSON.parse(event.data) as Weight[])].slice(-SCALE_KEPT);
      listeners.forEach((each) => each());
    });
  }
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    source?.close();
    source = null;
    latest.clear();
    odd.clear();
    weights = [];
  };
}

/** A reading older than this is not what the probe says now. */
const STALE_MS = 15_000;

/** What the probe at a place says now; null where there is none, it has gone silent, or what it says cannot be. */
export const useLive = (place: ProbePlace): LiveReading | null => useNewest(latest, place);
/** A reading of this moment that cannot be. */
export const useOdd = (place: ProbePlace): LiveReading | null => useNewest(odd, place);

function useNewest(readings: ReadonlyMap<ProbePlace, LiveReading>, place: ProbePlace): LiveReading | null {
  const [reading, setReading] = useState<LiveReading | null>(null);
  useEffect(() => {
    const look = () => {
      const newest = readings.get(place);
      setReading(newest && now() - newest.at < STALE_MS ? newest : null);
    };
    const stop = listen(look);
    const timer = setInterval(look, STALE_MS / 3);
    return () => {
      clearInterval(timer);
      stop();
    };
  }, [readings, place]);
  return reading;
}

/** What lies on the scale now; null where there is none or it has gone silent. */
export function useScale(): OnScale | null {
  const [shown, setShown] = useState<OnScale | null>(null);
  useEffect(() => {
    const look = () => setShown(now() - (weights.at(-1)?.at ?? 0) < STALE_MS ? onScale(weights) : null);
    const stop = listen(look);
    const timer = setInterval(look, STALE_MS / 3);
    return () => {
      clearInterval(timer);
      stop();
    };
  }, []);
  return shown;
}
