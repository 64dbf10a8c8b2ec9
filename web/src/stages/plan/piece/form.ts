import type { Draft, Length, Outline, Telling } from '../../../api/client';

/** A length in a field: what is typed, and the millimetres behind it while nothing else was typed. */
export type Field = { text: string; mm?: number | undefined };
export const field = (length: Length): Field => ({ text: length.text, mm: length.mm });
export const typed = (text: string): Field => ({ text });
/** Sent exactly where it is known, else as typed. */
export const sent = (f: Field): string | number => f.mm ?? f.text;

export type Corner = '' | 'left' | 'right' | 'both';
export type Station = { along: Field; left: Field; right: Field; corners: Corner };
export type FormPoint = {
  key: number;
  along: Field;
  across: Field;
  smooth: boolean;
  straight: boolean;
  allowance: Field | null;
  ends: 'mitre' | 'square' | 'folded';
};
export type TapeRow = { first: Field; second: Field; side: 'left' | 'right'; smooth: boolean };
export type FormMark = {
  kind: Draft['marks'][number]['kind'];
  name: string;
  places: { along: Field; across: Field }[];
};
/** A notch so far along from a point, or put at a place and measured from there by the server. */
export type FormNotch = { after: number; at: Field; double: boolean; place?: [number, number] | undefined };
export type Way = 'stations' | 'points' | 'tapes' | 'measures' | 'another';

export type Form = {
  name: string;
  way: Way;
  rows: Station[];
  smooth: boolean;
  points: FormPoint[];
  apart: Field;
  tapes: TapeRow[];
  measures: {
    shape: 'rectangle' | 'bias_strip' | 'circle' | 'ring';
    first: Field;
    second: Field;
    share: string;
    panels: string;
  };
  another: {
    piece_id: number;
    change: 'same' | 'mirrored' | 'lengthened' | 'facing';
    line: Field;
    by: Field;
    edge: number;
    width: Field;
    upto: Field;
  };
  arrow: { tail: { along: Field; across: Field }; head: { along: Field; across: Field } } | null;
  included: Field;
  notches: FormNotch[] | null;
  marks: FormMark[] | null;
  copies: string;
  pair: boolean;
  on_fold: boolean;
  grain: string;
  one_way: boolean;
  seam: Field;
};

const none = (): Field => ({ text: '' });
export const noStation = (): Station => ({ along: none(), left: none(), right: none(), corners: '' });
export const noTape = (like?: TapeRow): TapeRow => ({
  first: none(),
  second: none(),
  side: like?.side ?? 'left',
  smooth: like?.smooth ?? false,
});
export const noPoint = (like?: FormPoint): FormPoint => ({
  key: 0,
  along: none(),
  across: none(),
  smooth: like?.smooth ?? false,
  straight: false,
  allowance: null,
  ends: 'mitre',
});

export const blank = (): Form => ({
  name: '',
  way: 'stations',
  rows: [{ ...noStation(), along: typed('0') }, noStation()],
  smooth: true,
  points: [noPoint(), noPoint(), noPoint()],
  apart: none(),
  tapes: [noTape(), noTape(), noTape()],
  measures: { shape: 'rectangle', first: none(), second: none(), share: '1', panels: '2' },
  another: { piece_id: 0, change: 'mirrored', line: none(), by: none(), edge: 0, width: none(), upto: none() },
  arrow: null,
  included: typed('0'),
  notches: null,
  marks: null,
  copies: '1',
  pair: false,
  on_fold: false,
  grain: 'lengthwise',
  one_way: false,
  seam: typed('0'),
});

/** The points of a piece that was drawn, to be changed one by one. */
export function pointsOf(outline: Outline): Pick<Form, 'way' | 'points' | 'arrow' | 'included' | 'notches' | 'marks'> {
  const place = (p: { along: Length; across: Length }) => ({ along: field(p.along), across: field(p.across) });
  const [tail, head] = outline.arrow_told;
  return {
    way: 'points',
    points: outline.points.map((p) => ({
      key: p.key,
      ...place(p),
      smooth: p.smooth,
      straight: p.straight,
      allowance: p.allowance ? field(p.allowance) : null,
      ends: p.ends,
    })),
    arrow: tail && head ? { tail: place(tail), head: place(head) } : null,
    included: field(outline.included),
    notches: outline.notches.map((n) => ({ after: n.after, at: field(n.at), double: n.double })),
    marks: outline.marks.map((m) => ({ kind: m.kind, name: m.name, places: m.places.map(place) })),
  };
}

const filled = (f: Field) => f.text.trim() !== '';
const place = (p: { along: Field; across: Field }) => ({ along: sent(p.along), across: sent(p.across) });

/** The rows of a form that say something, and where each stands among all. */
export function said(form: Form): number[] {
  const rows: boolean[] =
    form.way === 'stations'
      ? form.rows.map((r) => filled(r.along) || filled(r.left) || (!form.on_fold && filled(r.right)))
      : form.way === 'points'
        ? form.points.map((p) => filled(p.along) || filled(p.across))
        : form.way === 'tapes'
          ? form.tapes.map((t) => filled(t.first) || filled(t.second))
          : [];
  return rows.flatMap((there, i) => (there ? [i] : []));
}

/** How the piece is told, as it is sent; nothing while too little is there. */
export function telling(form: Form): Telling | undefined {
  const rows = said(form);
  const shared = {
    on_fold: form.on_fold,
    included: filled(form.included) ? sent(form.included) : 0,
    ...(form.arrow
      ? { arrow: { tail: place(form.arrow.tail), head: place(form.arrow.head) } }
      : { no_arrow: form.way === 'points' }),
    ...(form.notches
      ? {
          notches: form.notches.map((n) =>
            n.place ? { place: n.place, double: n.double } : { after: n.after, at: sent(n.at), double: n.double },
          ),
        }
      : {}),
    ...(form.marks
      ? { marks: form.marks.map((m) => ({ kind: m.kind, name: m.name, places: m.places.map(place) })) }
      : {}),
  };
  switch (form.way) {
    case 'stations':
      if (rows.length < 2) return undefined;
      return {
        ...shared,
        smooth: form.smooth,
        stations: rows.map((i) => {
          const r = form.rows[i]!;
          // a side that was left empty was not read there, once the other was
          const side = (own: Field, other: Field) => (filled(own) || !filled(other) ? sent(own) : null);
          return {
            along: sent(r.along),
            left: form.on_fold ? sent(r.left) : side(r.left, r.right),
            right: form.on_fold ? 0 : side(r.right, r.left),
            corners: r.corners,
          };
        }),
      } as Telling;
    case 'points':
      if (rows.length < 3) return undefined;
      return {
        ...shared,
        points: rows.map((i) => {
          const p = form.points[i]!;
          return {
            key: p.key,
            ...place(p),
            smooth: p.smooth,
            straight: p.straight,
            allowance: p.allowance && filled(p.allowance) ? sent(p.allowance) : null,
            ends: p.ends,
          };
        }),
      } as Telling;
    case 'tapes':
      if (rows.length < 3 || !filled(form.apart)) return undefined;
      return {
        ...shared,
        tapes: {
          apart: sent(form.apart),
          points: rows.map((i) => ({
            ...form.tapes[i]!,
            first: sent(form.tapes[i]!.first),
            second: sent(form.tapes[i]!.second),
          })),
        },
      } as Telling;
    case 'measures': {
      const m = form.measures;
      if (!filled(m.first) || (m.shape !== 'circle' && !filled(m.second))) return undefined;
      return {
        ...shared,
        measures: {
          shape: m.shape,
          first: sent(m.first),
          second: m.shape === 'circle' ? 0 : sent(m.second),
          share: Number(m.share),
          panels: /^\d+$/.test(m.panels.trim()) ? Number(m.panels) : 0,
        },
      } as Telling;
    }
    case 'another': {
      const a = form.another;
      if (
        !a.piece_id ||
        (a.change === 'lengthened' && !(filled(a.line) && filled(a.by))) ||
        (a.change === 'facing' && !filled(a.width))
      )
        return undefined;
      const or0 = (f: Field) => (filled(f) ? sent(f) : 0);
      return {
        ...shared,
        another: {
          piece_id: a.piece_id,
          change: a.change,
          line: or0(a.line),
          by: or0(a.by),
          edge: a.edge,
          width: or0(a.width),
          upto: filled(a.upto) ? sent(a.upto) : null,
        },
      } as Telling;
    }
  }
}

/** A form that was half filled in is found again after a reload, whatever was added to forms since. */
export function revived(text: string | null, start: Form): Form {
  try {
    const kept = JSON.parse(text ?? 'null') as Partial<Form> | null;
    if (kept === null || !Array.isArray(kept.points ?? [])) return start;
    return { ...start, ...kept };
  } catch {
    return start;
  }
}
