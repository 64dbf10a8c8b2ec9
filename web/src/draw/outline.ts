export type Point = [number, number] | readonly number[];

/** SVG points of an outline in millimetres; y is turned up, as cloth lies face up. */
export function points(outline: readonly Point[], scale: number, x0: number, y0: number): string {
  return outline.map(([x = 0, y = 0]) => `${(x0 + x * scale).toFixed(2)},${(y0 - y * scale).toFixed(2)}`).join(' ');
}

export function bounds(outline: readonly Point[]): { x0: number; y0: number; x1: number; y1: number } {
  const xs = outline.map((p) => p[0] ?? 0);
  const ys = outline.map((p) => p[1] ?? 0);
  return { x0: Math.min(...xs), y0: Math.min(...ys), x1: Math.max(...xs), y1: Math.max(...ys) };
}
