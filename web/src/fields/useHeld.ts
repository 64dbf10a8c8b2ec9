import { useRef } from "react";

/**
 * A list that is kept whole, changed one entry at a time. Each change is built on what was sent last, answered or not, and
 * they are sent one after another: typed quickly, none takes back the one before.
 */
export function useHeld<T>(value: T, send: (next: T) => Promise<unknown>) {
  const held = useRef(value);
  const waiting = useRef(0);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  if (waiting.current === 0) held.current = value;
  return async (edit: (held: T) => T): Promise<void> => {
    const before = held.current;
    const next = edit(before);
    held.current = next;
    waiting.current++;
    const sent = queue.current.then(() => send(next));
    queue.current = sent.catch(() => undefined);
    try {
      await sent;
    } catch (fault) {
      if (held.current === next) held.current = before;
      throw fault;
    } finally {
      waiting.current--;
    }
  };
}
