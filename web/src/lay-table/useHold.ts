import { useCallback, useEffect, useRef, useState } from 'react';
import { api, type Bands, type Place, unwrap } from '../api/client';
import { useAsked } from '../api/hooks';

/** What is in the hand: placements by their keys, or a copy of a piece from the tray. */
export type Held = { keys: string[]; piece?: string; mirrored?: boolean };
/** A hold: where its origin was, and where the pointer took it; millimetres on the cloth. */
export type Hold = Held & { origin: [number, number]; pointer: [number, number] };

/** Things nearer than so many pixels draw a piece to them. */
const CATCH_PX = 9;

/**
 * A piece in the hand. The server says where it may lie nearest to the pointer; one question is on its way at a time,
 * and the newest place is asked for as soon as the answer is there.
 */
export function useHold(layId: number, loose: boolean, onDrop: (hold: Hold, place: Place) => Promise<unknown>) {
  const { params } = useAsked();
  const [hold, setHold] = useState<Hold>();
  const [place, setPlace] = useState<Place>();
  const [light, setLight] = useState<Bands>();
  const now = useRef<{ hold: Hold; wanted: [number, number]; scale: number; asked: boolean; dropped: boolean }>(
    undefined,
  );
  const last = useRef<Place>(undefined);
  const drop = useRef(onDrop);
  useEffect(() => {
    drop.current = onDrop;
  }, [onDrop]);

  const asking = useCallback(
    (held: Held) => ({
      path: params.path,
      query: {
        ...params.query,
        lay_id: layId,
        keys: held.keys,
        piece: held.piece ?? '',
        mirrored: held.mirrored ?? false,
        loose,
      },
    }),
    [params.path, params.query, layId, loose],
  );

  const ask = useCallback(async () => {
    const mine = now.current;
    if (!mine || mine.asked) return;
    mine.asked = true;
    for (;;) {
      const [x, y] = mine.wanted;
      const { path, query } = asking(mine.hold);
      let found: Place;
      try {
        found = await unwrap(
          api.GET('/api/projects/{project_id}/lay/near', {
            params: { path, query: { ...query, x, y, within: CATCH_PX / mine.scale } },
          }),
        );
      } catch {
        found = { there: false, x: 0, y: 0, section: 0, caught: [], outline: null };
      }
      if (now.current !== mine) return;
      if (found.there) {
        last.current = found;
        setPlace(found);
      }
      if (mine.wanted[0] === x && mine.wanted[1] === y) break;
    }
    mine.asked = false;
    if (mine.dropped) await end();
  }, [asking]);

  async function end() {
    const mine = now.current;
    const there = last.current;
    now.current = undefined;
    setLight(undefined);
    if (mine && there) await drop.current(mine.hold, there);
    if (now.current !== undefined) return;
    last.current = undefined;
    setHold(undefined);
    setPlace(undefined);
  }

  const take = useCallback(
    (held: Hold, scale: number) => {
      const mine = { hold: held, wanted: held.origin, scale, asked: false, dropped: false };
      now.current = mine;
      last.current = undefined;
      setHold(held);
      setPlace(undefined);
      void ask();
      void unwrap(api.GET('/api/projects/{project_id}/lay/light', { params: asking(held) }))
        .then((found) => now.current === mine && setLight(found.bands))
        .catch(() => undefined);
    },
    [ask, asking],
  );
  const carry = useCallback(
    (x: number, y: number) => {
      const mine = now.current;
      if (!mine) return;
      mine.wanted = [mine.hold.origin[0] + x - mine.hold.pointer[0], mine.hold.origin[1] + y - mine.hold.pointer[1]];
      void ask();
    },
    [ask],
  );
  const letGo = useCallback(() => {
    const mine = now.current;
    if (!mine) return;
    mine.dropped = true;
    if (!mine.asked) void end();
  }, []);
  const leave = useCallback(() => {
    now.current = undefined;
    last.current = undefined;
    setHold(undefined);
    setPlace(undefined);
    setLight(undefined);
  }, []);
  return { hold, place, light, take, carry, letGo, leave };
}
