import { QuantityError } from './check.ts';
import { quantityText, rangeText, saidAs } from './said.ts';

const shout = (sentence: string) => saidAs(sentence, (value, unit) => `<${value} ${unit}>`);

test('quantities in units that makers differ in are found again, and nothing else is', () => {
  expect(shout(`${quantityText(10, 'g')} or ${quantityText('-3.50', '°C')}, ${quantityText(1e-5, 'm')}.`)).toBe(
    '<10 g> or <-3.5 °C>, <0.00001 m>.',
  );
  expect(shout(rangeText(0.1, 20, 'kg'))).toBe('<0.1 kg> to <20 kg>');
  // What a maker called something, and units that all use, stay.
  for (const said of ['Ball 10 g, cavity 3 C', quantityText(90, 's'), rangeText(1, 40, 'bars'), 'copy of 2 m']) {
    expect(shout(said)).toBe(said);
  }
  expect(rangeText(1, 40, 'bars')).toBe('1 to 40 bars');
});

test('what is no number has no unit, and a refusal says its quantity so that it is found', () => {
  expect(quantityText('not known', 'kg')).toBe('not known');
  expect(shout(new QuantityError('charge', 40, 'kg', rangeText(0.1, 20, 'kg')).message)).toBe(
    'charge is <40 kg>; allowed: <0.1 kg> to <20 kg>',
  );
});
