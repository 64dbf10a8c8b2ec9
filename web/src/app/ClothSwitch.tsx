import { Link, useLocation } from 'react-router';
import type { Project, Use } from '../api/client';
import { CLOTH } from '../api/hooks';
import { ClothPattern } from '../draw/ClothPattern';
import { useKept, type At } from './going';

/** A piece of cloth, small: which one it is, seen at a glance. */
export function Patch({ use, size = 30 }: { use: Use; size?: number }) {
  const id = `patch-${use.id}-${size}`;
  return (
    <svg width={size} height={size} aria-hidden="true" className="patch">
      <defs>
        <ClothPattern id={id} cloth={use} scale={0.28} />
      </defs>
      <rect width={size} height={size} fill={`url(#${id})`} />
      <rect width={size} height={size} fill={`url(#${id}-weave)`} />
    </svg>
  );
}

/** Where nothing is one cloth's: the plan holds for all of them, and the log is the garment's. */
const OF_ALL = ['plan', 'log'];

/** The cloths of the garment: the page shows one of them, and the address says which. */
export function ClothSwitch({ project }: { project: Project }) {
  const kept = useKept();
  const stage = useLocation().pathname.split('/').at(-1) ?? '';
  if (project.uses.length < 2 || OF_ALL.includes(stage)) return null;
  const another =
    (use: Use, first: boolean) =>
    ({ pathname, search }: At) => {
      const next = new URLSearchParams(search);
      if (first) next.delete(CLOTH);
      else next.set(CLOTH, String(use.id));
      return { pathname, search: next.toString() };
    };
  return (
    <nav className="cloths" aria-label="Cloths of this garment">
      {project.uses.map((use, i) => (
        <Link
          key={use.id}
          {...kept(another(use, i === 0))}
          aria-current={use.id === project.use_id ? 'true' : undefined}
        >
          <Patch use={use} />
          <span>
            <b>{use.name}</b>
            <small>
              {use.role_label}
              {use.look_again && ', look again'}
            </small>
          </span>
        </Link>
      ))}
    </nav>
  );
}
