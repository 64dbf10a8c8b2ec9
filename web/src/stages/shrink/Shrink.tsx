import { Button } from "antd";
import { useRef } from "react";
import { api, type Known, type Pair, saved, type SwatchChange } from "../../api/client";
import { useChanges, useProject } from "../../api/hooks";
import { Worked } from "../../app/Working";
import { EntryLength } from "../../fields/Entry";
import { SwatchPicture } from "./SwatchPicture";

type Direction = "warp" | "weft";
const LEAST_ROWS = 3;

function Answer({ name, known }: { name: string; known: Known }) {
  const figure = known.figure;
  if (!figure) return <p className="quiet">{name}: {known.missing}</p>;
  const top = 12;
  const at = (v: number) => `${Math.max(0, Math.min(100, (v / top) * 100))}%`;
  // figures are written with a true minus sign, which a number is not read with
  const number = (text: string | null) => (text ? parseFloat(text.replace("−", "-")) : figure.value);
  const low = number(figure.low);
  const high = number(figure.high);
  return (
    <div className="answer">
      <span className="answer-name">{name}</span>
      <Worked figure={figure} label={`shrinkage, ${name.toLowerCase()}`}>
        <b className="answer-number">{figure.number}</b> <span>{figure.sure ?? "%"}</span>
      </Worked>
      <div className="range" aria-hidden="true">
        <i style={{ left: at(low), right: `calc(100% - ${at(high)})` }} />
        {[0, 4, 8, 12].map((n) => <span key={n} style={{ left: at(n) }}>{n} %</span>)}
      </div>
      <p className="quiet">
        {known.basis === "swatch" ? "from the washed swatch" : "a planning range of common practice: wash a swatch to know"}
      </p>
    </div>
  );
}

/** Readings of one direction, before and after, each kept by itself. */
function Readings({ direction, pairs, onSave }: {
  direction: Direction; pairs: Pair[]; onSave: (pairs: { before: number | string; after: number | string | null }[]) => Promise<unknown>;
}) {
  const table = useRef<HTMLTableElement>(null);
  const rows = Math.max(LEAST_ROWS, pairs.length + (pairs.length >= LEAST_ROWS ? 1 : 0));
  const held = pairs.map((p) => ({ before: p.before.mm as number | string, after: (p.after?.mm ?? null) as number | string | null }));

  function keep(row: number, side: "before" | "after") {
    return async (text: string) => {
      const next = held.map((p) => ({ ...p }));
      if (!next[row]) {
        if (!text.trim()) return;
        if (side === "after") throw Object.assign(new Error("Give the distance before washing first."), { about: () => undefined });
        next.push({ before: text, after: null });
      } else if (text.trim()) next[row][side] = text;
      else if (side === "after") next[row].after = null;
      else next.splice(row, 1);
      const at = Math.min(row, held.length);
      try {
        await onSave(next);
      } catch (fault) {
        const refusal = fault as { fields?: { path: string; message: string }[] };
        for (const f of refusal.fields ?? []) f.path = f.path.replace(`${direction}.${at}.`, `${direction}.${row}.`);
        throw fault;
      }
    };
  }
  /** Enter goes down the column, as one measures; from its foot to the top of the next. */
  function down(row: number, column: number) {
    return () => {
      const fields = [...(table.current?.querySelectorAll("input") ?? [])];
      const next = row + 1 < rows ? (row + 1) * 2 + column : column === 0 ? 1 : undefined;
      if (next !== undefined) setTimeout(() => fields[next]?.focus(), 30);
    };
  }
  return (
    <table className="readings" ref={table}>
      <caption>{direction === "warp" ? "Warp, along the selvage" : "Weft, across"}</caption>
      <thead>
        <tr>
          <th scope="col">before</th>
          <th scope="col">after</th>
        </tr>
      </thead>
      <tbody>
        {Array.from({ length: rows }, (_, i) => (
          <tr key={i}>
            {(["before", "after"] as const).map((side, column) => (
              <td key={side}>
                <EntryLength bare label={`${direction} reading ${i + 1}, ${side}`} path={`${direction}.${i}.${side}`}
                  placeholder={`reading ${i + 1}`} value={(side === "before" ? pairs[i]?.before.text : pairs[i]?.after?.text) ?? ""}
                  onSave={keep(i, side)} onEnter={down(i, column)} />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Shrink: the swatch before and after, and what to plan with. */
export function Shrink() {
  const project = useProject().data!;
  const changes = useChanges();
  const { shrink } = project;
  const { warp_known: warp, weft_known: weft } = shrink;
  const swatch = async (body: SwatchChange) =>
    changes.keep(await saved(api.PUT("/api/projects/{project_id}/swatch", { params: { path: { project_id: changes.id } }, body })));
  const measured = warp.basis === "swatch" && weft.basis === "swatch";
  const purchase = project.purchase;
  const width = project.tally.find((t) => t.key === "width");

  async function square(text: string) {
    // three marks each way of a square swatch, as most people cut it
    const pairs = [0, 1, 2].map(() => ({ before: text, after: null }));
    await swatch({ warp: pairs, weft: pairs });
  }

  return (
    <main className="stage shrink">
      <h1>
        {warp.plan && weft.plan ? (
          <>
            Plan with <Worked figure={warp.plan} label="shrinkage to plan with, along">{warp.plan.text}</Worked> along and{" "}
            <Worked figure={weft.plan} label="shrinkage to plan with, across">{weft.plan.text}</Worked> across
          </>
        ) : (
          "Wash a swatch, to know"
        )}
      </h1>
      {!measured && (
        <p className="look">
          {warp.basis === "range" ? "These are the ranges of common practice for this fibre, not of your cloth. " : ""}
          Cut a square of 25 cm (10 in) along the selvage, stitch its edges, mark the warp, measure, wash and dry it as the finished
          thing will be, press it, and measure again.
        </p>
      )}
      <div className="shrink-grid">
        <div>
          <SwatchPicture project={project} />
          <p className="quiet">
            A square of {shrink.least_swatch.text} or more tells 1 % with this tape
            {shrink.warp.length > 1 ? ` and ${shrink.warp.length} readings` : " and one reading"}.
          </p>
        </div>
        <div className="shrink-readings">
          {shrink.warp.length + shrink.weft.length === 0 && (
            <p className="commands">
              <Button onClick={() => void square("25 cm")}>Marked 25 cm both ways, three times</Button>
              <Button onClick={() => void square("10 in")}>Marked 10 in</Button>
            </p>
          )}
          <div className="readings-two">
            <Readings direction="warp" pairs={shrink.warp} onSave={(pairs) => swatch({ warp: pairs })} />
            <Readings direction="weft" pairs={shrink.weft} onSave={(pairs) => swatch({ weft: pairs })} />
          </div>
          <EntryLength label="The tape is read to" path="graduation" value={shrink.graduation.mm < 2 ? `${Number(shrink.graduation.mm.toFixed(4))} mm` : shrink.graduation.text}
            onSave={(graduation) => swatch({ graduation })} />
          <p className="quiet">Enter goes to the next reading.</p>
        </div>
        <div className="answers">
          <Answer name="Warp" known={warp} />
          <Answer name="Weft" known={weft} />
          {width?.figure && (
            <p>
              Washed and without selvages, <b>{width.figure.text}</b> are left to lay on.
            </p>
          )}
          {purchase && (
            <p>
              Divide, never add: adding would give {purchase.rule_of_thumb.text},{" "}
              <Worked figure={purchase.rule_of_thumb} label="adding instead of dividing">
                {purchase.rule_of_thumb.steps[1]?.result} short
              </Worked>
              .
            </p>
          )}
        </div>
        <div className="treatment">
          <h2>How to wash it</h2>
          <p className="quiet">As the finished thing will be, since that takes out what it would lose later, and no more.</p>
          <ol>
            {shrink.steps.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ol>
          <ul className="cautions">
            {shrink.cautions.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ul>
        </div>
      </div>
    </main>
  );
}
