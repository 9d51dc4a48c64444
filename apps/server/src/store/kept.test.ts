import { temporaryFolder } from '../test/server.ts';
import { openStore, type Store } from './store.ts';

let store: Store;
beforeAll(async () => {
  store = await openStore(temporaryFolder());
});
afterAll(() => store.close());

test('what was reckoned from all records is reckoned once, and anew after a write, whether it went well or not', async () => {
  let times = 0;
  const ask = () => store.kept('count', () => Promise.resolve(++times));
  expect(await Promise.all([ask(), ask(), ask()])).toEqual([1, 1, 1]);
  await store.write(() => Promise.resolve());
  expect([await ask(), await ask()]).toEqual([2, 2]);
  await expect(store.write(() => Promise.reject(new Error('no')))).rejects.toThrow('no');
  expect(await ask()).toBe(3);
  await store.alone(() => Promise.resolve());
  expect(await ask()).toBe(4);
  expect(await store.kept('another', () => Promise.resolve('own'))).toBe('own');
});

test('what is read while a write goes on is not kept beyond its end; what failed is tried again', async () => {
  let [value, times] = [1, 0];
  const ask = () => store.kept('value', () => Promise.resolve([value, ++times]));
  const written = store.write(async () => {
    expect(await ask()).toEqual([1, 1]);
    value = 2;
  });
  await written;
  expect(await ask()).toEqual([2, 2]);
  let tries = 0;
  const fails = () =>
    store.kept('fails', () => (++tries < 2 ? Promise.reject(new Error('busy')) : Promise.resolve(tries)));
  await expect(fails()).rejects.toThrow('busy');
  expect(await fails()).toBe(2);
});

test('what rests on records that seldom change lasts over writes, until its sign is another or all rows are', async () => {
  let times = 0;
  const ask = (sign: string) => store.keptWhile('pours', sign, () => Promise.resolve(++times));
  expect(await Promise.all([ask('a'), ask('a')])).toEqual([1, 1]);
  await store.write(() => Promise.resolve());
  expect(await ask('a')).toBe(1);
  expect([await ask('b'), await ask('b')]).toEqual([2, 2]);
  expect(await ask('a')).toBe(3);
  // Another workshop was put in the place of this one: that it looks the same says nothing.
  await store.alone(() => Promise.resolve());
  expect(await ask('a')).toBe(4);
  let tries = 0;
  const fails = () =>
    store.keptWhile('fails', '', () => (++tries < 2 ? Promise.reject(new Error('busy')) : Promise.resolve(tries)));
  await expect(fails()).rejects.toThrow('busy');
  expect(await fails()).toBe(2);
});
