import { Link, NavLink } from 'react-router';
import type { Stage } from '../api/client';
import { clothIn, pageAt } from '../api/hooks';
import { stageNames, stateWords } from '../words/stages';
import { useKept } from './going';
import { Tip } from './Tip';

/** A printed dot: ring, half, full, full with a folded corner. Its word and title say the same. */
export function Dot({ state, size = 22 }: { state: Stage['state']; size?: number }) {
  const full = state === 'done' || state === 'look-again';
  return (
    <svg width={size} height={size} viewBox="-12 -12 24 24" aria-hidden="true" className={`dot dot-${state}`}>
      <circle r="9" fill={full ? 'currentColor' : 'none'} stroke="currentColor" strokeWidth="1.8" />
      {state === 'begun' && <path d="M0,-9 A9,9 0 0 0 0,9 Z" fill="currentColor" />}
      {state === 'look-again' && <path d="M2,-12 H12 V-2 Z" className="dot-corner" />}
    </svg>
  );
}

/** The selvage rail: a woven edge with one printed dot and word per stage. */
export function Rail({ stages, projectId }: { stages: Stage[] | undefined; projectId: number | undefined }) {
  const kept = useKept();
  return (
    <nav className="rail" aria-label="Stages">
      <Link to="/" className="wordmark">
        Idle
        <br />
        Selvage
      </Link>
      {Object.entries(stageNames).map(([name, word]) => {
        const stage = stages?.find((s) => s.name === name);
        const state = stage?.state ?? 'empty';
        const say = `${word}: ${stateWords[state]}${stage?.why && state !== 'done' ? `. ${stage.why}` : ''}`;
        const inside = (
          <>
            <Dot state={state} />
            <span>{word}</span>
          </>
        );
        return projectId === undefined ? (
          <Tip key={name} placement="right" title="Open a project first">
            <span className="rail-stage rail-off" aria-disabled="true">
              {inside}
            </span>
          </Tip>
        ) : (
          <Tip key={name} placement="right" title={say}>
            <NavLink
              {...kept(({ search }) => pageAt(projectId, name, clothIn(new URLSearchParams(search))))}
              className="rail-stage"
              aria-description={say}
            >
              {inside}
            </NavLink>
          </Tip>
        );
      })}
    </nav>
  );
}
