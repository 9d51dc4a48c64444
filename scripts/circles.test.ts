import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';

// Files that need each other are held by the linter; folders that do are held here.
const CORE = join(__dirname, '..', 'packages', 'core', 'src');

/** Which folders of the core each of them imports from. */
function folders(): Map<string, Set<string>> {
  const needs = new Map<string, Set<string>>();
  const sources = readdirSync(CORE, { recursive: true, encoding: 'utf8' }).filter(
    (name) => name.endsWith('.ts') && name.includes('/') && !/\.test\.|^test\//.test(name),
  );
  for (const name of sources) {
    const own = dirname(name);
    const known = needs.get(own) ?? new Set<string>();
    for (const [, path] of readFileSync(join(CORE, name), 'utf8').matchAll(/from '(\.[^']+)'/g)) {
      const folder = dirname(relative(CORE, join(CORE, own, path!)));
      if (folder !== own) known.add(folder);
    }
    needs.set(own, known);
  }
  return needs;
}

/** A way from a folder back to itself; null where there is none. */
function circleOf(needs: ReadonlyMap<string, ReadonlySet<string>>): string[] | null {
  const done = new Set<string>();
  const walk = (folder: string, way: readonly string[]): string[] | null => {
    if (way.includes(folder)) return [...way.slice(way.indexOf(folder)), folder];
    if (done.has(folder)) return null;
    for (const next of needs.get(folder) ?? []) {
      const found = walk(next, [...way, folder]);
      if (found) return found;
    }
    done.add(folder);
    return null;
  };
  for (const folder of needs.keys()) {
    const found = walk(folder, []);
    if (found) return found;
  }
  return null;
}

test('no folder of the core needs one that needs it', () => {
  const needs = folders();
  expect(needs.size).toBeGreaterThan(20);
  expect(circleOf(needs)).toBeNull();
});

test('a circle is found where there is one', () => {
  const needs = new Map([
    ['line', new Set(['job', 'plan'])],
    ['job', new Set<string>()],
    ['plan', new Set(['job', 'paint'])],
    ['paint', new Set(['plan'])],
  ]);
  expect(circleOf(needs)).toEqual(['plan', 'paint', 'plan']);
});
