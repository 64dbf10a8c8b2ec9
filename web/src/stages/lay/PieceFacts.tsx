import { Button, Popover } from 'antd';
import { useState } from 'react';
import type { Choices, Gesture, Lay, Shape } from '../../api/client';
import { Worked } from '../../app/Working';
import { useAgreeing } from '../../lay-table/useAgreeing';

type Do = (gesture: Gesture) => Promise<boolean>;

/** What is done to what is chosen. */
export function Gestures({
  shapes,
  folded,
  loose,
  onDo,
}: {
  shapes: readonly Shape[];
  folded: boolean;
  loose: boolean;
  onDo: Do;
}) {
  const keys = shapes.map((s) => s.pinned);
  const [first] = shapes;
  if (!first) return null;
  const one = shapes.length === 1;
  const locked = shapes.every((s) => s.locked);
  return (
    <p className="gestures" role="group" aria-label="What to do with it">
      {one && (
        <>
          <Button onClick={() => void onDo({ do: 'turn', keys, by: 180, loose })}>End for end</Button>
          <Button onClick={() => void onDo({ do: 'turn', keys, by: 90, loose })}>Quarter turn</Button>
          <Button onClick={() => void onDo({ do: 'over', keys, loose })}>Turn over</Button>
          {folded && (
            <Button onClick={() => void onDo({ do: first.layers === 2 ? 'one-layer' : 'two-layers', keys })}>
              {first.layers === 2 ? 'One layer' : 'Two layers'}
            </Button>
          )}
        </>
      )}
      <Button onClick={() => void onDo({ do: 'aside', keys })}>Aside</Button>
      <Button onClick={() => void onDo({ do: 'lock', keys })}>{locked ? 'Unlock' : 'Lock'}</Button>
      {one && <Degrees onTurn={(by) => onDo({ do: 'turn', keys, by, loose })} />}
    </p>
  );
}

/** To the next place at which its bars agree, and with all that meet the same bars. */
export function Steps({
  lay,
  shape,
  loose,
  onDo,
  onChoose,
}: {
  lay: Lay;
  shape: Shape;
  loose: boolean;
  onDo: Do;
  onChoose: (keys: string[]) => void;
}) {
  const found = useAgreeing(lay, shape);
  if (!found || (!found.along && !found.across)) return null;
  const step = (x: number, y: number) => void onDo({ do: 'step', keys: [shape.pinned], x, y, loose });
  return (
    <section aria-label="On the bars">
      <p className="quiet">
        Its bars agree every{' '}
        {[found.along && `${found.along.text} along`, found.across && `${found.across.text} across`]
          .filter(Boolean)
          .join(' and ')}
        .
      </p>
      <p className="gestures" role="group" aria-label="Next place on the bars">
        {found.along && (
          <>
            <Button onClick={() => step(-1, 0)}>Bars back</Button>
            <Button onClick={() => step(1, 0)}>Bars on</Button>
          </>
        )}
        {found.across && (
          <>
            <Button onClick={() => step(0, 1)}>Bars up</Button>
            <Button onClick={() => step(0, -1)}>Bars down</Button>
          </>
        )}
        {found.group.length > 1 && <Button onClick={() => onChoose(found.group)}>All that meet it</Button>}
      </p>
    </section>
  );
}

/** Off its grain on purpose, by so many degrees. */
function Degrees({ onTurn }: { onTurn: (by: number) => Promise<boolean> }) {
  const [text, setText] = useState('3');
  const degrees = /^\s*[-−]?\d{1,3}\s*°?\s*$/.test(text) ? Number(text.replace('−', '-').replace(/[^\d-]/g, '')) : NaN;
  const turn = (way: number) => void onTurn(way * degrees);
  return (
    <Popover
      trigger="click"
      title="Off its grain, on purpose"
      content={
        <div className="degrees">
          <label>
            by degrees <input value={text} onChange={(e) => setText(e.target.value)} aria-label="Degrees" size={4} />
          </label>
          <Button disabled={Number.isNaN(degrees)} onClick={() => turn(1)}>
            to the left
          </Button>
          <Button disabled={Number.isNaN(degrees)} onClick={() => turn(-1)}>
            to the right
          </Button>
          {Number.isNaN(degrees) && <p className="look">Whole degrees, such as 3.</p>}
        </div>
      }
    >
      <Button>By degrees …</Button>
    </Popover>
  );
}

/** Another grain on this lay only, with the reason. */
function OwnGrain({ lay, shape, choices, onDo }: { lay: Lay; shape: Shape; choices: Choices | undefined; onDo: Do }) {
  const piece = shape.piece_id;
  const [why, setWhy] = useState('');
  return (
    <Popover
      trigger="click"
      title="Its grain, on this lay only"
      content={
        <div className="degrees">
          <label>
            why <input value={why} onChange={(e) => setWhy(e.target.value)} aria-label="Why" />
          </label>
          {choices?.grains.map((grain) => (
            <Button
              key={grain.value}
              aria-pressed={lay.grains[piece] === grain.value}
              onClick={() => void onDo({ do: 'grain', piece, grain: grain.value as Gesture['grain'] & string, why })}
            >
              {grain.label}
            </Button>
          ))}
        </div>
      }
    >
      <Button size="small" type="link">
        another grain on this lay …
      </Button>
    </Popover>
  );
}

/** Where a piece lies, and how it is pinned. */
export function PieceFacts({
  shape,
  lay,
  choices,
  onDo,
}: {
  shape: Shape;
  lay: Lay;
  choices: Choices | undefined;
  onDo: Do;
}) {
  const edge = shape.edge === 'cut end' ? 'the cut end' : `the ${shape.edge}`;
  return (
    <section aria-label="The chosen piece" className="piece-facts">
      <h2>{shape.name}</h2>
      <p>
        from the {shape.from_what} {shape.from_end}
      </p>
      <p>
        arrow to {edge}{' '}
        <b>
          <Worked figure={shape.tail_figure} label={`tail to ${shape.edge}`}>
            {shape.tail_distance.text}
          </Worked>
        </b>{' '}
        and{' '}
        <b>
          <Worked figure={shape.head_figure} label={`head to ${shape.edge}`}>
            {shape.head_distance.text}
          </Worked>
        </b>
      </p>
      <p>
        {shape.layers === 2 ? 'two layers' : 'one layer'}, {shape.mirrored ? 'turned over' : 'face up'}
        {shape.turn ? `, turned by ${shape.turn}°` : ''}
        {shape.locked ? ', locked' : ''}
      </p>
      <p className={shape.lies === 'straight' ? 'good' : 'quiet'}>
        {shape.lies === 'straight' && '✓ '}
        {shape.lies_told}
      </p>
      {shape.hem && (
        <p className="look">
          The border is straight: its hem loses its curve, by {shape.hem.lost.text} where it is highest (the dot).
        </p>
      )}
      {shape.beside.length > 0 && <p className="quiet">beside {shape.beside.join('; ')}</p>}
      <OwnGrain lay={lay} shape={shape} choices={choices} onDo={onDo} />
    </section>
  );
}
