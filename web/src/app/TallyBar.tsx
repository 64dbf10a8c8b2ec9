import { Link } from 'react-router';
import type { Project } from '../api/client';
import { useAt } from '../api/hooks';
import { Warnings } from './Warnings';
import { Worked } from './Working';
import { Tip } from './Tip';

/** The few figures a project is steered by, along the bottom, each with its working. */
export function TallyBar({ project }: { project: Project }) {
  const at = useAt();
  return (
    <footer className="tally" aria-label="Tally">
      {project.tally.map((entry) => (
        <div key={entry.key} className="tally-entry" data-key={entry.key}>
          <span className="tally-label">{entry.label}</span>
          {entry.figure ? (
            <Worked figure={entry.figure} label={entry.label}>
              <b>{entry.figure.number}</b>{' '}
              <small>
                {entry.figure.unit} {entry.figure.sure}
              </small>
            </Worked>
          ) : (
            <Tip title={entry.missing}>
              <Link className="tally-missing" to={at(entry.goes)} aria-label={`${entry.label}: ${entry.missing}`}>
                —
              </Link>
            </Tip>
          )}
        </div>
      ))}
      <Warnings project={project} />
    </footer>
  );
}
