import type { Known } from '../api/client';

/** What a shrinkage rests on. */
export const restsOn: Record<Known['basis'], string> = {
  swatch: 'from the washed swatch',
  limit: 'the swatch was washed less hard than the length will be: a lower limit only',
  history: 'from your own tests of like cloth; a swatch of this one would tell more',
  range: 'a planning range of common practice: wash a swatch to know',
  raw: 'nothing shrinks before it is cut',
  none: '',
};
