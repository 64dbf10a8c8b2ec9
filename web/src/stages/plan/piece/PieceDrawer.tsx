import { Button, Checkbox, Drawer, Input, type InputRef, Modal } from 'antd';
import { type KeyboardEvent, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { api, type Draft, type Outline, type Piece, type Project, Refusal, saved, unwrap } from '../../../api/client';
import { useChanges, useChoices } from '../../../api/hooks';
import { asShown, upToDate } from '../../../api/news';
import { Sections } from '../../../app/Sections';
import { ArrowPart, EdgesPart, MarksPart, NAMES, PLACES } from './Details';
import {
  blank,
  field,
  type Form,
  type FormMark,
  noPoint,
  noStation,
  noTape,
  pointsOf,
  said,
  sent,
  telling,
  type Way,
} from './form';
import { AnotherFields, MeasuresFields } from './Measures';
import { PiecePicture } from './PiecePicture';
import { SizesPart } from './SizesPart';
import { Labelled, PointsTable, StationsTable, TapesTable } from './Tables';
import { usePieceForm } from './usePieceForm';

const WAYS = [
  { value: 'stations', label: 'By stations' },
  { value: 'points', label: 'Point by point' },
  { value: 'tapes', label: 'By two tapes' },
  { value: 'measures', label: 'By its measures' },
  { value: 'another', label: 'From another piece' },
] as const;

function fromPiece(piece: Piece, draft: Draft): Form {
  // as it is cut from the first cloth; the others have a table of their own
  const cut = piece.cuts[0] ?? piece;
  return {
    ...blank(),
    ...pointsOf(draft),
    name: piece.name,
    copies: String(cut.copies),
    pair: cut.pair,
    on_fold: draft.half,
    grain: cut.grain,
    one_way: cut.one_way,
    seam: { text: cut.seam.text, mm: cut.seam.mm },
  };
}

type Props = { project: Project; piece: Piece | undefined; onClose: () => void };

/** A piece as it is on the paper: told in one of several ways, or changed. */
export function PieceDrawer(props: Props) {
  const { piece } = props;
  const [draft, setDraft] = useState<Draft>();
  const [error, setError] = useState('');
  const id = piece?.id;
  useEffect(() => {
    if (id === undefined) return;
    unwrap(api.GET('/api/pieces/{piece_id}/draft', { params: { path: { piece_id: id } } })).then(
      setDraft,
      (fault: Error) => setError(fault.message),
    );
  }, [id]);
  if (piece && !draft)
    return error ? (
      <Drawer closeIcon="Close" open onClose={props.onClose}>
        <p className="spoil" role="alert">
          {error}
        </p>
      </Drawer>
    ) : null;
  return <PieceForm {...props} draft={draft} />;
}

function PieceForm({ project, piece, draft, onClose }: Props & { draft: Draft | undefined }) {
  const changes = useChanges();
  const choices = useChoices();
  const start = () => (piece && draft ? fromPiece(piece, draft) : blank());
  const { form, begun, found, since, renew, change, clear } = usePieceForm(
    `piece:${changes.id}:${piece?.id ?? 'new'}`,
    start,
  );
  const [outline, setOutline] = useState<Outline | undefined>(draft);
  const [base, setBase] = useState<Outline>();
  const [errors, setErrors] = useState<{ path: string; message: string }[]>([]);
  const [problem, setProblem] = useState('');
  const [refused, setRefused] = useState<Refusal>();
  const [tried, setTried] = useState(false);
  const [busy, setBusy] = useState(false);
  const [leaving, setLeaving] = useState(false);
  const [chosen, setChosen] = useState<number>();
  const [drawing, setDrawing] = useState<{ kind: FormMark['kind'] | 'notch'; places: FormMark['places'] }>();
  const side = useRef<HTMLDivElement>(null);
  const name = useRef<InputRef>(null);
  const wanted = useRef<string>(undefined);

  const rows = said(form);
  const told = telling(form);
  const asked = JSON.stringify([told, form.seam]);

  useEffect(() => {
    if (!told) return undefined;
    let live = true;
    const timer = setTimeout(async () => {
      try {
        const drawn = await unwrap(
          api.POST('/api/plan/outline', {
            body: { ...told, seam: form.seam.text.trim() ? sent(form.seam) : 0, name: form.name.trim() },
          }),
        );
        if (!live) return;
        setOutline(drawn);
        setErrors([]);
        setProblem('');
        change((now) => inStep(now, drawn));
      } catch (fault) {
        if (!live || !(fault instanceof Refusal)) return;
        setErrors(fault.fields);
        setProblem(fault.message);
      }
    }, 80);
    return () => {
      live = false;
      clearTimeout(timer);
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `asked` stands for all of it
  }, [asked]);

  // the piece another one is made from, with its edges
  const from = form.way === 'another' ? form.another.piece_id : 0;
  useEffect(() => {
    if (!from) return;
    unwrap(api.GET('/api/pieces/{piece_id}/draft', { params: { path: { piece_id: from } } })).then(setBase, () =>
      setBase(undefined),
    );
  }, [from]);

  const set = (part: Partial<Form>) => {
    setRefused(undefined);
    change((now) => ({ ...now, ...part }));
  };

  /** The points as they are drawn now, so that one of them can be changed. */
  function asPoints(): Partial<Form> {
    if (form.way === 'points' && (!outline || rows.length === outline.points.length)) return {};
    return outline ? pointsOf(outline) : {};
  }
  const edit = (make: (points: Form['points']) => Form['points']) => {
    setRefused(undefined);
    change((now) => {
      const whole = {
        ...now,
        ...(now.way === 'points' && outline && said(now).length === outline.points.length
          ? {}
          : outline
            ? pointsOf(outline)
            : {}),
      };
      return { ...whole, points: make(whole.points) };
    });
  };
  const place = (mm: number) => ({ text: `${Math.round(mm * 10) / 10} mm`, mm });
  const move = (key: number, along: number, across: number) =>
    edit((points) => points.map((p) => (p.key === key ? { ...p, along: place(along), across: place(across) } : p)));
  /** from where it is now, however fast the keys come */
  const nudge = (key: number, along: number, across: number, fine: number) =>
    edit((points) =>
      points.map((p) => {
        const there = outline?.points.find((q) => q.key === key);
        if (p.key !== key || !there) return p;
        const to = (own: typeof p.along, drawn: number, by: number) =>
          by === 0 ? own : place(Math.round(((own.mm ?? drawn) + by) / fine) * fine);
        return { ...p, along: to(p.along, there.along.mm, along), across: to(p.across, there.across.mm, across) };
      }),
    );
  const add = (after: number, along: number, across: number) => {
    const key = Math.max(0, ...(outline?.points ?? []).map((p) => p.key), ...form.points.map((p) => p.key)) + 1;
    edit((points) =>
      points.flatMap((p) =>
        p.key === after
          ? [p, { ...noPoint(), key, along: place(along), across: place(across), smooth: p.smooth }]
          : [p],
      ),
    );
    setChosen(key);
  };
  const turn = (key: number) => edit((points) => points.map((p) => (p.key === key ? { ...p, smooth: !p.smooth } : p)));
  const takeOut = (key: number) => {
    if ((outline?.points.length ?? 0) <= 3) return;
    edit((points) => points.filter((p) => p.key !== key));
    setChosen(undefined);
  };

  /** A mark drawn on the picture: one place after another, until it has all of them. */
  function put(along: number, across: number) {
    if (!drawing) return;
    const places = [...drawing.places, { along: place(along), across: place(across) }];
    if (places.length < PLACES[drawing.kind].length) return setDrawing({ ...drawing, places });
    setDrawing(undefined);
    const base = { ...form, ...asPoints() };
    if (drawing.kind === 'notch')
      set({
        ...base,
        notches: [...(base.notches ?? []), { after: 0, at: { text: '0' }, double: false, place: [along, across] }],
      });
    else set({ ...base, marks: [...(base.marks ?? []), { kind: drawing.kind, name: '', places }] });
  }

  const more: Partial<Record<Way, () => Partial<Form>>> = {
    stations: () => ({ rows: [...form.rows, noStation()] }),
    points: () => ({ points: [...form.points, noPoint(form.points.at(-1))] }),
    tapes: () => ({ tapes: [...form.tapes, noTape(form.tapes.at(-1))] }),
  };

  /** Enter goes on to the next field, and from the last of a table to a new row. */
  function enter(event: KeyboardEvent<HTMLElement>) {
    const from = event.target as HTMLInputElement;
    if (event.key !== 'Enter' || from.tagName !== 'INPUT' || from.type === 'checkbox') return;
    event.preventDefault();
    const fields = [...(side.current?.querySelectorAll<HTMLInputElement>('input[data-go]') ?? [])].filter(
      (f) => f.offsetParent !== null,
    );
    const at = fields.indexOf(from);
    const table = from.closest('table');
    const lastOfTable =
      table !== null && table.classList.contains('telling') && !fields.slice(at + 1).some((f) => table.contains(f));
    const next = more[form.way];
    if (lastOfTable && next) {
      wanted.current = from.getAttribute('aria-label') ?? '';
      set(next());
    } else fields[at + 1]?.focus();
  }
  // the row is there once it is drawn: the hand is on its first field before the next key
  useLayoutEffect(() => {
    if (wanted.current === undefined) return;
    const fields = [...(side.current?.querySelectorAll<HTMLInputElement>('table.telling input[data-go]') ?? [])];
    const at = fields.findIndex((f) => f.getAttribute('aria-label') === wanted.current);
    wanted.current = undefined;
    fields[at + 1]?.focus();
  });

  async function keep(sure = false, another = false) {
    setTried(true);
    if (!told) {
      setProblem(
        form.way === 'stations'
          ? 'Type at least two stations first: one at the bottom end, one at the top.'
          : form.way === 'measures'
            ? 'Type its measures first.'
            : form.way === 'another'
              ? 'Choose the piece it is made from, and say how.'
              : 'Type at least three points first.',
      );
      return;
    }
    const copies = /^\d+$/.test(form.copies.trim()) ? Number(form.copies) : 0;
    const shared = {
      seam: form.seam.text.trim() ? sent(form.seam) : 0,
      name: form.name,
      copies,
      pair: form.pair,
      grain: form.grain as 'lengthwise',
      one_way: form.one_way,
    };
    const headers = sure ? { 'X-Insist': '1' } : {};
    setBusy(true);
    try {
      changes.keep(
        await saved(
          asShown(since, () =>
            piece
              ? api.PATCH('/api/pieces/{piece_id}', {
                  params: { path: { piece_id: piece.id }, query: { use: piece.cuts[0]?.use_id ?? null } },
                  body: { ...shared, on_fold: form.on_fold, drawn: told },
                  headers,
                })
              : api.POST('/api/projects/{project_id}/pieces', {
                  params: { path: { project_id: changes.id } },
                  body: { ...told, ...shared },
                  headers,
                }),
          ),
        ),
      );
      clear({ ...blank(), way: form.way, seam: form.seam });
      setRefused(undefined);
      setOutline(undefined);
      setTried(false);
      if (another) name.current?.focus();
      else onClose();
    } catch (fault) {
      const refusal = fault as Refusal;
      setRefused(refusal);
      // said once more, it is built on what is there now
      if (refusal.code === 'changed_elsewhere') await upToDate().then(renew);
    } finally {
      setBusy(false);
    }
  }

  const about = (path: string) => {
    const row = /^(stations|points|tapes\.points)\.(-?\d+)\.(\w+)$/.exec(path);
    let text = 'x';
    if (row) {
      const i = rows[Number(row[2])];
      if (i === undefined) return undefined;
      const of = (form.way === 'stations' ? form.rows : form.way === 'points' ? form.points : form.tapes)[
        i
      ] as unknown as Record<string, { text?: string } | undefined> | undefined;
      text = of?.[row[3]!]?.text ?? 'x';
    }
    // an empty field is not wrong until it is kept
    const sentAs = piece ? `drawn.${path}` : path;
    return text.trim() || tried
      ? [...(refused?.fields ?? []), ...errors].find((e) => e.path === path || e.path === sentAs)?.message
      : undefined;
  };
  const twice = refused?.code === 'changed_elsewhere';
  const insist = refused?.code === 'asked' || twice;
  /** A form with something in it is not left without a word. */
  function leave() {
    if (!begun) return onClose();
    setLeaving(true);
  }
  function throwAway() {
    clear(start());
    setLeaving(false);
    onClose();
  }
  const parts = { form, set, about, outline, asPoints };
  const shown = told || piece ? outline : undefined;
  const remarks = [...(shown?.doubts ?? []), ...(shown?.remarks ?? [])];

  return (
    <Drawer
      closeIcon="Close"
      open
      size={1120}
      title={piece ? `Change ${piece.name}` : 'A piece, as it is on the paper'}
      onClose={leave}
      // whoever writes in it before it has slid in stays where they are
      afterOpenChange={(open) => open && !document.activeElement?.matches('.ant-drawer input') && name.current?.focus()}
      footer={
        <div className="drawer-foot">
          <span className="say spoil" role="alert">
            {(twice
              ? `${refused.message} ${refused.both.map((b) => `There, ${b.name}: ${b.theirs}.`).join(' ')} Keep yours, or throw it away and see the other.`
              : refused?.message) ??
              (tried || rows.length > 1 || form.way === 'measures' || form.way === 'another' ? problem : '')}
          </span>
          {begun && <Button onClick={throwAway}>Throw away</Button>}
          {!piece && !insist && (
            <Button loading={busy} onClick={() => void keep(false, true)}>
              Keep it, and the next one
            </Button>
          )}
          <Button type="primary" loading={busy} onClick={() => void keep(insist)}>
            {twice ? 'Keep mine' : insist ? 'Keep it so' : piece ? 'Keep the change' : 'Keep this piece'}
          </Button>
        </div>
      }
    >
      <Modal
        title="Something here is not kept yet"
        open={leaving}
        onCancel={() => setLeaving(false)}
        closeIcon="Close"
        width={460}
        footer={[
          <Button key="go" onClick={() => setLeaving(false)}>
            Go on with it
          </Button>,
          <Button key="away" onClick={throwAway}>
            Throw it away
          </Button>,
          <Button
            key="keep"
            type="primary"
            onClick={() => {
              setLeaving(false);
              void keep();
            }}
          >
            Keep it
          </Button>,
        ]}
      >
        <p>
          What you typed of {form.name.trim() || piece?.name || 'this piece'} can be kept, thrown away, or gone on with.
        </p>
      </Modal>
      {found && (
        <p className="draft-found" role="status">
          This is a draft of before: it was typed and not kept.{' '}
          <Button size="small" onClick={() => clear(start())}>
            Throw it away and begin anew
          </Button>
        </p>
      )}
      {/* oxlint-disable-next-line jsx-a11y/no-static-element-interactions -- Enter of every field inside goes on to the next */}
      <div className="stations" onKeyDown={enter}>
        <div ref={side} className="piece-side">
          <div className="entry">
            <label htmlFor="piece-name">Name</label>
            <Input
              id="piece-name"
              data-go
              ref={name}
              value={form.name}
              placeholder="such as Sleeve"
              status={about('name') && tried ? 'error' : undefined}
              aria-invalid={!!about('name') && tried}
              onChange={(e) => set({ name: e.target.value })}
            />
          </div>
          {!piece && (
            <Sections
              label="How it is told"
              parts={WAYS}
              value={form.way}
              onChoose={(way) => set(way === 'points' && told && outline ? pointsOf(outline) : { way })}
            />
          )}
          {/* how it is cut decides what is measured */}
          <div className="piece-cut">
            <Checkbox
              className="tick"
              checked={form.on_fold}
              onChange={(e) => set({ on_fold: e.target.checked, pair: e.target.checked ? false : form.pair })}
            >
              half a piece, cut on the fold
            </Checkbox>
            <Checkbox
              className="tick"
              checked={form.pair}
              disabled={form.on_fold}
              onChange={(e) =>
                set({ pair: e.target.checked, copies: e.target.checked && form.copies === '1' ? '2' : form.copies })
              }
            >
              pair: half of the copies mirrored
            </Checkbox>
            <Checkbox className="tick" checked={form.one_way} onChange={(e) => set({ one_way: e.target.checked })}>
              one way: the top must point along the nap or print
            </Checkbox>
          </div>
          <div className={form.way === 'measures' || form.way === 'another' ? undefined : 'telling-box'}>
            {form.way === 'stations' && <StationsTable form={form} set={set} about={about} rows={rows} />}
            {form.way === 'points' && (
              <PointsTable form={form} set={set} about={about} rows={rows} chosen={chosen} onChoose={setChosen} />
            )}
            {form.way === 'tapes' && <TapesTable form={form} set={set} about={about} rows={rows} />}
            {form.way === 'measures' && <MeasuresFields form={form} set={set} about={about} />}
            {form.way === 'another' && (
              <AnotherFields form={form} set={set} about={about} pieces={project.pieces} base={base} />
            )}
          </div>
          <div className="piece-form">
            <div className="two">
              <div className="entry">
                <label htmlFor="piece-copies">Copies</label>
                <Input
                  id="piece-copies"
                  data-go
                  value={form.copies}
                  inputMode="numeric"
                  status={about('copies') ? 'error' : undefined}
                  onChange={(e) => set({ copies: e.target.value })}
                />
                <span className="say spoil">{about('copies')}</span>
              </div>
              <Labelled
                id="piece-seam"
                label="Seam allowance to add (0: included)"
                value={form.seam}
                wrong={about('seam')}
                onType={(seam) => set({ seam })}
              />
              <div className="entry">
                <label htmlFor="piece-grain">Grain</label>
                <select
                  id="piece-grain"
                  className="choice"
                  value={form.grain}
                  onChange={(e) => set({ grain: e.target.value })}
                >
                  {choices?.grains.map((g) => (
                    <option key={g.value} value={g.value}>
                      {g.label}
                    </option>
                  ))}
                </select>
              </div>
            </div>
          </div>
          <EdgesPart {...parts} />
          <MarksPart {...parts} onDraw={(kind) => setDrawing({ kind, places: [] })} />
          <ArrowPart {...parts} />
          {piece && draft && <SizesPart piece={piece} draft={draft} />}
        </div>
        <div className="stations-picture">
          {shown ? (
            <>
              <PiecePicture
                placing={
                  drawing &&
                  `Touch the picture: ${NAMES[drawing.kind]}${PLACES[drawing.kind][drawing.places.length] ? `, ${PLACES[drawing.kind][drawing.places.length]}` : ''}`
                }
                onPlace={put}
                outline={shown}
                onFold={form.on_fold}
                oneWay={form.one_way}
                chosen={chosen}
                onChoose={setChosen}
                onMove={move}
                onNudge={nudge}
                onTurn={turn}
                onTakeOut={takeOut}
                onAdd={add}
              />
              {remarks.map((text) => (
                <p key={text} className="look-again">
                  {text}
                </p>
              ))}
              <p className="quiet">
                Drag a point, or choose it and use the arrow keys (Shift: further). Space: corner or smooth. Delete
                takes it out, + or a double click on the line adds one; Page Down goes on to the next.
              </p>
            </>
          ) : (
            <p className="quiet preview-empty">The outline appears here as you type.</p>
          )}
        </div>
      </div>
    </Drawer>
  );
}

/** The points of the form get the keys they are drawn with, and what was dragged is written in the person's units. */
function inStep(form: Form, drawn: Outline): Form {
  const rows = said(form);
  // made from a half, it is one
  if (form.way === 'another' && form.on_fold !== drawn.half)
    return { ...form, on_fold: drawn.half, pair: form.pair && !drawn.half };
  if (form.notches?.some((n) => n.place) && form.notches.length === drawn.notches.length)
    return { ...form, notches: drawn.notches.map((n) => ({ after: n.after, at: field(n.at), double: n.double })) };
  if (form.way !== 'points' || rows.length !== drawn.points.length) return form;
  let changed = false;
  const points = form.points.map((p, i) => {
    const at = rows.indexOf(i);
    const there = drawn.points[at];
    if (!there) return p;
    const written = (own: typeof p.along, is: { mm: number; text: string }) =>
      own.mm !== undefined && own.text !== is.text && Math.abs(own.mm - is.mm) < 1e-6
        ? { text: is.text, mm: own.mm }
        : own;
    const along = written(p.along, there.along);
    const across = written(p.across, there.across);
    if (p.key === there.key && along === p.along && across === p.across) return p;
    changed = true;
    return { ...p, key: there.key, along, across };
  });
  return changed ? { ...form, points } : form;
}
