/** Chance of the worlds, with nothing of the core in it: Lehmer's generator (1951), normal values by Box and Muller. */
export function chance(seed: number) {
  let state = (seed * 2654435761) % 2147483647 || 1;
  const uniform = () => (state = (state * 48271) % 2147483647) / 2147483647;
  return {
    uniform,
    normal: (sd: number) => sd * Math.sqrt(-2 * Math.log(uniform() || 1e-12)) * Math.cos(2 * Math.PI * uniform()),
  };
}
