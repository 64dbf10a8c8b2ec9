/** Under what every answer is kept. The first word says what it is; of a garment, its number follows, and through which of its cloths it is seen. */
type Through = number | 'main';

export const keys = {
  settings: ['settings'],
  choices: ['choices'],
  news: ['news'],
  projects: ['projects'],
  /** one garment; without the cloth: through whichever */
  project: (id: number, through?: Through) => (through === undefined ? ['project', id] : ['project', id, through]),
  sheet: (id: number, through: Through) => ['project', id, through, 'sheet'],
  pages: (id: number, through: Through, piece: number, paper: string, enlarged: boolean) => [
    'project',
    id,
    through,
    'pages',
    piece,
    paper,
    enlarged,
  ],
  shrink: (id: number, through: Through) => ['shrink', id, through],
  lay: (id: number, through?: Through) => (through === undefined ? ['lay', id] : ['lay', id, through]),
  match: (id: number, through: Through) => ['match', id, through],
  /** a seam as one will see it, for the lay that stands */
  seam: (id: number, through: Through, seam: number, couple: number, atCut: boolean) => [
    'match',
    id,
    through,
    'seam',
    seam,
    couple,
    atCut,
  ],
  true: (id: number, through: Through) => ['true', id, through],
  cut: (id: number, through: Through, part: string = 'all') => ['cut', id, through, part],
  pairing: ['pairing'],
  log: (id: number | null) => ['log', id],
  outcomes: (id: number, through: Through) => ['outcomes', id, through],
  why: (id: number, through: Through, complaint: string, of: number | undefined) => ['why', id, through, complaint, of],
  teaches: ['teaches'],
  undo: (list: number | null) => ['undo', list],
  job: (id: number) => ['job', id],
  cloth: (id: number) => ['cloth', id],
  cupboard: (words: string) => ['cupboard', words],
  washday: (brief: boolean) => ['washday', brief],
  /** one part of Buy, and what beside the garment and its cloth it is asked for */
  buy: (id: number, through: Through, part: string, ...of: unknown[]) => ['buy', id, through, part, ...of],
  convert: (length: string) => ['convert', length],
} as const;

/** All answers of one kind, whatever they are of. */
export const every = (
  kind:
    | 'cloth'
    | 'cupboard'
    | 'project'
    | 'projects'
    | 'shrink'
    | 'washday'
    | 'lay'
    | 'log'
    | 'undo'
    | 'match'
    | 'outcomes'
    | 'why'
    | 'teaches',
) => ({ queryKey: [kind] });
