// Compiles core, contract and server with TypeScript, bundles the application with Vite.
import { join } from 'node:path';
import { bin, ensureAnswers, must, root } from './lib.mjs';

ensureAnswers();
must(bin('tsc'), ['--build', 'packages/core', 'packages/worlds', 'packages/contract', 'apps/server']);
must(bin('vite'), ['build', '--logLevel', 'warn'], { cwd: join(root, 'apps/web') });
