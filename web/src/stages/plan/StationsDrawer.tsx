import { Button, Drawer, Input, type InputRef } from "antd";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { api, type Outline, type Piece, Refusal, saved, unwrap } from "../../api/client";
import { useChanges, useChoices, useTape } from "../../api/hooks";
import { bounds } from "../../draw/outline";
import { PieceShape } from "../../draw/PieceShape";

type Row = { along: string; left: string; right: string };
type Form = {
  name: string;
  rows: Row[];
  smooth: boolean;
  copies: string;
  pair: boolean;
  on_fold: boolean;
  grain: Piece["grain"];
  one_way: boolean;
  seam: string;
};

const blank: Form = {
  name: "", rows: [{ along: "0", left: "", right: "" }, { along: "", left: "", right: "" }], smooth: true, copies: "1",
  pair: false, on_fold: false, grain: "lengthwise", one_way: false, seam: "0",
};

function fromPiece(piece: Piece): Form {
  // as it is cut from the first cloth; the others have a table of their own
  const cut = piece.cuts[0] ?? piece;
  return {
    name: piece.name,
    rows: piece.stations.map((s) => ({ along: s.along.text, left: s.left.text, right: s.right.text })),
    smooth: piece.smooth, copies: String(cut.copies), pair: cut.pair, on_fold: cut.on_fold,
    grain: cut.grain, one_way: cut.one_way, seam: cut.seam.text,
  };
}

/** What has been typed of a piece survives a reload: it is kept here until the piece is. */
function useForm(key: string, start: Form) {
  const [form, setForm] = useState<Form>(() => {
    try {
      return { ...start, ...(JSON.parse(localStorage.getItem(key) ?? "{}") as Partial<Form>) };
    } catch {
      return start;
    }
  });
  return {
    form,
    change(next: Form) {
      setForm(next);
      localStorage.setItem(key, JSON.stringify(next));
    },
    clear() {
      localStorage.removeItem(key);
    },
  };
}

function Preview({ outline, form }: { outline: Outline | undefined; form: Form }) {
  if (!outline) return <p className="quiet preview-empty">The outline appears here as you type.</p>;
  const { x0, y0, x1, y1 } = bounds(outline.cut);
  const scale = Math.min(250 / Math.max(1, y1 - y0), 400 / Math.max(1, x1 - x0));
  const shape = { ...outline, on_fold: form.on_fold, one_way: form.one_way };
  return (
    <>
      <svg viewBox="0 0 300 440" className="preview" role="img" aria-label="The outline so far">
        <PieceShape piece={shape} scale={scale} x={150 + ((y0 + y1) / 2) * scale} y={220 + ((x0 + x1) / 2) * scale} />
      </svg>
      <p className="quiet">{outline.size}, at the cut line</p>
    </>
  );
}

type Props = { piece: Piece | undefined; onClose: () => void };

/** A paper pattern piece, read off with a tape: at distances along the grain, how far the edge lies. */
export function StationsDrawer({ piece, onClose }: Props) {
  const changes = useChanges();
  const choices = useChoices();
  const tape = useTape();
  const key = `form:${changes.id}:${piece?.id ?? "new"}`;
  const { form, change, clear } = useForm(key, piece ? fromPiece(piece) : blank);
  const [outline, setOutline] = useState<Outline>();
  const [errors, setErrors] = useState<{ path: string; message: string }[]>([]);
  const [problem, setProblem] = useState("");
  const [refused, setRefused] = useState<Refusal>();
  const [tried, setTried] = useState(false);
  const [busy, setBusy] = useState(false);
  const table = useRef<HTMLTableElement>(null);
  const name = useRef<InputRef>(null);

  const filled = form.rows.filter((r) => r.along.trim() || r.left.trim() || (!form.on_fold && r.right.trim()));
  // what was not typed anew is sent back exactly, not as rounded for reading
  const known = piece ? [...piece.stations.flatMap((s) => [s.along, s.left, s.right]), piece.cuts[0]?.seam ?? piece.seam] : [];
  const exact = (text: string) => known.find((length) => length.text === text)?.mm ?? text;
  const stations = filled.map((r) => ({ along: exact(r.along), left: exact(r.left), right: form.on_fold ? 0 : exact(r.right) }));
  const asked = JSON.stringify([stations, form.smooth, form.on_fold, form.seam]);

  useEffect(() => {
    if (stations.length < 2) return undefined;
    let live = true;
    const timer = setTimeout(async () => {
      try {
        const body = { stations, smooth: form.smooth, on_fold: form.on_fold, seam: exact(form.seam) };
        const drawn = await unwrap(api.POST("/api/plan/outline", { body }));
        if (!live) return;
        setOutline(drawn);
        setErrors([]);
        setProblem("");
      } catch (fault) {
        if (!live || !(fault instanceof Refusal)) return;
        setErrors(fault.fields);
        setProblem(fault.message);
      }
    }, 150);
    return () => {
      live = false;
      clearTimeout(timer);
    };
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `asked` stands for all of it
  }, [asked]);

  const set = (part: Partial<Form>) => {
    setRefused(undefined);
    change({ ...form, ...part });
  };
  const setRow = (i: number, part: Partial<Row>) => set({ rows: form.rows.map((r, n) => (n === i ? { ...r, ...part } : r)) });

  /** Enter goes on to the next field, and from the last to a new station. */
  function enter(event: KeyboardEvent<HTMLTableElement>) {
    if (event.key !== "Enter") return;
    event.preventDefault();
    const fields = [...(table.current?.querySelectorAll("input") ?? [])];
    const at = fields.indexOf(event.target as HTMLInputElement);
    if (at === fields.length - 1) set({ rows: [...form.rows, { along: "", left: "", right: "" }] });
    setTimeout(() => table.current?.querySelectorAll("input")[at + 1]?.focus());
  }

  async function keep() {
    setTried(true);
    const copies = /^\d+$/.test(form.copies.trim()) ? Number(form.copies) : 0;
    const shared = { stations, smooth: form.smooth, on_fold: form.on_fold, seam: exact(form.seam), name: form.name, copies,
      pair: form.pair, grain: form.grain as "lengthwise", one_way: form.one_way };
    setBusy(true);
    try {
      changes.keep(
        await saved(
          piece
            ? api.PATCH("/api/pieces/{piece_id}", { params: { path: { piece_id: piece.id }, query: { use: piece.cuts[0]?.use_id ?? null } }, body: shared })
            : api.POST("/api/projects/{project_id}/pieces", { params: { path: { project_id: changes.id } }, body: shared }),
        ),
      );
      clear();
      onClose();
    } catch (fault) {
      setRefused(fault as Refusal);
    } finally {
      setBusy(false);
    }
  }

  const typedStations = !piece || piece.stations.length > 0;
  const about = (path: string) => {
    const row = /^stations\.(\d+)\.(\w+)$/.exec(path);
    const text = row ? (filled[Number(row[1])]?.[row[2] as keyof Row] ?? "") : "x";
    // an empty field is not wrong until it is kept
    return text.trim() || tried ? [...(refused?.fields ?? []), ...errors].find((e) => e.path === path)?.message : undefined;
  };

  return (
    <Drawer
      closeIcon="Close"
      open
      size={820}
      title={piece ? `Change ${piece.name}` : "A piece, read off with a tape"}
      onClose={onClose}
      afterOpenChange={(open) => open && name.current?.focus()}
      footer={
        <div className="drawer-foot">
          <span className="say spoil" role="alert">{refused?.message ?? (tried || filled.length > 1 ? problem : "")}</span>
          {!piece && <Button onClick={() => { clear(); onClose(); }}>Throw away</Button>}
          <Button type="primary" loading={busy} onClick={() => void keep()}>
            {piece ? "Keep the change" : "Keep this piece"}
          </Button>
        </div>
      }
    >
      <div className="stations">
        <div>
          <div className="entry">
            <label htmlFor="piece-name">Name</label>
            <Input id="piece-name" ref={name} value={form.name} placeholder="such as Sleeve"
              status={about("name") && tried ? "error" : undefined} onChange={(e) => set({ name: e.target.value })} />
          </div>
          {typedStations && (
            <>
              <p className="how">
                Lay the tape along the grainline, 0 at the bottom end. At each place measure square to it, left and right,
                to the edge. Enter goes to the next field. {tape.imperial ? "Inches" : "Centimetres"} unless you write the unit.
              </p>
              <table ref={table} onKeyDown={enter} className="station-table">
                <thead>
                  <tr>
                    <th>along the grain</th>
                    <th>{form.on_fold ? "fold to edge" : "left"}</th>
                    {!form.on_fold && <th>right</th>}
                    <th />
                  </tr>
                </thead>
                <tbody>
                  {form.rows.map((row, i) => {
                    const at = filled.indexOf(row);
                    return (
                      <tr key={i}>
                        {(["along", "left", ...(form.on_fold ? [] : ["right"])] as (keyof Row)[]).map((field) => {
                          const wrong = at >= 0 ? about(`stations.${at}.${field}`) : undefined;
                          return (
                            <td key={field}>
                              <Input value={row[field]} data-tape aria-label={`station ${i + 1}, ${field}`} aria-invalid={!!wrong}
                                status={wrong ? "error" : undefined} title={wrong}
                                onChange={(e) => setRow(i, { [field]: e.target.value })} />
                            </td>
                          );
                        })}
                        <td>
                          <Button type="text" disabled={form.rows.length <= 2} aria-label={`Remove station ${i + 1}`}
                            onClick={() => set({ rows: form.rows.filter((_, n) => n !== i) })}>
                            remove
                          </Button>
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
              <Button onClick={() => set({ rows: [...form.rows, { along: "", left: "", right: "" }] })}>Another station</Button>
            </>
          )}
          <div className="piece-form">
            {typedStations && (
              <label className="tick">
                <input type="checkbox" checked={form.smooth} onChange={(e) => set({ smooth: e.target.checked })} /> smooth
                curve through the stations (else straight)
              </label>
            )}
            <label className="tick">
              <input type="checkbox" checked={form.on_fold} disabled={!typedStations}
                onChange={(e) => set({ on_fold: e.target.checked, pair: e.target.checked ? false : form.pair })} /> half a piece,
              cut on the fold
            </label>
            <label className="tick">
              <input type="checkbox" checked={form.pair} disabled={form.on_fold}
                onChange={(e) => set({ pair: e.target.checked, copies: e.target.checked && form.copies === "1" ? "2" : form.copies })} />{" "}
              pair: half of the copies mirrored
            </label>
            <label className="tick">
              <input type="checkbox" checked={form.one_way} onChange={(e) => set({ one_way: e.target.checked })} /> one way:
              the top must point along the nap or print
            </label>
            <div className="two">
              <div className="entry">
                <label htmlFor="piece-copies">Copies</label>
                <Input id="piece-copies" value={form.copies} inputMode="numeric" status={about("copies") ? "error" : undefined}
                  onChange={(e) => set({ copies: e.target.value })} />
                <span className="say spoil">{about("copies")}</span>
              </div>
              <div className="entry">
                <label htmlFor="piece-seam">Seam allowance to add (0: included)</label>
                <Input id="piece-seam" value={form.seam} status={about("seam") ? "error" : undefined}
                  onChange={(e) => set({ seam: e.target.value })} />
                <span className="say spoil">{about("seam")}</span>
              </div>
              <div className="entry">
                <label htmlFor="piece-grain">Grain</label>
                <select id="piece-grain" className="choice" value={form.grain} onChange={(e) => set({ grain: e.target.value })}>
                  {choices?.grains.map((g) => <option key={g.value} value={g.value}>{g.label}</option>)}
                </select>
              </div>
            </div>
          </div>
        </div>
        <div className="stations-picture">
          <Preview form={form}
            outline={outline ?? (piece && !typedStations ? { outline: piece.outline, cut: piece.cut, arrow: piece.arrow, fold: piece.fold, size: piece.size } : undefined)} />
        </div>
      </div>
    </Drawer>
  );
}
