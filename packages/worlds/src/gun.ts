/**
 * A heat gun as it may really be, which the models do not know: its air, how its stream wears off, and how much less a
 * wide head takes by the area. Shares no function with the core.
 */
interface WorldGun {
  airC: number;
  /** Into a half-ounce ball, W/m2K. */
  ballWPerM2K: number;
  /** It goes with width to the power of less this. */
  widthPower: number;
  /** Of the shank's surface, the share that lies in the stream. */
  shankShare: number;
}

const STEP_S = 0.01;
const HALF_OUNCE_M = 0.0134;

/** A ball on its hook as the gun sees it. */
interface WorldHead {
  leadKg: number;
  wireM: number;
}

/** Seconds until a ball from the room is at its target: lead and 15 mm of steel, in small steps. */
export function secondsUnder(gun: WorldGun, { leadKg, wireM }: WorldHead, roomC: number, targetC: number): number {
  const widthM = Math.cbrt((6 * leadKg) / (Math.PI * 11_340));
  const shankM2 = 0.015 * Math.PI * wireM;
  const steelKg = 7850 * 0.25 * Math.PI * wireM ** 2 * (widthM + 0.015);
  const joulesPerK = 133 * leadKg + 475 * steelKg;
  // The collar adds a tenth to the ball.
  const surfaceM2 = 1.1 * Math.PI * widthM ** 2 + gun.shankShare * shankM2;
  const wattsPerK = gun.ballWPerM2K * (widthM / HALF_OUNCE_M) ** -gun.widthPower * surfaceM2;
  let [celsius, seconds] = [roomC, 0];
  while (celsius < targetC && seconds < 600) {
    celsius += (wattsPerK * (gun.airC - celsius) * STEP_S) / joulesPerK;
    seconds += STEP_S;
  }
  return seconds;
}

/** Guns that differ in everything. */
export const WORLD_GUNS: WorldGun[] = [
  { airC: 480, ballWPerM2K: 80, widthPower: 0.5, shankShare: 1 },
  { airC: 430, ballWPerM2K: 105, widthPower: 0.4, shankShare: 0.5 },
  { airC: 540, ballWPerM2K: 62, widthPower: 0.3, shankShare: 0.3 },
  { airC: 460, ballWPerM2K: 130, widthPower: 0.55, shankShare: 0 },
];
