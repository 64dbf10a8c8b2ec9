import { Button, Input } from "antd";
import { useState } from "react";
import { Link } from "react-router";
import type { Project } from "../../api/client";
import { useChanges, useChoices, useCupboard } from "../../api/hooks";
import { Worked } from "../../app/Working";

const RESTS_ON: Record<string, string> = { swatch: "swatch", history: "your tests", range: "planning range", none: "not known", raw: "raw" };

/** Every cloth, lining, interfacing and trim of the project, side by side. */
export function SetPart({ project }: { project: Project }) {
  const changes = useChanges();
  const choices = useChoices();
  const cupboard = useCupboard();
  const [role, setRole] = useState("lining");
  const [name, setName] = useState("");
  const [error, setError] = useState("");
  const { members, mismatches, all_washed, wanted } = project.set;
  const inside = new Set(members.map((m) => m.cloth_id));
  const others = (cupboard.data?.cloths ?? []).filter((l) => l.cloth.name && !inside.has(l.cloth.id));
  async function add(body: { cloth_id?: number; name?: string }) {
    setError("");
    try {
      await changes.beside({ ...body, role });
      setName("");
    } catch (fault) {
      setError((fault as Error).message);
    }
  }
  return (
    <>
      <h1>
        {members.length === 1 ? "One cloth, and nothing beside it yet"
          : mismatches.length ? "Some of these would pucker, sewn together"
          : "These shrink alike"}
      </h1>
      {mismatches.map((m) => <p key={m} className="spoil">{m}</p>)}
      {wanted.map((w) => <p key={w} className="look">{w}</p>)}
      {all_washed && <p className="look">{all_washed}</p>}
      <table className="set-table">
        <thead>
          <tr><th scope="col">cloth</th><th scope="col">made of</th><th scope="col">along</th><th scope="col">across</th><th scope="col">rests on</th><th scope="col">treatment</th><th scope="col">rub test</th><th scope="col" /></tr>
        </thead>
        <tbody>
          {members.map((m) => (
            <tr key={m.cloth_id}>
              <th scope="row"><Link to={m.role === "main" ? `/projects/${project.id}/cloth` : `/cupboard/${m.cloth_id}`}>{m.name}</Link><small>{m.role_label}</small></th>
              <td>{m.made_of || "—"}</td>
              <td>{m.warp ? <Worked figure={m.warp} label={`shrinkage along, ${m.name}`}>{m.warp.text}</Worked> : "—"}</td>
              <td>{m.weft ? <Worked figure={m.weft} label={`shrinkage across, ${m.name}`}>{m.weft.text}</Worked> : "—"}</td>
              <td>{RESTS_ON[m.basis] ?? m.basis}</td>
              <td>{m.washed ? <span className="good">✓ pre-treated</span> : m.treatment}</td>
              <td>{m.rub || "—"}</td>
              <td>{m.role !== "main" && <Button type="text" onClick={() => void changes.notBeside(m.cloth_id)} aria-label={`Take ${m.name} from the set`}>remove</Button>}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <form className="bench-new" onSubmit={(e) => { e.preventDefault(); void add({ name }); }}>
        <label htmlFor="set-role">Put beside it</label>
        <select id="set-role" className="choice" value={role} onChange={(e) => setRole(e.target.value)}>
          {choices?.roles.map((r) => <option key={r.value} value={r.value}>{r.label}</option>)}
        </select>
        <Input aria-label="Its name" value={name} onChange={(e) => setName(e.target.value)} placeholder="a new one, by its name" />
        <Button htmlType="submit">Put beside</Button>
        {others.length > 0 && (
          <select aria-label="Or one of the cupboard" className="choice" value="" onChange={(e) => void add({ cloth_id: Number(e.target.value) })}>
            <option value="" disabled>or one of the cupboard</option>
            {others.map((l) => <option key={l.cloth.id} value={l.cloth.id}>{l.cloth.name}</option>)}
          </select>
        )}
        {error && <span className="say spoil" role="alert">{error}</span>}
      </form>
      <p className="quiet">Cloths sewn together may differ by 2 points in the same direction (common practice). Trims and interfacing shrink too.</p>
    </>
  );
}
