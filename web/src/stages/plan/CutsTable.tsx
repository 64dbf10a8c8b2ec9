import { Button, Drawer } from "antd";
import { useState } from "react";
import type { Cut, Piece, Project, Use } from "../../api/client";
import { useChanges, useChoices } from "../../api/hooks";
import { Patch } from "../../app/ClothSwitch";
import { useUndo } from "../../app/useUndo";
import { AddCloth } from "../../cupboard/AddCloth";
import { DraftScope, EntryChoice, EntryLength, EntryText, EntryTick } from "../../fields/Entry";

const SELVAGES = [{ value: "", label: "on no border" }, { value: "low", label: "at the near selvage" }, { value: "high", label: "at the far selvage" }];

/** How one piece is cut from one cloth; every entry is kept at once. */
function CutDrawer({ piece, use, cut, onClose }: { piece: Piece; use: Use; cut: Cut; onClose: () => void }) {
  const changes = useChanges();
  const choices = useChoices();
  const undo = useUndo();
  const change = (body: Parameters<typeof changes.cut>[2]) => changes.cut(piece.id, use.id, body);
  async function remove() {
    const { copies, pair, on_fold, grain, one_way, hidden, border } = cut;
    await changes.notCut(piece.id, use.id);
    onClose();
    undo(`cut-${piece.id}-${use.id}`, `${piece.name} is no longer cut from ${use.name}.`, () =>
      change({ copies, pair, on_fold, grain: grain as "any", one_way, hidden, border: border as "", seam: cut.seam.mm, shorter: cut.shorter.mm, border_at: cut.border_at.mm }));
  }
  return (
    <Drawer closeIcon="Close" open size={420} title={`${piece.name}, from ${use.name}`} onClose={onClose}>
      <DraftScope value={`cut-${piece.id}-${use.id}`}>
        {cut.fault && <p className="spoil">{cut.fault}</p>}
        <div className="two">
          <EntryText label="How many" path="copies" value={String(cut.copies)}
            onSave={(v) => change({ copies: /^\d+$/.test(v.trim()) ? Number(v) : (v as unknown as number) })} />
          <EntryChoice label="Grain" value={cut.grain} options={choices?.grains ?? []} onSave={(v) => change({ grain: v as "any" })} />
        </div>
        <EntryTick label="in pairs, left and right" value={cut.pair} onSave={(pair) => change({ pair })} />
        {piece.half && <EntryTick label="on the fold" value={cut.on_fold} onSave={(on_fold) => change({ on_fold })} />}
        <EntryTick label="one way, tops all alike" value={cut.one_way} onSave={(one_way) => change({ one_way })} />
        <EntryTick label="does not show when worn" value={cut.hidden} onSave={(hidden) => change({ hidden })} />
        <div className="two">
          <EntryLength label="Seam allowance still to add" path="seam" value={cut.seam.text} onSave={(seam) => change({ seam })} />
          <EntryLength label="Shorter at its low end by" path="shorter" value={cut.shorter.text} onSave={(shorter) => change({ shorter })} />
        </div>
        {cut.grain === "crosswise" && (
          <div className="two">
            <EntryChoice label="Its hem lies" value={cut.border} options={SELVAGES} onSave={(v) => change({ border: v as "" })} />
            {cut.border && <EntryLength label="from that selvage" path="border_at" value={cut.border_at.text} onSave={(border_at) => change({ border_at })} />}
          </div>
        )}
        <p className="commands"><Button onClick={() => void remove()}>Not cut from this cloth</Button></p>
      </DraftScope>
    </Drawer>
  );
}

/** What is cut from what: the pieces down, the cloths across. */
export function CutsTable({ project }: { project: Project }) {
  const changes = useChanges();
  const [open, setOpen] = useState<{ piece: number; use: number }>();
  const [error, setError] = useState("");
  const uses = project.uses.filter((u) => !u.trim);
  const piece = project.pieces.find((p) => p.id === open?.piece);
  const use = uses.find((u) => u.id === open?.use);
  const cut = piece?.cuts.find((c) => c.use_id === open?.use);
  async function begin(piece: Piece, use: Use) {
    setError("");
    try {
      await changes.cut(piece.id, use.id, {});
      setOpen({ piece: piece.id, use: use.id });
    } catch (fault) {
      setError((fault as Error).message);
    }
  }
  return (
    <>
      <h1>{uses.length === 1 ? "Everything is cut from one cloth" : `${uses.length} cloths, ${uses.reduce((n, u) => n + u.copies, 0)} to cut`}</h1>
      {error && <p className="spoil" role="alert">{error}</p>}
      <div className="cuts-scroll">
        <table className="cuts">
          <thead>
            <tr>
              <th scope="col">piece</th>
              {uses.map((u) => (
                <th scope="col" key={u.id}>
                  <span className="cuts-cloth"><Patch use={u} size={38} /><span><b>{u.name}</b><small>{u.role_label}, {u.copies} to cut</small></span></span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {project.pieces.map((p) => (
              <tr key={p.id}>
                <th scope="row">{p.name}</th>
                {uses.map((u) => {
                  const of = p.cuts.find((c) => c.use_id === u.id);
                  return (
                    <td key={u.id}>
                      {of ? (
                        <button type="button" className={of.fault ? "cut-cell spoil" : "cut-cell"} aria-label={`${p.name} from ${u.name}: ${of.how_cut}`} onClick={() => setOpen({ piece: p.id, use: u.id })}>
                          {of.how_cut}
                          {of.shorter.mm > 0 && <small>{of.shorter.text} shorter</small>}
                          {of.seam.mm === 0 && <small>no allowance to add</small>}
                          {of.fault && <small>{of.fault}</small>}
                        </button>
                      ) : (
                        <button type="button" className="cut-cell cut-none" aria-label={`Cut ${p.name} from ${u.name}`} onClick={() => void begin(p, u)}>
                          + cut it
                        </button>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {project.pieces.length === 0 && <p className="quiet">Add the pieces first; a new one is cut from the main cloth.</p>}
      <AddCloth />
      <p className="quiet">A piece that is put to another cloth is cut from it as from the first, until you change it. Trims go by the metre: say under Buy which edges they go on.</p>
      {piece && use && cut && <CutDrawer key={`${piece.id}-${use.id}`} piece={piece} use={use} cut={cut} onClose={() => setOpen(undefined)} />}
    </>
  );
}
