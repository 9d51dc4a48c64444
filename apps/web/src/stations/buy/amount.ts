/** What was typed of an amount to buy, with a comma or a point; empty is none; null where it is no amount. */
export function amountIn(text: string): number | null {
  const value = Number(text.replace(',', '.'));
  return Number.isFinite(value) && value >= 0 ? value : null;
}
