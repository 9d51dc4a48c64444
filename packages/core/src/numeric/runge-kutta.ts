/**
 * One step of the classical fourth-order Runge-Kutta method (Kutta 1901) for y' = f(q(y)), with the integral of q over
 * the step beside it: what a pot's enthalpy does, and what it lost meanwhile. The same stages serve both, so that they
 * close.
 * @param rate change of y in a unit of time, for a given q; @param quantity q at y; @param dt step
 * @example rungeKuttaWithTotal((q) => -q, (y) => y, 1, 0.1).value // 0.9048
 */
export function rungeKuttaWithTotal(
  rate: (q: number) => number,
  quantity: (y: number) => number,
  y: number,
  dt: number,
): { value: number; total: number } {
  const q1 = quantity(y);
  const k1 = rate(q1);
  const q2 = quantity(y + (dt / 2) * k1);
  const k2 = rate(q2);
  const q3 = quantity(y + (dt / 2) * k2);
  const k3 = rate(q3);
  const q4 = quantity(y + dt * k3);
  const k4 = rate(q4);
  return { value: y + (dt / 6) * (k1 + 2 * k2 + 2 * k3 + k4), total: (dt / 6) * (q1 + 2 * q2 + 2 * q3 + q4) };
}
