import { useRef } from 'react';

/**
 * A list that is kept whole, changed one entry at a time. Each change is built on what was sent last, answered or not:
 * typed quickly, none takes back the one before. The client sends them one after another.
 */
export function useHeld<T>(value: T, send: (next: T) => Promise<unknown>) {
  const held = useRef(value);
  const waiting = useRef(0);
  const shown = useRef('');
  const refused = useRef(false);
  const now = JSON.stringify(value);
  // an answer comes before the page that shows it: drawn once more as it was, the page knows less
  // than what was sent; unless that was refused, for then the page may show what another window made of it meanwhile
  if (waiting.current === 0 && (now !== shown.current || refused.current)) {
    held.current = value;
    refused.current = false;
  }
  shown.current = now;
  return async (edit: (held: T) => T): Promise<void> => {
    const before = held.current;
    const next = edit(before);
    held.current = next;
    waiting.current++;
    try {
      await send(next);
    } catch (fault) {
      if (held.current === next) held.current = before;
      refused.current = true;
      throw fault;
    } finally {
      waiting.current--;
    }
  };
}
