import type { Reading } from '@schmelz/core';
import { backAtReadings, simulatePot, fullShotKg } from '@schmelz/core';
import { expose } from 'comlink';
import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { ids, molds, pots, pour } from '../test/fixtures.ts';
import { fakeApi, prepareBrowser, reads, renderAt } from '../test/render.tsx';
import { tasks } from '../workers/tasks.ts';
import { MeltPage } from './lead/MeltPage.tsx';
import { WarmPage } from './molds/WarmPage.tsx';

// The worker of the browser, as a message port of this process; held back while a test wants it slow.
let hold = false;
jest.mock('../workers/start.ts', () => ({
  startFitWorker: () => {
    const { port1, port2 } = new MessageChannel();
    if (!hold) expose(tasks, port1 as never);
    return Object.assign(port2, { terminate: () => port2.close() });
  },
}));

beforeEach(() => {
  prepareBrowser();
  hold = false;
});

const channel = (id: number, place: string, name: string, count: number, source = 'evening') => ({
  id,
  place,
  name,
  source,
  count,
  firstAt: 0,
  lastAt: 7_200_000,
  lastC: 371,
});

describe('a pot is learned from a heat-up', () => {
  const truth = { powerW: 640, lossWPerK: 0.7, crucibleJPerK: 540 };
  const heatUp = (): Reading[] =>
    simulatePot({ pot: truth, leadKg: 4, fromC: 20, roomC: 20, setC: 600, seconds: 900, everyS: 10 }).points.map(
      ({ atS, temperatureC }) => ({ at: 1e12 + atS * 1000, celsius: temperatureC }),
    );
  const open = (more: Record<string, unknown> = {}) => {
    const charged = pour({ log: [{ id: 'c', at: 1, kind: 'charge', massKg: 4, potC: 20 }] as never });
    const api = fakeApi({
      'GET /channels': [channel(1, 'pot', 'pot', 91)],
      'GET /readings/raw?channel=1': heatUp(),
      'GET /pours/whole': [charged],
      ...more,
    });
    renderAt(<MeltPage />);
    return api;
  };

  test('the charge of that pour is known; power and loss are found and kept with their doubt', async () => {
    const api = open();
    expect(await screen.findByText(/A heat-up from 20 °C to \d{3} °C.* charged 4.00 kg\./)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Fit power, loss and crucible' }));
    const found = await screen.findByText(reads(/W ± \d+, losing/));
    const [watts] = /\d+/.exec(found.textContent!)!;
    expect(Math.abs(Number(watts) - truth.powerW)).toBeLessThan(20);
    expect(screen.getByText(/Given were 700 W and 0.55 W\/K/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Reckon with this' }));
    await waitFor(() => expect(api.writes()).toHaveLength(1));
    const { learned, powerW, version } = api.writes()[0]!.body as {
      learned: Record<string, number>;
      powerW: number;
      version: number;
    };
    expect([powerW, version]).toEqual([700, 1]);
    expect(learned['lossWPerK']).toBeCloseTo(truth.lossWPerK, 1);
    expect(learned['powerSdW']!).toBeGreaterThan(0);
    expect(learned['readings']).toBeGreaterThan(60);
  });

  test('a fit can be stopped, and started again', async () => {
    hold = true;
    open();
    await userEvent.click(await screen.findByRole('button', { name: 'Fit power, loss and crucible' }));
    expect(await screen.findByRole('progressbar', { name: 'Fitting' })).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Stop' }));
    expect(screen.queryByRole('progressbar')).toBeNull();
    hold = false;
    await userEvent.click(screen.getByRole('button', { name: 'Fit power, loss and crucible' }));
    expect(await screen.findByText(reads(/W ± \d+, losing/))).toBeTruthy();
  });

  test('readings without a heat-up are said to have none', async () => {
    const flat = Array.from({ length: 60 }, (_, i) => ({ at: 1e12 + 10_000 * i, celsius: 370 + Math.sin(i) }));
    open({ 'GET /readings/raw?channel=1': flat });
    expect(await screen.findByText('No heat-up is in these readings.')).toBeTruthy();
  });

  test('what was learned is reckoned with and marked; the plate is one tap away', async () => {
    const learned = { powerW: 640, powerSdW: 4, lossWPerK: 0.7, lossSdWPerK: 0.02, readings: 91, at: 1e12 };
    const api = open({ 'GET /pots': [{ ...pots[0], learned }] });
    const power = await screen.findByRole('button', { name: /^Power: 640 W/ });
    await userEvent.click(power);
    expect(await screen.findByText(/Least squares on this pot's own readings/)).toBeTruthy();
    await userEvent.keyboard('{Escape}');
    await userEvent.click(screen.getByRole('button', { name: 'Back to the plate' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ learned: null, powerW: 700 }));
  });
});

describe('a mold is learned from its shots', () => {
  const SHUT_S = 4;
  const mold = molds[0]!;
  const times = Array.from({ length: 300 }, (_, i) => ({ atS: 10 * i, temperatureC: 20 }));
  const shots = Array.from({ length: 40 }, (_, i) => ({
    atS: 60 * i + 5,
    kg: fullShotKg(mold.cavities) + 0.025,
    metalC: 371,
  }));
  const back = backAtReadings(
    { block: { bodyKg: mold.bodyKg }, closedS: SHUT_S, shots, readings: times, roomC: 20 },
    { bodyKg: mold.bodyKg, lossWPerK: 0.6, capacityShare: 1.1 },
  );
  const readings = back.map((celsius, i) => ({ at: 10_000 * i, celsius }));
  const log = [
    { id: 'c', at: 0, kind: 'charge', massKg: 3, potC: 20 },
    ...shots.map(({ atS }, i) => ({ id: `b${i}`, at: atS * 1000, kind: 'blank', moldId: ids.mold })),
  ];

  test('loss and heat capacity are found from probe and log', async () => {
    const api = fakeApi({
      'GET /channels': [channel(2, 'mold', 'back', 300)],
      'GET /readings/raw?channel=2': readings,
      [`GET /pours/whole?mold=${ids.mold}`]: [pour({ startedAt: 1000, log: log as never })],
    });
    renderAt(<WarmPage />, `/molds/${ids.mold}/warm`, '/molds/:id/warm');
    expect(await screen.findByText('300 readings with 40 shots among them.')).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Fit loss and heat capacity' }));
    expect(
      await screen.findByText(reads(/It loses 0\.(59|6|60|61) W\/K ± .* holds 1(09|10|11)(\.\d)? % ± /)),
    ).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Reckon with this' }));
    await waitFor(() => expect(api.writes()[0]?.body).toMatchObject({ version: 1, learned: { readings: 300 } }));
  });

  test('readings of another evening have none of its shots', async () => {
    fakeApi({
      'GET /channels': [channel(2, 'mold', 'back', 300)],
      'GET /readings/raw?channel=2': readings.map((each) => ({ ...each, at: each.at + 1e9 })),
      [`GET /pours/whole?mold=${ids.mold}`]: [pour({ startedAt: 1000, log: log as never })],
    });
    renderAt(<WarmPage />, `/molds/${ids.mold}/warm`, '/molds/:id/warm');
    expect(await screen.findByText('No shot of this mold falls into these readings.')).toBeTruthy();
  });
});
