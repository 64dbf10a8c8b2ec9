import { useMutation } from '@tanstack/react-query';
import { useRef } from 'react';

/**
 * A command. What the server said against it stands in `error` until it is tried again, in `refusal` with the entries it
 * is about. `once`: not begun a second time while it is under way, however often it is touched.
 */
export function useAct<A extends unknown[]>(command: (...given: A) => Promise<unknown>, { once = false } = {}) {
  const under = useRef(false);
  const { mutateAsync, isPending, error, reset } = useMutation({ mutationFn: (given: A) => command(...given) });
  return {
    busy: isPending,
    error: error?.message ?? '',
    refusal: error,
    forget: reset,
    run: async (...given: A) => {
      if (once && under.current) return;
      under.current = true;
      // what went wrong is told beside the command
      await mutateAsync(given).catch(() => undefined);
      under.current = false;
    },
  };
}
