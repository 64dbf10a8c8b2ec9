import { Link } from "react-router";
import type { Project } from "../api/client";
import { useAt } from "../api/hooks";
import { stageNames } from "../words/stages";
import { Worked } from "./Working";

/** The few figures a project is steered by, along the bottom, each with its working. */
export function TallyBar({ project }: { project: Project }) {
  const at = useAt();
  const spoil = project.warnings.find((w) => w.level === "spoil");
  const first = spoil ?? project.warnings[0];
  return (
    <footer className="tally" aria-label="Tally">
      {project.tally.map((entry) => (
        <div key={entry.key} className="tally-entry" data-key={entry.key}>
          <span className="tally-label">{entry.label}</span>
          {entry.figure ? (
            <Worked figure={entry.figure} label={entry.label}>
              <b>{entry.figure.number}</b> <small>{entry.figure.unit} {entry.figure.sure}</small>
            </Worked>
          ) : (
            <span className="tally-missing" title={entry.missing}>
              —
            </span>
          )}
        </div>
      ))}
      <div className="tally-entry tally-warnings" role="status">
        <span className="tally-label">
          {project.warnings.length === 0 ? "nothing to look at again" : `look again (${project.warnings.length})`}
        </span>
        {first && (
          <Link to={at(first.stage)} className={first.level === "spoil" ? "spoil" : "look"}
            title={project.warnings.map((w) => w.text).join("\n")}>
            {stageNames[first.stage]}: {first.text}
          </Link>
        )}
      </div>
    </footer>
  );
}
