import { product } from '../test/workshop.ts';
import { planOven } from '../test/examples.ts';
import { allBakedBy, rebaked } from './rebaked.ts';
import { stepsOf } from '../plan/product.ts';

// White of the tests: 20 min at 177 C, 10 at 200 (a label's two lines). Times by hand from these, see each line.
const by = (setC: number, minutes: number, preheated = true) => ({
  ...{ name: `${setC} C, ${minutes} min`, setC, seconds: 60 * minutes, preheated },
});
const of = (setC: number, minutes: number) => rebaked(product(10), by(setC, minutes), planOven, 40);
const bronze = (limitC: number) => {
  const plain = product(10);
  return { ...plain, hook: { ...plain.hook!, limitC } };
};

test('another program is one where the powder is cured by it and nothing stands too much heat', () => {
  // A head is warm some five minutes after the door is shut, and then wants ten minutes at 200 C.
  expect(of(200, 25)?.bake).toEqual(by(200, 25));
  expect(
    stepsOf(of(200, 25)!)
      .filter(({ bake }) => bake)
      .map(({ bake }) => bake!.setC),
  ).toEqual([200]);
  expect(of(200, 7)).toBeNull();
  expect(of(121, 20)).toBeNull();
  // Three full cures and more are brittle.
  expect(of(200, 90)).toBeNull();
  expect(rebaked(bronze(190), by(200, 25), planOven, 40)).toBeNull();
  expect(rebaked(bronze(215), by(200, 25), planOven, 40)).not.toBeNull();
  expect(rebaked({ ...product(10), bake: null }, by(200, 25), planOven, 40)).toBeNull();
});

test('all of it by one program, or nothing: what is baked so already stays, what is bare stays bare', () => {
  const bare = { ...product(14), layers: [], bake: null };
  const wanted = [
    { id: 'a', product: product(10) },
    { id: 'b', product: bare },
  ];
  const hot = allBakedBy(wanted, by(200, 25), planOven, 40)!;
  expect(hot.map(({ id, product: each }) => [id, each.bake?.setC ?? null])).toEqual([
    ['a', 200],
    ['b', null],
  ]);
  expect(allBakedBy(hot, by(200, 25), planOven, 40)).toBeNull();
  expect(allBakedBy([...wanted, { id: 'c', product: bronze(150) }], by(200, 25), planOven, 40)).toBeNull();
  expect(allBakedBy([{ id: 'b', product: bare }], by(200, 25), planOven, 40)).toBeNull();
});
