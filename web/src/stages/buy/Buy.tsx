import { Link } from "react-router";
import { useChanges, useChoices, useProject, useTape } from "../../api/hooks";
import { OutOfDate } from "../../app/OutOfDate";
import { Worked } from "../../app/Working";
import { Ruler } from "../../cloth-view/Ruler";
import { useSize } from "../../cloth-view/useSize";
import { EntryChoice, EntryLength } from "../../fields/Entry";

const ROW = 62;
const TOP = 40;

/** The purchase as a stack of lengths: each line begins where the one before ends. */
function Stack({ lines, total, toBuy }: { lines: { name: string; adds: { mm: number; text: string } }[]; total: number; toBuy: string }) {
  const { ref, width } = useSize<HTMLDivElement>();
  const tape = useTape();
  const scale = Math.max(0.01, (width - 120) / total);
  let at = 0;
  return (
    <div ref={ref} className="stack">
      {width > 0 && (
        <svg width={width} height={TOP + lines.length * ROW + 12} role="img" aria-label={`The purchase, line by line; together ${toBuy}`}>
          <Ruler scale={scale} length={total} unit={tape.mm} imperial={tape.imperial} x={4} y={TOP - 6} />
          {lines.map((line, i) => {
            const x = 4 + at * scale;
            const w = line.adds.mm * scale;
            const y = TOP + i * ROW + 6;
            at += line.adds.mm;
            const inside = i === 0 && w > 240;
            const label = line.name;
            return (
              <g key={line.name} className={`stack-line stack-${i}`}>
                <rect x={x} y={y} width={Math.max(1.5, w)} height={44} />
                {i > 0 && <line x1={x} x2={x} y1={y - ROW + 44} y2={y} />}
                {inside ? (
                  <>
                    <text x={x + 12} y={y + 28} className="on-dark">{label}</text>
                    <text x={total * scale + 18} y={y + 28} className="strong">{line.adds.text}</text>
                  </>
                ) : (
                  <>
                    <text x={x > 220 ? x - 12 : x + w + 10} y={y + 28} textAnchor={x > 220 ? "end" : "start"}>{label}</text>
                    <text x={total * scale + 18} y={y + 28} className="strong">{i > 0 ? "+ " : ""}{line.adds.text}</text>
                  </>
                )}
              </g>
            );
          })}
          <line className="stack-end" x1={4 + total * scale} x2={4 + total * scale} y1={TOP - 6} y2={TOP + lines.length * ROW} />
        </svg>
      )}
    </div>
  );
}

/** Buy: one cloth, one lay; what to ask for at the counter. */
export function Buy() {
  const project = useProject().data!;
  const { purchase, wishes } = project;
  const changes = useChanges();
  const choices = useChoices();
  const step = choices?.steps.find((s) => Math.abs(Number(s.value) - wishes.shop_step.mm) < 0.01);
  const stale = project.stages.find((s) => s.name === "buy" && s.state === "look-again");
  return (
    <main className="stage with-facts">
      <div className="picture-side">
        {purchase ? (
          <>
            <h1>
              Ask for <Worked figure={purchase.to_buy} label="to buy">{purchase.to_buy.text}</Worked> of{" "}
              {project.cloth.name || "the cloth"}
            </h1>
            {stale && <OutOfDate why={stale.why} />}
            <Stack lines={purchase.lines} total={purchase.to_buy.value} toBuy={purchase.to_buy.text} />
          </>
        ) : (
          <>
            <h1>How much to ask for</h1>
            <p>
              {project.tally.find((t) => t.key === "to_buy")?.missing}{" "}
              <Link to={`/projects/${project.id}/lay`}>To the lay</Link>
            </p>
          </>
        )}
      </div>
      <aside className="facts">
        {purchase && (
          <section>
            <h2>Beside the rule of thumb</h2>
            <p>
              Adding the shrinkage would give <Worked figure={purchase.rule_of_thumb} label="adding instead of dividing">{purchase.rule_of_thumb.text}</Worked>,{" "}
              {purchase.rule_of_thumb.steps[1]?.result} short: a cloth shrinks by a share of what is bought, not of what is needed.
            </p>
            {purchase.cost && (
              <p>
                It costs <Worked figure={purchase.cost} label="cost">{purchase.cost.text}</Worked>
                .
              </p>
            )}
            <p>
              <Worked figure={purchase.spare} label="spare">{purchase.spare.text}</Worked> are left after cutting.
            </p>
            {purchase.in_hand_short && (
              <p className={purchase.in_hand_short.value > 0.5 ? "spoil" : "good"}>
                {purchase.in_hand_short.value > 0.5 ? (
                  <>
                    The {project.cloth.in_hand?.text} in hand are{" "}
                    <Worked figure={purchase.in_hand_short} label="short by">{purchase.in_hand_short.text}</Worked> short.
                  </>
                ) : (
                  <>The {project.cloth.in_hand?.text} in hand will do.</>
                )}
              </p>
            )}
          </section>
        )}
        <section>
          <h2>For this purchase</h2>
          <EntryChoice label="The shop cuts in steps of" value={step?.value ?? ""} options={choices?.steps ?? []} placeholder={wishes.shop_step.text}
            onSave={(v) => changes.purchase({ shop_step: Number(v) })} />
          <EntryLength label="Both ends, to straighten" path="ends" value={wishes.ends.text} onSave={(ends) => changes.purchase({ ends })} />
          <EntryLength label="Spare, on purpose" path="spare" value={wishes.spare.text} onSave={(spare) => changes.purchase({ spare })} />
          <p className="quiet">Common practice: up to 5 cm (2 in) at each end to make a true edge.</p>
        </section>
      </aside>
    </main>
  );
}
