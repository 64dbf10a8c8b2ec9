/** The map from the table (mm) to this device's picture, row by row, as the program has worked it out. */
export type Matrix = [number, number, number][];

/** How this device is calibrated: the map, and how high the rectangle on the table is, mm. */
export interface Kept {
  matrix: Matrix;
  high: number;
}

/** Where a place on the table comes to lie in the picture. */
export function onPicture(matrix: Matrix, [x, y]: readonly [number, number]): [number, number] {
  const [u, v, w] = matrix.map(([a, b, c]) => a * x + b * y + c) as [number, number, number];
  return [u / w, v / w];
}

const KEY = 'true-size';

/** What this device keeps of its calibration. */
export const keptHere = {
  read(): Kept | undefined {
    try {
      const found = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Kept | null;
      return found?.matrix.length === 3 && found.high > 0 ? found : undefined;
    } catch {
      return undefined;
    }
  },
  write(kept: Kept | undefined) {
    if (kept) localStorage.setItem(KEY, JSON.stringify(kept));
    else localStorage.removeItem(KEY);
  },
};
