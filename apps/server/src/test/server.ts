import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readConfig } from '../config.ts';
import { makeLog, serve, type Running } from '../server.ts';

export interface TestServer {
  url: string;
  folder: string;
  running: Running;
  /** Sends JSON (or text) and returns status and parsed answer. */
  call(
    method: string,
    path: string,
    body?: unknown,
    headers?: Record<string, string>,
  ): Promise<{ status: number; body: any; headers: Headers }>; // eslint-disable-line @typescript-eslint/no-explicit-any
  stop(): Promise<void>;
}

export const temporaryFolder = () => mkdtempSync(join(tmpdir(), 'schmelz-test-'));

const open = new Set<Running>();
// A test that fails before it stops its server must not leave one listening: the run would wait for it for ever.
afterAll(async () => {
  await Promise.all([...open].map((running) => running.stop()));
});

/** A real server on a free port with a data folder of its own. */
export async function testServer(
  env: Record<string, string> = {},
  folder = temporaryFolder(),
  log = makeLog('silent'),
): Promise<TestServer> {
  const config = readConfig({ SCHMELZ_PORT: '0', SCHMELZ_DATA: folder, SCHMELZ_WEB: folder, ...env }, folder);
  const running = await serve(config, log);
  open.add(running);
  const url = running.url.replace('0.0.0.0', '127.0.0.1');
  return {
    url,
    folder,
    running,
    async call(method, path, body, headers = {}) {
      const sent = body === undefined || typeof body === 'string' ? (body as string | undefined) : JSON.stringify(body);
      const response = await fetch(url + path, {
        method,
        headers: { ...(sent === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
        body: sent,
      });
      const text = await response.text();
      const isJson = response.headers.get('content-type')?.includes('json');
      return { status: response.status, body: isJson && text ? JSON.parse(text) : text, headers: response.headers };
    },
    async stop() {
      open.delete(running);
      await running.stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** One mold of five cavities, lead, two hooks, a powder, a recipe and two products, made over the API. */
export async function smallWorkshop({ call }: TestServer) {
  const make = async (path: string, body: unknown) => {
    const made = await call('POST', `/api/${path}`, body);
    if (made.status !== 201) throw new Error(JSON.stringify(made.body));
    return made.body.id as string;
  };
  const cavity = (position: number, grams: number, hookSize: string) => ({
    position,
    style: 'ball',
    nominalMassKg: grams / 1000,
    hookSize,
    eyeAngleDeg: 60,
    condition: 'good',
  });
  const moldId = await make('molds', {
    name: 'Five',
    bodyKg: 0.5,
    cavities: [
      cavity(1, 10, '2/0'),
      cavity(2, 10, '2/0'),
      cavity(3, 10, '2/0'),
      cavity(4, 14, '3/0'),
      cavity(5, 14, '3/0'),
    ],
  });
  const hook = (size: string) => ({
    kind: 'hook',
    name: `Hook ${size}`,
    note: '',
    metalId: null,
    powder: null,
    hook: { size, wire: 'standard', eyeAngleDeg: 60, plating: 'bronze' },
    limitC: 175,
  });
  const leadId = await make('materials', {
    kind: 'lead',
    name: 'Lead',
    note: '',
    metalId: 'soft-lead',
    hook: null,
    powder: null,
  });
  const hookIds = [await make('materials', hook('2/0')), await make('materials', hook('3/0'))];
  const powderId = await make('materials', {
    kind: 'powder',
    name: 'White',
    note: '',
    metalId: null,
    hook: null,
    powder: { colour: '#eeeeee', gloss: 'gloss', specificGravity: 1.6, label: [{ metalC: 177, seconds: 1200 }] },
  });
  const receive = (id: string, quantity: number, priceMinor: number) =>
    call('POST', `/api/materials/${id}/receipts`, { quantity, priceMinor, on: '2026-01-05', lot: '' });
  await receive(leadId, 20, 5000);
  await receive(hookIds[0]!, 100, 1600);
  await receive(hookIds[1]!, 100, 1800);
  await receive(powderId, 0.225, 1400);
  const recipeId = await make('recipes', {
    name: 'White',
    eyeColour: null,
    layers: [{ powderId, zone: 'whole', coats: 1 }],
  });
  const programs = await call('GET', '/api/bake-programs');
  const bakeProgramId = programs.body[0].id as string;
  const product = (name: string, grams: number, hookId: string) =>
    make('products', {
      name,
      style: 'ball',
      nominalMassKg: grams / 1000,
      hookId,
      recipeId,
      bakeProgramId,
      priceMinor: 200,
    });
  const productIds = [await product('Ten', 10, hookIds[0]!), await product('Fourteen', 14, hookIds[1]!)];
  const pots = await call('GET', '/api/pots');
  return { moldId, leadId, hookIds, powderId, recipeId, bakeProgramId, productIds, potId: pots.body[0].id as string };
}
