import jsQR from 'jsqr';
import { codeSquares } from './Code.tsx';

// Read back by an outside library; ISO/IEC 18004 wants four quiet squares around a code.
test.each(['http://127.0.0.1:4301/trace/184', 'http://shed.local/trace/12345', 'x'.repeat(200)])(
  '%s is read back',
  (text) => {
    const { size, dark } = codeSquares(text);
    const [quiet, scale] = [4, 3];
    const side = (size + 2 * quiet) * scale;
    const pixels = new Uint8ClampedArray(4 * side * side).fill(255);
    for (let y = 0; y < side; y++) {
      for (let x = 0; x < side; x++) {
        const [col, row] = [Math.floor(x / scale) - quiet, Math.floor(y / scale) - quiet];
        const inside = col >= 0 && row >= 0 && col < size && row < size;
        if (inside && dark(col, row)) pixels.fill(0, 4 * (y * side + x), 4 * (y * side + x) + 3);
      }
    }
    expect(jsQR(pixels, side, side)?.data).toBe(text);
  },
);
