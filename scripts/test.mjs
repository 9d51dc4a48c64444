// npm test: everything that must hold, in order, and one line that adds up what the runners reported.
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { bin, capture, ensureAnswers, ensureInstalled, root, run } from './lib.mjs';

ensureInstalled();
ensureAnswers();

// Steps run in process groups of their own: whoever stops this one stops them too.
for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => process.exit(1));

const CHROMIUM = process.env.CHROMIUM_PATH || '/usr/bin/chromium';

/** Playwright drives Debian's own Chromium; where apt may, it is installed. */
function ensureChromium() {
  if (existsSync(CHROMIUM)) return true;
  console.log("Installing Debian's Chromium for the browser tests …");
  const root = process.getuid?.() === 0;
  const apt = (...args) => run(root ? 'apt-get' : 'sudo', root ? args : ['-n', 'apt-get', ...args]);
  try {
    if (apt('update') === 0 && apt('install', '-y', 'chromium') === 0 && existsSync(CHROMIUM)) return true;
  } catch (error) {
    console.error(error.message);
  }
  console.error(
    'The browser tests need Chromium, and it could not be installed here. Run:\n' +
      '  sudo apt-get update && sudo apt-get install -y chromium\n' +
      'or set CHROMIUM_PATH to one that is installed.',
  );
  return false;
}

const reports = join(root, '.cache', 'reports');
rmSync(reports, { recursive: true, force: true });
mkdirSync(reports, { recursive: true });
const total = { passed: 0, failed: 0 };
let broken = false;
/** What failed and how, said once more at the end: a log that is cut in its middle still has it. */
const failures = [];

/** A step without cases of its own counts as one. */
async function check(name, program, args, options) {
  console.log(`\n— ${name}`);
  const { status, output } = await capture(program, args, options);
  if (status === 0) total.passed += 1;
  else {
    total.failed += 1;
    broken = true;
    failures.push(`${name}:\n${output.slice(-2000)}`);
  }
  return status === 0;
}

/** A runner that writes a report of its cases; a runner that fails without a failed case counts as one failure. */
async function suite(name, program, args, options, read) {
  console.log(`\n— ${name}`);
  const { status } = await capture(program, args, options);
  let counts = { passed: 0, failed: 0 };
  try {
    counts = read();
  } catch (error) {
    console.error(`${name} left no report: ${error.message}`);
  }
  if (status !== 0 && counts.failed === 0) counts.failed = 1;
  if (status === 0 && counts.passed === 0) counts.failed += 1; // ran nothing: that is no success
  total.passed += counts.passed;
  total.failed += counts.failed;
  if (counts.failed > 0) broken = true;
}

/** Failed cases of a Jest report, with what was said. */
const failedCases = ({ testResults }) =>
  testResults.flatMap(({ name, message, assertionResults }) => {
    const cases = assertionResults.filter(({ status }) => status === 'failed');
    const said = cases.map(
      ({ fullName, failureMessages }) => `${fullName}\n${failureMessages.join('\n').slice(0, 1500)}`,
    );
    return (said.length ? said : message ? [message.slice(0, 1500)] : []).map((text) => `${name}: ${text}`);
  });
/** Failed journeys of a Playwright report, likewise. */
const failedIn = ({ suites = [], specs = [], title }) => [
  ...specs
    .filter(({ ok }) => !ok)
    .map((spec) => {
      const errors = spec.tests.flatMap(({ results }) => results.flatMap(({ errors: said }) => said));
      return `${title}: ${spec.title}\n${(errors[0]?.message ?? 'no message').slice(0, 1500)}`;
    }),
  ...suites.flatMap(failedIn),
];

const json = (name) => JSON.parse(readFileSync(join(reports, name), 'utf8'));

await check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.'], { limitMinutes: 5 });
await check('lint', bin('eslint'), ['.', '--max-warnings', '0'], { limitMinutes: 10 });
await check('types', bin('tsc'), ['--build'], { limitMinutes: 10 });
await suite(
  'Jest',
  bin('jest'),
  ['--testTimeout', '60000', '--maxWorkers', '2', '--json', '--outputFile', join(reports, 'jest.json')],
  { limitMinutes: 25 },
  () => {
    const report = json('jest.json');
    const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = report;
    failures.push(...failedCases(report));
    return { passed: numPassedTests, failed: numFailedTests + numRuntimeErrorTestSuites };
  },
);
const built = await check('build', process.execPath, [join(root, 'scripts/build.mjs')], { limitMinutes: 10 });
if (!built) console.error('The journeys need a build; they were not run.');
else if (!ensureChromium()) {
  total.failed += 1;
  broken = true;
} else {
  const env = { ...process.env, CHROMIUM_PATH: CHROMIUM, PLAYWRIGHT_JSON_OUTPUT_NAME: join(reports, 'journeys.json') };
  await suite(
    'journeys',
    bin('playwright'),
    ['test', '--config', 'e2e/playwright.config.ts', '--reporter', 'list,json'],
    { env, limitMinutes: 30 },
    () => {
      const { stats, suites } = json('journeys.json');
      failures.push(...suites.flatMap(failedIn));
      return { passed: stats.expected, failed: stats.unexpected };
    },
  );
}

if (failures.length) console.log(`\n— failed\n${failures.join('\n\n')}`);
console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(broken || total.failed > 0 ? 1 : 0);
