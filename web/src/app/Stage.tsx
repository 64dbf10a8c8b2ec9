import type { ReactNode } from 'react';
import { toMainCommand } from './Keys';

/** The page of a stage. By keys its first stop leads on to its main command. */
export function Stage({ className, children }: { className?: string; children: ReactNode }) {
  return (
    <main className={className ? `stage ${className}` : 'stage'}>
      <button type="button" className="skip-here" onClick={toMainCommand}>
        To the main command
      </button>
      {children}
    </main>
  );
}
