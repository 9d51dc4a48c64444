import QRCode from 'qrcode';
import { memo } from 'react';

/** A QR code as squares: so many a side, dark where set (ISO/IEC 18004, error correction M). */
export function codeSquares(text: string): { size: number; dark: (x: number, y: number) => boolean } {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
  return { size: modules.size, dark: (x, y) => modules.get(y, x) === 1 };
}

/** Quiet squares all around, as the standard wants them. */
const QUIET = 4;

/** A QR code, black on white whatever the theme: it is read by a phone, and printed. */
export const Code = memo(function Code({ text, sizeM, label }: { text: string; sizeM: number; label: string }) {
  const { size, dark } = codeSquares(text);
  const runs = [];
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      if (!dark(x, y)) continue;
      const from = x;
      while (x + 1 < size && dark(x + 1, y)) x++;
      runs.push(`M${from + QUIET} ${y + QUIET}h${x - from + 1}v1h${from - x - 1}z`);
    }
  }
  const all = size + 2 * QUIET;
  return (
    <svg
      viewBox={`0 0 ${all} ${all}`}
      style={{ width: `${1000 * sizeM}mm`, height: `${1000 * sizeM}mm` }}
      shapeRendering="crispEdges"
      role="img"
      aria-label={label}
    >
      <rect width={all} height={all} fill="#fff" />
      <path d={runs.join('')} fill="#000" />
    </svg>
  );
});
