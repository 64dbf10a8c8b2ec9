import type { Project } from "../api/client";
import { Warnings } from "./Warnings";
import { Worked } from "./Working";

/** The few figures a project is steered by, along the bottom, each with its working. */
export function TallyBar({ project }: { project: Project }) {
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
      <Warnings project={project} />
    </footer>
  );
}
