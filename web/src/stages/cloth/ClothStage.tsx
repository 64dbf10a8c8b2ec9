import { useCallback, useState } from "react";
import { useChanges, useChoices, useProject } from "../../api/hooks";
import { Worked } from "../../app/Working";
import { EntryChoice, EntryLength, EntryText, EntryTick } from "../../fields/Entry";
import { ClothPicture } from "./ClothPicture";

/** Cloth: what is known of it, drawn to scale as it is typed. */
export function ClothStage() {
  const project = useProject().data!;
  const { cloth } = project;
  const changes = useChanges();
  const choices = useChoices();
  const [typing, setTyping] = useState<Record<string, number | undefined>>({});
  const typed = useCallback((key: string) => (mm: number | undefined) => setTyping((old) => (old[key] === mm ? old : { ...old, [key]: mm })), []);
  const width = project.tally.find((t) => t.key === "width");

  function reading(i: number) {
    return async (text: string) => {
      const kept: (number | string)[] = cloth.width_readings.map((r) => r.mm);
      if (text.trim()) kept[Math.min(i, kept.length)] = text;
      else kept.splice(i, 1);
      try {
        await changes.cloth({ width_readings: kept });
      } catch (fault) {
        const refusal = fault as { fields?: { path: string; message: string }[] };
        const at = Math.min(i, cloth.width_readings.length);
        for (const f of refusal.fields ?? []) if (f.path === `width_readings.${at}`) f.path = `width_readings.${i}`;
        throw fault;
      }
    };
  }
  const optional = (key: "in_hand" | "mass" | "price") => (text: string) => changes.cloth({ [key]: text.trim() ? text : null });

  return (
    <main className="stage with-facts">
      <div className="picture-side">
        <h1>
          {width?.figure ? (
            <>
              <Worked figure={width.figure} label="width after washing">{width.figure.text}</Worked> to lay on after washing
            </>
          ) : cloth.width_readings.length === 0 ? (
            "How wide is the cloth?"
          ) : (
            width?.missing
          )}
        </h1>
        {width?.figure?.note && <p className="look">{width.figure.note}</p>}
        <ClothPicture cloth={cloth} typing={typing} />
      </div>
      <aside className="facts">
        <EntryText label="Name" path="name" value={cloth.name} placeholder="such as Linen stripe" onSave={(name) => changes.cloth({ name })} />
        <EntryChoice label="Made of" value={cloth.kind} options={choices?.kinds ?? []} placeholder="choose the nearest" onSave={(kind) => changes.cloth({ kind })} />
        <fieldset>
          <legend>Width, selvage to selvage, in three places</legend>
          <div className="three">
            {[0, 1, 2].map((i) => (
              <EntryLength key={i} bare label={`Width, reading ${i + 1}`} path={`width_readings.${i}`} placeholder={`place ${i + 1}`}
                value={cloth.width_readings[i]?.text ?? ""} onTyping={typed(`width_readings.${i}`)} onSave={reading(i)} />
            ))}
          </div>
        </fieldset>
        <div className="two">
          <EntryLength label="Near selvage not used" path="margin_low" value={cloth.margin_low.text} onTyping={typed("margin_low")} onSave={(v) => changes.cloth({ margin_low: v })} />
          <EntryLength label="Far selvage not used" path="margin_high" value={cloth.margin_high.text} onTyping={typed("margin_high")} onSave={(v) => changes.cloth({ margin_high: v })} />
          <EntryLength label="Length in hand, if any" path="in_hand" value={cloth.in_hand?.text ?? ""} onTyping={typed("in_hand")} onSave={optional("in_hand")} />
          <EntryText label="Weight" path="mass" unit="g/m²" value={cloth.mass?.toString() ?? ""} onSave={optional("mass")} />
          <EntryText label="Price" path="price" unit={`per ${cloth.price_unit}`} value={cloth.price?.toFixed(2) ?? ""} onSave={optional("price")} />
          <EntryChoice label="Price is for one" value={cloth.price_unit} options={[{ value: "m", label: "metre" }, { value: "yd", label: "yard" }]}
            onSave={(v) => changes.cloth({ price_unit: v as "m" })} />
          <EntryChoice label="Colour depth" value={cloth.depth} options={["light", "medium", "dark"].map((v) => ({ value: v, label: v }))}
            onSave={(v) => changes.cloth({ depth: v as "light" })} />
          <div className="entry">
            <label htmlFor="ground">Colour in the picture</label>
            <input id="ground" type="color" value={cloth.ground} onChange={(e) => void changes.cloth({ ground: e.target.value })} />
          </div>
        </div>
        <EntryTick label="Nap, pile or a print with a top: all tops the same way" value={cloth.one_way} onSave={(one_way) => changes.cloth({ one_way })} />
      </aside>
    </main>
  );
}
