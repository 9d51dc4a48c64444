import type { ProbePlace } from '@schmelz/contract';
import { useEffect, useState } from 'react';

export interface LiveReading {
  channel: number;
  place: ProbePlace;
  name: string;
  at: number;
  celsius: number;
}

type Listener = () => void;

/** One connection for all screens, open while one of them looks. */
const latest = new Map<ProbePlace, LiveReading>();
const listeners = new Set<Listener>();
let source: EventSource | null = null;

function listen(listener: Listener): () => void {
  listeners.add(listener);
  if (!source && typeof EventSource !== 'undefined') {
    source = new EventSource('/api/readings/stream');
    source.onmessage = (event: MessageEvent<string>) => {
      for (const reading of JSON.parse(event.data) as LiveReading[]) latest.set(reading.place, reading);
      listeners.forEach((each) => each());
    };
  }
  return () => {
    listeners.delete(listener);
    if (listeners.size > 0) return;
    source?.close();
    source = null;
    latest.clear();
  };
}

/** A reading older than this is not what the probe says now. */
const STALE_MS = 15_000;

/** What the probe at a place says now; null where there is none or it has gone silent. */
export function useLive(place: ProbePlace): LiveReading | null {
  const [reading, setReading] = useState<LiveReading | null>(null);
  useEffect(() => {
    const look = () => {
      const now = latest.get(place);
      setReading(now && Date.now() - now.at < STALE_MS ? now : null);
    };
    const stop = listen(look);
    const timer = setInterval(look, STALE_MS / 3);
    return () => {
      clearInterval(timer);
      stop();
    };
  }, [place]);
  return reading;
}
