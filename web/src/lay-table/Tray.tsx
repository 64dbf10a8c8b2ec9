import { Button } from 'antd';
import type { PointerEvent } from 'react';
import type { Aside, Gesture } from '../api/client';
import { bounds, points } from '../draw/outline';

/** What is asked for and lies beside the cloth; a piece is dragged from here onto it, or laid where there is room. */
export function Tray({
  tray,
  onLift,
  onDo,
}: {
  tray: readonly Aside[];
  onLift: (aside: Aside, event: PointerEvent) => void;
  onDo: (gesture: Gesture) => Promise<boolean>;
}) {
  return (
    <section className="tray" aria-label="The tray">
      <h2>On the tray</h2>
      {tray.map((one) => {
        const box = bounds(one.outline);
        const k = Math.min(84 / (box.x1 - box.x0), 44 / (box.y1 - box.y0));
        return (
          <div key={one.piece} className="on-tray">
            <svg
              width={88}
              height={48}
              role="img"
              aria-label={`${one.name}, drag it onto the cloth`}
              onPointerDown={(event) => {
                event.preventDefault();
                onLift(one, event);
              }}
            >
              <polygon points={points(one.outline, k, 2 - box.x0 * k, 46 + box.y0 * k)} />
            </svg>
            <span>
              <b>{one.name}</b>
              <small>
                {one.count} {one.mirrored > 0 && `(${one.mirrored} turned over)`}
              </small>
            </span>
            <Button onClick={() => void onDo({ do: 'take', piece: one.piece })} aria-label={`Lay ${one.name}`}>
              Lay it
            </Button>
          </div>
        );
      })}
    </section>
  );
}
