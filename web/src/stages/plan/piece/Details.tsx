import { Button, Checkbox, Input } from 'antd';
import type { Outline } from '../../../api/client';
import { type Form, type FormMark, type FormNotch, typed } from './form';
import { type About, Cell, Labelled, type Set } from './Tables';

type Props = {
  form: Form;
  set: Set;
  about: About;
  outline: Outline | undefined;
  /** point by point, as it is drawn now */ asPoints: () => Partial<Form>;
};
const ENDS = [
  ['mitre', 'meets its neighbour'],
  ['square', 'cut square'],
  ['folded', 'as a hem folds up'],
] as const;
const KINDS = ['point', 'dart', 'fold', 'centre', 'buttons', 'level'] as const;
/** What each kind of mark is called, and its places in the order they are told. */
export const NAMES: Record<FormMark['kind'] | 'notch', string> = {
  notch: 'a notch',
  point: 'a point',
  dart: 'a dart',
  fold: 'a fold line',
  centre: 'a centre line',
  buttons: 'a button line',
  level: 'a height',
};
export const PLACES: Record<FormMark['kind'] | 'notch', string[]> = {
  notch: [''],
  point: [''],
  dart: ['one foot', 'its tip', 'other foot'],
  fold: ['from', 'to'],
  centre: ['from', 'to'],
  buttons: ['from', 'to'],
  level: [''],
};

/** Each edge with its length along the seam and its own allowance. */
export function EdgesPart({ form, set, about, outline, asPoints }: Props) {
  if (!outline) return null;
  const change = (first: number, part: object) => {
    const base = { ...form, ...asPoints() };
    set({ ...base, points: base.points.map((p) => (p.key === first ? { ...p, ...part } : p)) });
  };
  return (
    <details className="piece-part">
      <summary>Edges and their allowances ({outline.edges.length})</summary>
      <div className="two">
        <Labelled
          id="piece-included"
          label="Allowance inside the drawn line"
          value={form.included}
          wrong={about('included')}
          onType={(included) => set({ included })}
        />
        <p className="quiet">0: the line you told is the seam line, or nothing is known of it.</p>
      </div>
      <table className="station-table edges-table">
        <thead>
          <tr>
            <th>points</th>
            <th>along the seam</th>
            <th>own allowance</th>
            <th>at its corners</th>
          </tr>
        </thead>
        <tbody>
          {outline.edges.map((edge) => {
            const at = outline.points.findIndex((p) => p.key === edge.first);
            const of = outline.points[at]!;
            const own = form.points.find((p) => p.key === edge.first);
            return (
              <tr key={edge.number}>
                <th scope="row">{edge.name}</th>
                <td>{edge.seam.text}</td>
                {edge.on_fold ? (
                  <td colSpan={2}>on the fold: none</td>
                ) : (
                  <>
                    <td>
                      <Cell
                        label={`edge ${edge.name}, allowance`}
                        placeholder={edge.allowance.text}
                        wrong={about(`points.${at}.allowance`)}
                        value={
                          own && form.way === 'points'
                            ? (own.allowance ?? { text: '' })
                            : { text: of.allowance?.text ?? '' }
                        }
                        onType={(f) => change(edge.first, { allowance: f.text.trim() ? f : null })}
                      />
                    </td>
                    <td>
                      <select
                        className="choice"
                        aria-label={`edge ${edge.name}, at its corners`}
                        value={own?.ends ?? of.ends}
                        onChange={(e) => change(edge.first, { ends: e.target.value })}
                      >
                        {ENDS.map(([value, label]) => (
                          <option key={value} value={value}>
                            {label}
                          </option>
                        ))}
                      </select>
                    </td>
                  </>
                )}
              </tr>
            );
          })}
        </tbody>
      </table>
    </details>
  );
}

/** Notches along the edge, points, darts and lines. */
export function MarksPart({
  form,
  set,
  about,
  outline,
  asPoints,
  onDraw,
}: Props & { onDraw: (kind: FormMark['kind'] | 'notch') => void }) {
  if (!outline) return null;
  const whole = () => ({ ...form, ...asPoints() });
  const notches = form.notches ?? [];
  const marks = form.marks ?? [];
  const setNotch = (i: number, part: Partial<FormNotch>) =>
    set({ notches: notches.map((n, k) => (k === i ? { ...n, ...part } : n)) });
  const setMark = (i: number, part: Partial<FormMark>) =>
    set({ marks: marks.map((m, k) => (k === i ? { ...m, ...part } : m)) });
  const addNotch = () => {
    const base = whole();
    set({
      ...base,
      notches: [...(base.notches ?? []), { after: outline.edges[0]?.first ?? 0, at: typed('0'), double: false }],
    });
  };
  const addMark = (kind: FormMark['kind']) => {
    const base = whole();
    set({
      ...base,
      marks: [
        ...(base.marks ?? []),
        { kind, name: '', places: PLACES[kind].map(() => ({ along: typed('0'), across: typed('0') })) },
      ],
    });
  };
  return (
    <details className="piece-part">
      <summary>Notches, darts and lines ({notches.length + marks.length})</summary>
      {notches.map((n, i) => (
        <div key={i} className="mark-row">
          <span>Notch, after point</span>
          <select
            className="choice"
            aria-label={`notch ${i + 1}, after point`}
            value={n.after}
            onChange={(e) => setNotch(i, { after: Number(e.target.value) })}
          >
            {outline.points.map((p, k) => (
              <option key={p.key} value={p.key}>
                {k + 1}
              </option>
            ))}
          </select>
          <Cell
            label={`notch ${i + 1}, along the edge`}
            value={n.at}
            wrong={about(`notches.${i}.at`) ?? about(`notches.${i}`)}
            onType={(at) => setNotch(i, { at })}
          />
          <Checkbox checked={n.double} onChange={(e) => setNotch(i, { double: e.target.checked })}>
            double
          </Checkbox>
          <Button
            type="text"
            aria-label={`Remove notch ${i + 1}`}
            onClick={() => set({ notches: notches.filter((_, k) => k !== i) })}
          >
            remove
          </Button>
        </div>
      ))}
      {marks.map((m, i) => (
        <div key={i} className="mark-row">
          <span>{NAMES[m.kind]}</span>
          <Input
            data-go
            aria-label={`mark ${i + 1}, name`}
            value={m.name}
            placeholder={m.kind === 'level' ? 'bust, waist, hip' : 'name, if any'}
            status={about(`marks.${i}.name`) ? 'error' : undefined}
            onChange={(e) => setMark(i, { name: e.target.value })}
          />
          {m.places.map((p, k) => {
            const what = PLACES[m.kind][k];
            const put = (part: object) =>
              setMark(i, { places: m.places.map((q, n) => (n === k ? { ...q, ...part } : q)) });
            return (
              <span key={k} className="mark-place">
                {what && <small>{what}</small>}
                <Cell
                  label={`mark ${i + 1}${what && `, ${what}`}, along`}
                  value={p.along}
                  wrong={about(`marks.${i}.places.${k}.along`)}
                  placeholder="along"
                  onType={(along) => put({ along })}
                />
                {m.kind !== 'level' && (
                  <Cell
                    label={`mark ${i + 1}${what && `, ${what}`}, across`}
                    value={p.across}
                    wrong={about(`marks.${i}.places.${k}.across`)}
                    placeholder="to the left"
                    onType={(across) => put({ across })}
                  />
                )}
              </span>
            );
          })}
          <Button
            type="text"
            aria-label={`Remove mark ${i + 1}`}
            onClick={() => set({ marks: marks.filter((_, k) => k !== i) })}
          >
            remove
          </Button>
        </div>
      ))}
      <p className="commands">
        <Button onClick={addNotch}>A notch</Button>
        <select
          className="choice add-mark"
          aria-label="Add a mark"
          value=""
          onChange={(e) => addMark(e.target.value as 'point')}
        >
          <option value="" disabled>
            another mark
          </option>
          {KINDS.map((kind) => (
            <option key={kind} value={kind}>
              {NAMES[kind]}
            </option>
          ))}
        </select>
        <select
          className="choice add-mark"
          aria-label="Draw a mark on the picture"
          value=""
          onChange={(e) => onDraw(e.target.value as 'point')}
        >
          <option value="" disabled>
            draw one on the picture
          </option>
          {(['notch', ...KINDS] as const).map((kind) => (
            <option key={kind} value={kind}>
              {NAMES[kind]}
            </option>
          ))}
        </select>
      </p>
    </details>
  );
}

/** The arrow printed on the paper, and how the tape lies to it. */
export function ArrowPart({ form, set, about, outline }: Props) {
  const arrow = form.arrow;
  const end = (which: 'tail' | 'head', label: string) => (
    <div className="two">
      <Labelled
        id={`arrow-${which}-along`}
        label={`${label}, along`}
        value={arrow![which].along}
        wrong={about(`arrow.${which}.along`)}
        onType={(along) => set({ arrow: { ...arrow!, [which]: { ...arrow![which], along } } })}
      />
      <Labelled
        id={`arrow-${which}-across`}
        label={`${label}, to the left`}
        value={arrow![which].across}
        wrong={about(`arrow.${which}.across`)}
        onType={(across) => set({ arrow: { ...arrow!, [which]: { ...arrow![which], across } } })}
      />
    </div>
  );
  return (
    <details className="piece-part">
      <summary>
        Grainline{' '}
        {arrow
          ? outline?.lean
            ? `(leans ${outline.lean} from the tape)`
            : '(along the tape)'
          : '(not drawn: along the tape)'}
      </summary>
      <p className="quiet">
        {arrow && outline?.lean
          ? `The tape lies along the piece, and the printed arrow leans ${outline.lean} from it: on the cloth the arrow runs along the selvage.`
          : 'The tape lies along the arrow, so the piece lies on the cloth as it stands here.'}
      </p>
      <Checkbox
        className="tick"
        checked={!!arrow}
        onChange={(e) => {
          const [tail, head] = outline?.arrow ?? [
            [0, 0],
            [100, 0],
          ];
          const mm = (v: number) => typed(`${Math.round(v)} mm`);
          set({
            arrow: e.target.checked
              ? {
                  tail: { along: mm(tail![0]), across: mm(tail![1]) },
                  head: { along: mm(head![0]), across: mm(head![1]) },
                }
              : null,
          });
        }}
      >
        its own arrow, as it is printed
      </Checkbox>
      {arrow && end('tail', 'Low end')}
      {arrow && end('head', 'Head')}
    </details>
  );
}
