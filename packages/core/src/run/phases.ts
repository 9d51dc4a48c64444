import { standing } from '../log/log.ts';
import type { PourEntry, PourLog } from './pour-log.ts';

export const SESSION_PHASES = ['melt', 'warm-up', 'pour', 'pause', 'wind-down'] as const;
export type SessionPhase = (typeof SESSION_PHASES)[number];

/**
 * Seconds of a session by phase, from its log: melting until the first shot of any kind, blank shots until the first
 * hook, pouring until the last shot, then weighing back and clearing up. Pauses stand apart.
 * @example phaseSeconds(twoShots, 1_080_000) // { melt: 900, warm-up: 60, pour: 120, pause: 0, wind-down: 0 }
 */
export function phaseSeconds(log: PourLog, now: number): Record<SessionPhase, number> {
  const seconds: Record<SessionPhase, number> = { melt: 0, 'warm-up': 0, pour: 0, pause: 0, 'wind-down': 0 };
  const entries = standing<PourEntry>(log);
  const from = entries.findIndex((entry) => entry.kind === 'charge');
  if (from < 0) return seconds;
  const lastShot = entries.findLastIndex((entry) => entry.kind === 'shot');
  const closed = entries.some((entry) => entry.kind === 'close');
  let phase: SessionPhase = 'melt';
  let paused = false;
  for (let i = from; i < entries.length; i++) {
    const entry = entries[i]!;
    if (entry.kind === 'pause') paused = true;
    if (entry.kind === 'resume') paused = false;
    if (entry.kind === 'blank' && phase === 'melt') phase = 'warm-up';
    if (entry.kind === 'done' && entry.what === 'pot off') phase = 'wind-down';
    if (entry.kind === 'shot') phase = i === lastShot && closed ? 'wind-down' : 'pour';
    const until = entries[i + 1]?.at ?? (closed ? entry.at : now);
    seconds[paused ? 'pause' : phase] += Math.max(0, until - entry.at) / 1000;
  }
  return seconds;
}
