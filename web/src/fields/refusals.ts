import { useSyncExternalStore } from 'react';

/** A field whose value was refused, for as long as it stands there. */
export type Refused = { id: string; label: string; message: string; go: () => void };

/** Of a command that no field stands for: seen until it is put aside, or until something else was done. */
export const COMMAND = 'command';

let list: readonly Refused[] = [];
const listeners = new Set<() => void>();

function set(next: readonly Refused[]) {
  list = next;
  for (const listener of listeners) listener();
}

/** The fields that were refused and not mended yet, the latest first: the head of the page names them. */
export const refusals = {
  add: (one: Refused) => set([one, ...list.filter((r) => r.id !== one.id)]),
  drop(id: string) {
    if (list.some((r) => r.id === id)) set(list.filter((r) => r.id !== id));
  },
};

export function useRefusals() {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => list,
  );
}

/** Whether somebody is in the middle of typing something else: the hand is not taken from there. */
export function busyElsewhere(own: HTMLElement | null) {
  const active = document.activeElement as HTMLElement | null;
  return active !== null && active !== own && active.dataset['pending'] === 'true';
}
