import { useState } from "react";
import { useSearchParams } from "react-router";
import { useProject, useShrink } from "../../api/hooks";
import { Sections } from "../../app/Sections";
import { DraftScope, EntryChoice } from "../../fields/Entry";
import { SetPart } from "./SetPart";
import { SwatchPart } from "./SwatchPart";
import { TreatPart } from "./TreatPart";
import { WashdayPart } from "../../washday/WashdayPart";

const PARTS = [
  { value: "swatch", label: "Swatch" },
  { value: "treat", label: "How to wash it" },
  { value: "set", label: "Cloths together" },
  { value: "day", label: "Washing day" },
] as const;
type Part = (typeof PARTS)[number]["value"];

/** Shrink: swatches, treatment, the cloths that go together, and the day they are washed. */
export function Shrink() {
  const project = useProject().data!;
  const [search, setSearch] = useSearchParams();
  const [clothId, setClothId] = useState(project.cloth.id);
  const part = PARTS.find((p) => p.value === search.get("part"))?.value ?? "swatch";
  const known = project.set.members.some((m) => m.cloth_id === clothId) ? clothId : project.cloth.id;
  const shrink = useShrink(known).data;
  const choose = (value: Part) => setSearch(value === "swatch" ? {} : { part: value }, { replace: true });
  return (
    <main className="stage shrink">
      <div className="stage-head">
        <Sections label="Parts of Shrink" parts={PARTS} value={part} onChoose={choose} />
        {(part === "swatch" || part === "treat") && project.set.members.length > 1 && (
          <div className="which-cloth">
            <EntryChoice label="of" value={String(known)} onSave={async (v) => setClothId(Number(v))}
              options={project.set.members.map((m) => ({ value: String(m.cloth_id), label: `${m.name} (${m.role_label})` }))} />
          </div>
        )}
      </div>
      {part === "set" ? (
        <SetPart project={project} />
      ) : part === "day" ? (
        <WashdayPart />
      ) : !shrink ? (
        <p className="quiet">Fetching …</p>
      ) : part === "swatch" ? (
        <DraftScope value={`cloth-${known}`}>
          <SwatchPart key={known} project={project} shrink={shrink} />
        </DraftScope>
      ) : (
        <DraftScope value={`cloth-${known}`}>
          <TreatPart key={known} project={project} shrink={shrink} />
        </DraftScope>
      )}
    </main>
  );
}
