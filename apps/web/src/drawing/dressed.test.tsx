import { cleanup, render } from '@testing-library/react';
import { Dressed, DRESSED_WITH } from './Dressed.tsx';
import { BARE } from './paint.ts';

afterEach(cleanup);

const head = { style: 'ball', massKg: 0.014, hookSize: '3/0', eyeAngleDeg: 60, paint: BARE, state: 'blank' } as const;
function drawn(on: string[], more: object = {}) {
  const { container, unmount } = render(
    <Dressed {...head} on={on} colour="#123456" scale={4} label="A head" {...more} />,
  );
  const svg = container.querySelector('svg')!;
  const [x, y, width, height] = svg.getAttribute('viewBox')!.split(/[ ,]+/).map(Number) as [
    number,
    number,
    number,
    number,
  ];
  const seen = {
    shapes: svg.querySelectorAll('path, line, circle, ellipse, polygon, rect').length,
    x,
    y,
    width,
    height,
    html: svg.innerHTML.replaceAll(/_r_\w+_/g, 'id'),
  };
  unmount();
  return seen;
}

describe('a head as it is sold', () => {
  const bare = drawn([]);
  // A tube is drawn over what it is pushed on; a bead and a keeper are seen with what they sit on or not at all.
  const ALONE = DRESSED_WITH.filter((kind) => !['shrink tube', 'bead', 'wire keeper'].includes(kind));
  test.each(ALONE)('with a %s has more on it than a bare one', (kind) => {
    expect(drawn([kind]).shapes).toBeGreaterThan(bare.shapes);
  });

  test('what nobody can see leaves it as it is: glue, a bag, a kind that is not known', () => {
    expect(drawn(['glue', 'bag', 'label']).html === bare.html).toBe(true);
  });

  test('a skirt and hair fall behind it, in its colour, and the picture is as long as they are', () => {
    for (const kind of ['banded skirt', 'skirt tab', 'hair', 'feather']) {
      const one = drawn([kind]);
      expect([kind, one.html.includes('#123456')]).toEqual([kind, true]);
      expect(one.x + one.width).toBeGreaterThanOrEqual(bare.x + bare.width);
    }
    // A skirt is five centimetres or more of strands: mm stand in the picture.
    expect(drawn(['banded skirt']).width).toBeGreaterThan(50);
  });

  test('a guard stands before the point of the hook, above the head; without a hook there is none', () => {
    expect(drawn(['guard']).y).toBeLessThan(bare.y);
    const without = { hookSize: null };
    expect(drawn(['guard', 'wire guard'], without).shapes).toBe(drawn([], without).shapes);
  });

  test('a wire form is longer than a ring, and what hangs on it is drawn once each', () => {
    const [ring, form] = [drawn(['ring']), drawn(['wire form'])];
    expect(form.width).toBeGreaterThan(ring.width);
    expect(drawn(['wire form', 'bead']).shapes - form.shapes).toBe(4);
    expect(drawn(['wire form', 'treble']).shapes - form.shapes).toBe(3);
    expect(drawn(['wire form', 'blade']).shapes - form.shapes).toBe(1);
    // The wire has a ring of its own.
    expect(drawn(['wire form', 'ring']).shapes).toBe(form.shapes);
    // Nothing hangs without something to hang on.
    expect(drawn(['bead']).html === bare.html).toBe(true);
  });

  test('a tube is drawn over its wires; thread has more turns than a band', () => {
    expect(drawn(['wire guard', 'shrink tube']).shapes - drawn(['wire guard']).shapes).toBe(1);
    expect(drawn(['shrink tube']).html === bare.html).toBe(true);
    expect(drawn(['thread']).shapes - bare.shapes).toBe(9);
    expect(drawn(['collar']).shapes - bare.shapes).toBe(4);
  });

  test('is the same each time that it is drawn, and has its name', () => {
    expect(drawn(['banded skirt', 'guard']).html === drawn(['banded skirt', 'guard']).html).toBe(true);
    const { getByRole } = render(<Dressed {...head} on={['guard']} scale={4} label="Guard jig" />);
    expect(getByRole('img', { name: 'Guard jig' })).toBeTruthy();
  });
});
