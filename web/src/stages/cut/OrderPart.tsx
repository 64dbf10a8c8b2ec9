import { Button } from 'antd';
import { useState } from 'react';
import type { CutRound, CutShape } from '../../api/client';
import { useProject } from '../../api/hooks';
import { useAct } from '../../app/useAct';
import { useSize } from '../../draw/useSize';
import { CutCloth, wholeOf } from './Cloth';
import type { CutProps } from './useCut';

const inOrder = (round: CutRound) =>
  round.shapes.filter((shape) => shape.number > 0).toSorted((a, b) => a.number - b.number);

/** How often the cloth is folded anew on the way, in words. */
const folded = (times: number) =>
  times === 0 ? 'The cloth stays as it lies' : `The cloth is folded anew ${times === 1 ? 'once' : `${times} times`}`;

function OneRound({ round, calls, begun }: { round: CutRound; calls: CutProps['calls']; begun: boolean }) {
  const cloth = useProject().data?.cloth;
  const { ref, width } = useSize<HTMLDivElement>();
  const [chosen, setChosen] = useState<string>();
  const act = useAct(calls.order, { once: true });
  const shapes = inOrder(round);
  const whole = wholeOf(round);
  const height = Math.min(430, (width * (whole.y1 - whole.y0)) / (whole.x1 - whole.x0));
  const move = (shape: CutShape, by: number) => {
    const keys = shapes.map((one) => one.key);
    const from = keys.indexOf(shape.key);
    const to = from + by;
    if (to < 0 || to >= keys.length) return;
    keys.splice(to, 0, ...keys.splice(from, 1));
    setChosen(shape.key);
    void act.run(round.round, keys);
  };
  return (
    <div className="order-both">
      <div ref={ref} className="order-picture">
        {width > 0 && (
          <CutCloth
            round={round}
            cloth={round.cloth && begun ? undefined : cloth}
            box={whole}
            width={width}
            height={height}
            at={chosen}
            route
            onChoose={(shape) => setChosen(shape.key)}
            label="The lay with the way the shears go"
          />
        )}
        <p>Large and matched pieces come first, those laid by them after, small ones last, from the cut end on.</p>
        {round.against.length > 0 && (
          <p className="look" role="status">
            Better cut {round.against.join('; ')}: a corner or a matched edge needs it.
          </p>
        )}
        {act.error && <p className="spoil">{act.error}</p>}
        {round.own_order && <Button onClick={() => void act.run(round.round, [])}>Back to the computed order</Button>}
        {!begun && <p className="quiet">The order can be changed once cutting is begun.</p>}
      </div>
      <ol className="order-list" aria-label="Order of cutting">
        {shapes.map((shape, k) => (
          <li key={shape.key} className={shape.key === chosen ? 'here' : ''}>
            <button type="button" className="order-name" onClick={() => setChosen(shape.key)}>
              <b>{shape.number}</b> {shape.name}
              {shape.layers === 2 && <span className="quiet"> two layers</span>}
              {shape.state === 'cut' && <span className="good"> cut</span>}
            </button>
            {begun && (
              <span className="order-move">
                <Button aria-label={`${shape.name} earlier`} disabled={k === 0} onClick={() => move(shape, -1)}>
                  ↑
                </Button>
                <Button
                  aria-label={`${shape.name} later`}
                  disabled={k === shapes.length - 1}
                  onClick={() => move(shape, 1)}
                >
                  ↓
                </Button>
              </span>
            )}
          </li>
        ))}
      </ol>
    </div>
  );
}

/** In which order the pieces are cut, as a way over the lay. */
export function OrderPart({ found, calls }: CutProps) {
  if (found.rounds.length === 0)
    return (
      <>
        <h1>{found.headline}</h1>
        <p className="quiet">{found.missing}</p>
      </>
    );
  return (
    <>
      <h1>{folded(found.rounds.reduce((sum, round) => sum + round.unfoldings, 0))}</h1>
      {found.rounds.map((round) => (
        <section key={round.round}>
          {found.rounds.length > 1 && <h2>{round.cloth || 'This cloth'}</h2>}
          <OneRound round={round} calls={calls} begun={found.begun} />
        </section>
      ))}
    </>
  );
}
