import { render } from '@testing-library/react';
import { roomOf, type OvenRack } from '@schmelz/core';
import { Jar } from './Jar.tsx';
import { headParts } from './head-parts.ts';
import { BARE } from './paint.ts';
import { mm } from './paths.ts';
import { RackView, rackScale, type RackKind } from './RackView.tsx';

const spec = { style: 'ball', massKg: 0.014, hookSize: '3/0', eyeAngleDeg: 60 } as const;
const { pitchM } = roomOf(spec);
const kind: RackKind = { spec, paint: BARE, state: 'powder', pitchM };
const wires: OvenRack = { name: 'Wires', way: 'hanging', bars: 2, barM: 0.12, clearM: 0.07 };

const draw = (rack: OvenRack, bars: { groupId: string; heads: number }[][]) =>
  render(<RackView rack={rack} bars={bars} kinds={new Map([['a', kind]])} pitchM={pitchM} label="rack" />).container;
/** Where each head stands, mm: how its drawing is moved. */
const places = (container: HTMLElement) =>
  [...container.querySelectorAll('use')].map((use) => {
    const [, x, y, turn] = /translate\(([-\d.]+) ([-\d.]+)\) rotate\(([-\d]+)\)/.exec(use.getAttribute('transform')!)!;
    return { x: Number(x), y: Number(y), turn: Number(turn) };
  });

describe('a rack, drawn to scale', () => {
  test('heads hang side by side at their pitch, by the bend from their bar', () => {
    const container = draw(wires, [[{ groupId: 'a', heads: 3 }], []]);
    const heads = places(container);
    expect(heads).toHaveLength(3);
    expect(heads[1]!.x - heads[0]!.x).toBeCloseTo(mm(pitchM), 6);
    const bar = Number(
      /M[-\d.]+ ([-\d.]+)H/.exec(
        container.querySelector('path[stroke="var(--steel)"][stroke-width="1.4"]')!.getAttribute('d')!,
      )![1],
    );
    // The bend's outermost point lies on the bar, the nose below it within the air that is there.
    const { box } = headParts(spec);
    expect(heads[0]!.y - mm(box.x1)).toBeCloseTo(bar, 6);
    expect(heads[0]!.y - mm(box.x0) - bar).toBeLessThan(mm(wires.clearM));
    expect(heads.every((head) => head.turn === -90)).toBe(true);
  });
  test('free places are marked, as many as still fit', () => {
    const fits = Math.floor(0.12 / pitchM);
    const marks = (heads: number) =>
      draw(wires, [[{ groupId: 'a', heads }], []]).querySelectorAll(
        'path[stroke-linecap="round"][stroke="var(--rule-2)"]',
      ).length;
    expect(marks(0)).toBe(2 * fits);
    expect(marks(3)).toBe(2 * fits - 3);
    expect(marks(fits)).toBe(fits);
  });
  test('upright they stand nose up in a clamp', () => {
    const heads = places(
      draw({ ...wires, way: 'upright' }, [[{ groupId: 'a', heads: 2 }], [{ groupId: 'a', heads: 1 }]]),
    );
    expect(heads.map((head) => head.turn)).toEqual([90, 90, 90]);
    expect(heads[2]!.y).toBeGreaterThan(heads[0]!.y);
  });
  test('many bars stand in two columns, and all of it fits where it is put', () => {
    const eight = { ...wires, bars: 8 };
    const heads = places(
      draw(
        eight,
        Array.from({ length: 8 }, () => [{ groupId: 'a', heads: 1 }]),
      ),
    );
    expect(new Set(heads.map((head) => head.x)).size).toBe(2);
    for (const rack of [wires, eight]) {
      const scale = rackScale(rack, 400, 300);
      const svg = render(
        <RackView rack={rack} bars={[]} kinds={new Map()} pitchM={pitchM} scale={scale} label="r" />,
      ).container.querySelector('svg')!;
      expect(Number(svg.getAttribute('width'))).toBeLessThanOrEqual(400.001);
      expect(Number(svg.getAttribute('height'))).toBeLessThanOrEqual(300.001);
    }
  });
});

describe('a jar', () => {
  const levels = (kg: number, low: number, high: number) => {
    const [hatched, full] = [
      ...render(<Jar colour="#dd5f33" full={0.2} kg={kg} low={low} high={high} />).container.querySelectorAll('g rect'),
    ].map((rect) => Number(rect.getAttribute('height'))) as [number, number];
    return { hatched, full };
  };
  test('is full up to what is sure and hatched as far as it may go', () => {
    const weighed = levels(0.1, 0.1, 0.1);
    expect(weighed.hatched).toBe(0);
    const guessed = levels(0.1, 0.08, 0.12);
    expect(guessed.hatched).toBeGreaterThan(0);
    expect(guessed.full).toBeLessThan(weighed.full);
    expect(guessed.full + guessed.hatched).toBeGreaterThan(weighed.full);
    expect(levels(0.2, 0.2, 0.2).full).toBeCloseTo(2 * weighed.full, 6);
  });
  test('never runs over, never under', () => {
    expect(levels(5, 4, 6).full).toBeCloseTo(levels(0.2, 0.2, 0.2).full, 6);
    expect(levels(0, -0.01, 0.01).full).toBe(0);
  });
});
