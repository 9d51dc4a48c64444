import type { Ticket } from '@schmelz/contract';
import { IN_AN_OVEN_C, type OvenLoad, type Reading } from '@schmelz/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { request } from '../../api/client.ts';
import { useLive } from '../../api/live.ts';
import { useList } from '../../api/queries.ts';
import type { Catalogue } from '../../shell/catalogue.ts';
import { useNow } from '../../shell/clock.ts';
import type { TicketBench } from '../count/useTicketBench.ts';
import { bakeCourse, type BakeCourse } from './course.ts';

export const openLoad = (bench: TicketBench): OvenLoad | null =>
  bench.state.loads.find((load) => load.step === bench.here.key && load.unloadedAt === null) ?? null;

const LOOK_AGAIN_MS = 5000;

export interface ProbeInOven {
  readings: Reading[];
  /** It reads, but no hotter than a room: it hangs somewhere else. */
  elsewhere: boolean;
}

/** What a probe in the oven has said since the door was shut. */
function useOvenProbe(load: OvenLoad | null): ProbeInOven {
  const live = useLive('oven');
  const hot = live !== null && live.celsius >= IN_AN_OVEN_C;
  const [channel, setChannel] = useState<number | null>(null);
  // A probe that was once in the hot oven is listened to on, through its drop-outs.
  if (hot && live.channel !== channel) setChannel(live.channel);
  const { data } = useQuery({
    queryKey: ['oven probe', channel, load?.id],
    queryFn: () => request<Reading[]>('GET', `/readings/raw?channel=${channel}&from=${load!.loadedAt}`),
    enabled: channel !== null && load !== null,
    refetchInterval: LOOK_AGAIN_MS,
  });
  const elsewhere = live !== null && !hot && channel === null;
  return useMemo(() => ({ readings: data ?? [], elsewhere }), [data, elsewhere]);
}

export interface RunningLoad {
  load: OvenLoad;
  course: BakeCourse | null;
  probe: ProbeInOven;
  now: number;
}

/** The load of a ticket that is in the oven, as it goes; null while none is. */
export function useRunningLoad(ticket: Ticket, bench: TicketBench | null, catalogue: Catalogue): RunningLoad | null {
  const now = useNow(1000);
  const { data: ovens } = useList('ovens');
  const load = bench ? openLoad(bench) : null;
  const probe = useOvenProbe(load);
  return useMemo(
    () => load && { load, probe, now, course: bakeCourse(ticket, load, catalogue, ovens?.[0], probe.readings, now) },
    [ticket, load, probe, catalogue, ovens, now],
  );
}
