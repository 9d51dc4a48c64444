// Shared by the commands of package.json: running programs, and doing again only what is out of date.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = resolve(dirname(fileURLToPath(import.meta.url)), '..');
const cache = join(root, '.cache');

/** Runs a program to its end and returns its exit status; its output goes straight to the terminal. */
export function run(program, args, options = {}) {
  const done = spawnSync(program, args, { cwd: root, stdio: 'inherit', ...options });
  if (done.error) throw done.error;
  return done.status ?? 1;
}

/** Like {@link run}, but ends this process when the program fails. */
export function must(program, args, options) {
  const status = run(program, args, options);
  if (status !== 0) process.exit(status);
}

export const bin = (name) => join(root, 'node_modules', '.bin', name);

/**
 * Runs a program, passes its output on, and returns status and output. One that takes longer than `limitMinutes` is
 * ended with all that it started, and has failed.
 */
export function capture(program, args, { limitMinutes, ...options } = {}) {
  return new Promise((resolvePromise, reject) => {
    // A process group of its own, so that what it has started ends with it.
    const child = spawn(program, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'], detached: true, ...options });
    const end = () => {
      try {
        process.kill(-child.pid, 'SIGKILL');
      } catch (error) {
        if (error.code !== 'ESRCH') throw error; // it has just ended by itself
      }
    };
    const tooLong = () => {
      console.error(`${program} was ended: it took longer than ${limitMinutes} minutes.`);
      end();
    };
    const limit = limitMinutes && setTimeout(tooLong, limitMinutes * 60_000);
    process.once('exit', end);
    let output = '';
    for (const [stream, to] of [
      [child.stdout, process.stdout],
      [child.stderr, process.stderr],
    ]) {
      stream.on('data', (data) => {
        output += data;
        to.write(data);
      });
    }
    child.on('error', reject);
    child.on('close', (status) => {
      clearTimeout(limit);
      process.off('exit', end);
      resolvePromise({ status: status ?? 1, output });
    });
  });
}

/** Sources below a folder: nothing that is a test, or that a build has made. */
export function files(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (['node_modules', 'dist', '.cache', 'test', ...MADE].includes(entry.name)) return [];
    if (entry.name.includes('.test.') || entry.name.endsWith('.tsbuildinfo')) return [];
    const path = join(folder, entry.name);
    return entry.isDirectory() ? files(path) : [path];
  });
}

/** Made from other sources on the way, and none itself. */
const MADE = ['answers.json'];

/**
 * Fingerprint of files by their place in the project and what is in them: quick enough to ask at every start, and the
 * same wherever the folder was moved or copied to.
 */
export function fingerprint(paths, from = root) {
  const hash = createHash('sha256');
  for (const path of [...paths].sort()) {
    hash.update(`${relative(from, path)} `);
    hash.update(readFileSync(path));
    hash.update('\n');
  }
  return hash.digest('hex');
}

/** Calls `work` when `print` differs from what it was when `work` last succeeded. */
function whenChanged(name, print, products, work) {
  const stamp = join(cache, `${name}.stamp`);
  const fresh =
    existsSync(stamp) && readFileSync(stamp, 'utf8') === print && products.every((path) => existsSync(path));
  if (fresh) return;
  work();
  mkdirSync(cache, { recursive: true });
  writeFileSync(stamp, print);
}

/** Installs the packages of the lock file when they are not there or the lock file has changed. */
export function ensureInstalled() {
  const lock = join(root, 'package-lock.json');
  const print = createHash('sha256').update(readFileSync(lock)).digest('hex');
  const native = join(root, 'node_modules', 'sqlite3', 'build', 'Release', 'node_sqlite3.node');
  whenChanged('install', print, [native], () => {
    console.log('Installing packages; the first time SQLite is compiled, which takes a few minutes …');
    // sqlite3 6 has no prebuilt binary to fetch; asking for one only waits for the network to say no.
    const env = { ...process.env, npm_config_build_from_source: 'sqlite3' };
    must('npm', ['ci', '--no-audit', '--no-fund'], { env });
  });
}

/** Makes the schemas of all answers when a type that they come from may have changed. */
export function ensureAnswers() {
  const folders = ['packages/core/src', 'packages/contract/src', 'apps/server/src/calculations'];
  const sources = folders.flatMap((folder) => files(join(root, folder)));
  const rest = ['package-lock.json', 'scripts/answers.mjs', 'apps/server/src/openapi/answer-types.ts'];
  const product = join(root, 'apps/server/src/openapi/answers.json');
  whenChanged('answers', fingerprint([...sources, ...rest.map((name) => join(root, name))]), [product], () => {
    must(bin('tsc'), ['--build', 'packages/core', 'packages/contract']);
    must(process.execPath, [join(root, 'scripts/answers.mjs')]);
  });
}

/** Compiles the server side and bundles the application when a source has changed. */
export function ensureBuilt() {
  const sources = ['packages', 'apps'].flatMap((folder) => files(join(root, folder)));
  const config = ['package-lock.json', 'tsconfig.base.json'].map((name) => join(root, name));
  const products = [join(root, 'apps/server/dist/main.js'), join(root, 'apps/web/dist/index.html')];
  whenChanged('build', fingerprint([...sources, ...config]), products, () => {
    console.log('Building …');
    must(process.execPath, [join(root, 'scripts/build.mjs')]);
  });
}
