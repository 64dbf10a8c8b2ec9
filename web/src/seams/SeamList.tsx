import type { Match } from '../api/client';
import { called, CLASSES, SIGNS } from './Verdict';

/** Every seam with what its bars come to, the worst first. */
export function SeamList({
  match,
  chosen,
  onChoose,
}: {
  match: Match;
  chosen?: number | undefined;
  onChoose: (id: number) => void;
}) {
  const of = new Map(match.seams.map((s) => [s.id, s]));
  return (
    <ul className="plain-list seam-list">
      {match.worst_first.map((id) => {
        const seam = of.get(id);
        return (
          seam && (
            <li key={id}>
              <button
                type="button"
                className={`seam-line ${CLASSES[seam.verdict]}`}
                aria-pressed={id === chosen}
                onClick={() => onChoose(id)}
              >
                <b aria-hidden="true">{SIGNS[seam.verdict]}</b>
                <span>
                  {called(seam)}
                  <small>
                    {seam.told}
                    {seam.mean && `, ${seam.mean.text} on the whole`}
                  </small>
                </span>
              </button>
            </li>
          )
        );
      })}
    </ul>
  );
}
