import type { Seam } from '../api/client';

/** A sign beside the colour, so that nothing is told by colour alone. */
export const SIGNS: Record<Seam['verdict'], string> = {
  meets: '=',
  nearly: '≈',
  misses: '≠',
  'not asked': '·',
  unknown: '?',
};

export const CLASSES: Record<Seam['verdict'], string> = {
  meets: 'meets',
  nearly: 'nearly',
  misses: 'misses',
  'not asked': 'not-asked',
  unknown: 'unknown',
};

export const called = (seam: Seam) => seam.name || `${seam.a.piece} to ${seam.b.piece}`;

/** Verdict and chance of a seam in one line. */
export function Verdict({ seam }: { seam: Seam }) {
  return (
    <span className={`verdict ${CLASSES[seam.verdict]}`}>
      <b aria-hidden="true">{SIGNS[seam.verdict]}</b> {seam.told}
      {seam.chance !== null &&
        seam.verdict !== 'not asked' &&
        `; comes out within the limit ${Math.round(seam.chance * 100)} times in 100`}
    </span>
  );
}
