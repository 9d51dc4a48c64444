import { STYLE_IDS, cavityVolumeM3 } from '@schmelz/core';
import { render } from '@testing-library/react';
import { molds } from '../test/fixtures.ts';
import { drawnCavities } from './cavities.ts';
import { Head } from './Head.tsx';
import { grain } from './grain.ts';
import { headParts, sprueOutline, tones } from './head-parts.ts';
import { BARE, isPainted, paintOf } from './paint.ts';
import type { PlanLayer } from '@schmelz/core';
import { Mold, moldFrame } from './Mold.tsx';
import { dotsPath, mm, pathOf } from './paths.ts';

const spec = { style: 'ball', massKg: 0.014, hookSize: '3/0', eyeAngleDeg: 60 } as const;

describe('paths', () => {
  test('metres become hundredths of millimetres', () => {
    expect(mm(0.0123456)).toBe(12.35);
    expect(
      pathOf([
        [0, 0],
        [0.001, 0.002],
      ]),
    ).toBe('M0 0L1 2Z');
    expect(
      pathOf(
        [
          [0, 0],
          [0.001, 0],
        ],
        false,
      ),
    ).toBe('M0 0L1 0');
    expect(pathOf([])).toBe('');
    expect(dotsPath([{ x: 0.001, y: 0, r: 0.0005 }])).toBe('M0.5 0a0.5 0.5 0 1 0 1 0a0.5 0.5 0 1 0 -1 0');
  });
});

describe('heads drawn from the geometry that weighs them', () => {
  test('a drawn ball has the volume of its stamp', () => {
    const { outline, solid } = headParts(spec);
    const height = Math.max(...outline.map(([, y]) => y)) - Math.min(...outline.map(([, y]) => y));
    // The body is a sphere a little smaller than the whole, since the collar is metal too.
    const sphere = Math.cbrt((6 * cavityVolumeM3(0.014)) / Math.PI);
    expect(height).toBeLessThan(sphere);
    expect(height).toBeGreaterThan(sphere * 0.93);
    expect(solid.volumeM3).toBe(cavityVolumeM3(0.014));
  });

  test('to scale: eight times the mass is twice as long', () => {
    const length = (massKg: number) => {
      const xs = headParts({ ...spec, massKg }).outline.map(([x]) => x);
      return Math.max(...xs) - Math.min(...xs);
    };
    expect(length(0.04) / length(0.005)).toBeCloseTo(2, 6);
  });

  test.each(STYLE_IDS)('%s: the eye stands clear, everything lies in its box', (style) => {
    const { hook: wired, outline, box } = headParts({ ...spec, style });
    const hook = wired!;
    const inside = outline.filter(([x, y]) => Math.hypot(x - hook.eye.x, y - hook.eye.y) < hook.eye.radiusM * 0.6);
    expect(inside).toEqual([]);
    for (const [x, y] of [...outline, ...hook.wire]) {
      expect(x >= box.x0 && x <= box.x1 && y >= box.y0 && y <= box.y1).toBe(true);
    }
  });

  test('the same head is drawn the same every time, another seed otherwise', () => {
    const head = headParts(spec);
    const all = (seed: number) => {
      const { grains, seconds, ...paths } = grain(head, seed);
      return { ...paths, grains: grains(0.4) + seconds(0.4) };
    };
    expect(all(5)).toEqual(all(5));
    expect(grain(head, 5).speckles).not.toBe(grain(head, 6).speckles);
    expect(headParts(spec)).toBe(head);
    expect(tones(head).shade.startsWith(pathOf(head.outline))).toBe(true);
  });

  test('a sprue sits on the nose', () => {
    const head = headParts(spec);
    const nose = Math.min(...head.outline.map(([x]) => x));
    expect(Math.min(...sprueOutline(head).map(([x]) => x))).toBeLessThan(nose - 0.006);
  });

  test('states: a hook alone has no body, a blank no paint, a baked head its light and its eye', () => {
    const gloss = (colour: string) => ({ colour, gloss: 'gloss' as const });
    const paint = {
      ...BARE,
      base: gloss('#ece7d8'),
      back: gloss('#dd5f33'),
      speckle: gloss('#222222'),
      eye: '#e2d27c',
    };
    const html = (state: Parameters<typeof Head>[0]['state']) =>
      render(<Head {...spec} state={state} paint={paint} />).container.innerHTML;
    expect(html('hook')).not.toContain('clipPath');
    expect(html('blank')).not.toContain('#dd5f33');
    expect(html('powder')).toContain('#dd5f33');
    expect(html('powder')).not.toContain('ellipse');
    expect(html('baked')).toContain('ellipse');
    expect(html('baked')).toContain('#e2d27c');
  });

  test('a recipe comes to lie as it is laid on: the last on a zone is seen, clear hides nothing, a new base hides all', () => {
    const named = {
      white: { colour: '#ffffff', gloss: 'gloss' },
      black: { colour: '#000000', gloss: 'gloss' },
      clear: { colour: '#eeeeee', gloss: 'clear' },
      nameless: {},
    };
    const powders = Object.fromEntries(
      Object.entries(named).map(([name, looks]) => [
        name,
        { materialId: name, name, specificGravity: 1.5, label: [], ...looks },
      ]),
    ) as unknown as Record<keyof typeof named, PlanLayer['powder']>;
    const of = (...layers: [keyof typeof powders, 'whole' | 'back' | 'nose', PlanLayer['mix']?][]) =>
      paintOf(
        layers.map(([name, zone, mix]) => ({ powder: powders[name], zone, coats: 1, ...(mix ? { mix } : {}) })),
        null,
      );
    expect(isPainted(of())).toBe(false);
    expect(of(['clear', 'whole'])).toMatchObject({ base: null, clear: true });
    expect(of(['white', 'whole'], ['black', 'back'], ['clear', 'whole'])).toMatchObject({
      base: { colour: '#ffffff' },
      back: { colour: '#000000' },
      clear: true,
    });
    expect(of(['black', 'back'], ['white', 'whole']).back).toBeNull();
    // Half the light of white over black: IEC 61966-2-1.
    expect(of(['white', 'whole', { powder: powders.black, share: 0.5 }]).base).toMatchObject({
      colour: '#bcbcbc',
      grains: { first: '#ffffff', second: '#000000' },
    });
    // A powder whose colour nobody knows is not seen.
    expect(of(['nameless', 'whole'])).toEqual(BARE);
  });

  test('each gloss has its own light: one lens on gloss, two on clear, a band on metal, none on matte; eyes on bare lead too', () => {
    const lights = (gloss: 'gloss' | 'matte' | 'metallic', more = {}) =>
      render(
        <Head {...spec} state="baked" paint={{ ...BARE, base: { colour: '#aa5533', gloss }, ...more }} />,
      ).container.querySelectorAll('ellipse').length;
    expect([lights('gloss'), lights('matte'), lights('metallic'), lights('matte', { clear: true })]).toEqual([
      1, 0, 2, 2,
    ]);
    const bare = render(<Head {...spec} state="baked" paint={{ ...BARE, eye: '#d9a441' }} />).container.innerHTML;
    expect(bare).toContain('#d9a441');
    expect(bare).toContain('var(--lead)');
  });

  test('poses swap width and height', () => {
    const size = (pose: 'lie' | 'hang' | 'nose') => {
      const svg = render(<Head {...spec} state="blank" pose={pose} scale={2} />).container.querySelector('svg')!;
      return [Number(svg.getAttribute('width')), Number(svg.getAttribute('height'))];
    };
    const [width, height] = size('lie') as [number, number];
    expect(size('hang')).toEqual([height, width]);
    expect(size('nose')).toEqual([height, width]);
    expect(width).toBeGreaterThan(height);
  });

  test('a head has a name for those who cannot see it, or none at all', () => {
    const named = render(<Head {...spec} state="blank" label="Pebble" />).container.querySelector('svg')!;
    expect(named.getAttribute('role')).toBe('img');
    expect(
      render(<Head {...spec} state="blank" />)
        .container.querySelector('svg')!
        .getAttribute('aria-hidden'),
    ).toBe('true');
  });
});

describe('molds', () => {
  const cavities = drawnCavities(molds[0]!, 'g', (position) => (position === 2 ? 'filled' : 'loaded'), 0.4);

  test('cavities lie in their places with their stamps', () => {
    const { container } = render(<Mold cavities={cavities} label="Three" />);
    expect([...container.querySelectorAll('text')].map((text) => text.textContent)).toEqual(['10', '10', '10']);
    expect(container.querySelector('svg')!.getAttribute('aria-label')).toBe('Three');
  });

  test('columns under a mold follow its cavities', () => {
    const frame = moldFrame(cavities);
    const [first, second] = [frame.column(0), frame.column(1)];
    expect(second.left - first.left).toBeCloseTo(26 / frame.width, 6);
    expect(frame.column(2).left + frame.column(2).width).toBeLessThan(1);
  });

  test('setting metal has a hot core, set metal has none; a blocked cavity is struck out', () => {
    const hot = (frozen: number) =>
      render(
        <Mold cavities={drawnCavities(molds[0]!, 'g', () => 'filled', frozen)} label="m" />,
      ).container.innerHTML.split('var(--straw)').length - 1;
    expect(hot(0.2)).toBeGreaterThan(0);
    expect(hot(1)).toBe(0);
    const blocked = { cavities: [{ ...molds[0]!.cavities[0]!, condition: 'blocked' as const }] };
    expect(drawnCavities(blocked, 'g', () => 'loaded')[0]!.state).toBe('blocked');
    expect(render(<Mold cavities={drawnCavities(blocked, 'oz')} label="m" />).container.innerHTML).toContain(
      'var(--stop)',
    );
  });
});
