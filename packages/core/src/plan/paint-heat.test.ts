import { schoolsFollowed } from '../ways/house.ts';
import { dipSeconds, paintSeconds } from '../ways/work.ts';
import { product, workshop } from '../test/workshop.ts';
import { heatMinor, paintHeat } from './paint-heat.ts';
import { productHeated } from './product.ts';

const { ways } = workshop();
const ten = product(10);
const white = ten.layers[0]!;

test('a gun blows for as long as its coats take: watts times hours, worked by hand', () => {
  // Two coats of 30 s each by the maker's own pace, at 1,500 W: 0.025 kWh.
  const own = { ...ways, coatS: 30 };
  expect(paintHeat(own, ten, [{ ...white, zone: 'whole', coats: 2 }])).toEqual({ electricKWh: 0.025, gasKg: 0 });
  expect(paintHeat({ ...own, gunPowerW: 2000 }, ten, [{ ...white, coats: 1 }]).electricKWh).toBeCloseTo(
    (2000 * 30) / 3.6e6,
    12,
  );
  expect(() => paintHeat({ ...own, gunPowerW: 20 }, ten)).toThrow(/heat gun is 20/);
});

test('what is tapped on or liquid takes no heat; a second coat takes less than the first, as its head is still warm', () => {
  expect(paintHeat(ways, ten, [{ ...white, zone: 'back' }])).toEqual({ electricKWh: 0, gasKg: 0 });
  expect(paintHeat(ways, ten, [{ ...white, powder: { ...white.powder, form: 'liquid' } }]).electricKWh).toBe(0);
  const torch = { ...ways, schools: { tool: 'torch' as const } };
  const [one, two] = [1, 2].map((coats) => paintHeat(torch, ten, [{ ...white, coats }]).gasKg);
  expect(two! - one!).toBeGreaterThan(0);
  expect(two!).toBeLessThan(2 * one!);
});

test('dips are what painting takes where nothing is tapped on', () => {
  const layers = [{ zone: 'whole' as const, coats: 2, form: 'powder' as const }];
  const schools = schoolsFollowed();
  const dips = dipSeconds(layers, productHeated(ten), schools, ways);
  expect(dips.dips).toBe(2);
  expect(dips.coatS).toBeCloseTo(paintSeconds(layers, productHeated(ten), schools, ways), 12);
  expect(dips.heatedS).toBeLessThan(dips.coatS);
});

test('heat costs its current and its gas: common prices where the maker has said none', () => {
  expect(heatMinor({ energyMinorPerKWh: 32 }, { electricKWh: 0.5, gasKg: 0.01 })).toBeCloseTo(31, 12);
});
