import { Button, Input } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, type CutRound, unwrap } from '../../api/client';
import { useAt, useSettings } from '../../api/hooks';
import { useAct } from '../../app/useAct';
import { bounds } from '../../draw/outline';
import { useSize } from '../../draw/useSize';
import { wholeOf } from './Cloth';
import { type Kept, keptHere, type Matrix, onPicture } from './picture';
import { useCut } from './useCut';

/** The square that is drawn on a screen to be measured has this side, picture points. */
const DRAWN = 360;

type Corner = [number, number];

/** Four handles that are dragged onto the corners of a rectangle on the table. */
function Corners({ corners, onMove }: { corners: Corner[]; onMove: (corners: Corner[]) => void }) {
  const svg = useRef<SVGSVGElement>(null);
  const held = useRef<number>(undefined);
  const put = (k: number, at: Corner) => onMove(corners.map((one, i) => (i === k ? at : one)));
  const names = ['upper left', 'upper right', 'lower right', 'lower left'];
  return (
    <svg
      ref={svg}
      className="true-corners"
      onPointerMove={(event) => {
        if (held.current === undefined) return;
        const box = svg.current!.getBoundingClientRect();
        put(held.current, [event.clientX - box.left, event.clientY - box.top]);
      }}
      onPointerUp={() => (held.current = undefined)}
    >
      <polygon points={corners.map((at) => at.join(',')).join(' ')} />
      {corners.map(([x, y], k) => (
        <g key={k}>
          <path d={`M${x - 26},${y} H${x + 26} M${x},${y - 26} V${y + 26}`} />
          <circle
            cx={x}
            cy={y}
            r={22}
            tabIndex={0}
            role="button"
            aria-label={`The ${names[k]} corner: drag it, or push it with the arrow keys`}
            onPointerDown={(event) => {
              held.current = k;
              (event.target as Element).setPointerCapture(event.pointerId);
            }}
            onKeyDown={(event) => {
              const by = event.shiftKey ? 10 : 1;
              const way = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[
                event.key
              ];
              if (!way) return;
              event.preventDefault();
              event.stopPropagation();
              put(k, [x + way[0]!, y + way[1]!]);
            }}
          />
        </g>
      ))}
    </svg>
  );
}

/** Tells the program how large its picture is on the table. */
function Calibrate({ onDone }: { onDone: (kept: Kept) => void }) {
  const imperial = useSettings()?.system === 'imperial';
  const [kind, setKind] = useState<'corners' | 'square'>('corners');
  const [wide, setWide] = useState('');
  const [high, setHigh] = useState('');
  const [w, h] = [window.innerWidth, window.innerHeight];
  const [corners, setCorners] = useState<Corner[]>([
    [w * 0.2, h * 0.2],
    [w * 0.8, h * 0.2],
    [w * 0.8, h * 0.7],
    [w * 0.2, h * 0.7],
  ]);
  const act = useAct(
    async () => {
      const body =
        kind === 'corners'
          ? { wide, high, corners, drawn: null }
          : { wide, high: high || wide, corners: null, drawn: DRAWN };
      const found = await unwrap(api.POST('/api/true-size', { body }));
      const size = await unwrap(api.POST('/api/lengths/read', { body: { text: high || wide } }));
      onDone({ matrix: found.matrix as unknown as Matrix, high: size.mm });
    },
    { once: true },
  );
  const example = imperial ? ['24 in', '16 in'] : ['60 cm', '40 cm'];
  return (
    <div className="true-size calibrating">
      {kind === 'corners' ? (
        <Corners corners={corners} onMove={setCorners} />
      ) : (
        <svg className="true-corners">
          <rect x={40} y={40} width={DRAWN} height={DRAWN} className="measured" />
        </svg>
      )}
      <form
        className="true-panel"
        onSubmit={(event) => {
          event.preventDefault();
          void act.run();
        }}
      >
        <h1>How large is the picture?</h1>
        <div role="group" aria-label="What shows it">
          <Button
            aria-pressed={kind === 'corners'}
            type={kind === 'corners' ? 'primary' : 'default'}
            onClick={() => setKind('corners')}
          >
            A projector
          </Button>{' '}
          <Button
            aria-pressed={kind === 'square'}
            type={kind === 'square' ? 'primary' : 'default'}
            onClick={() => setKind('square')}
          >
            A screen on the table
          </Button>
        </div>
        <p>
          {kind === 'corners'
            ? 'Drag the four crosses onto the corners of a rectangle on the table, such as the cutting mat’s, and give its size.'
            : 'Measure the square with a tape and give both sides.'}
        </p>
        <label htmlFor="true-wide">{kind === 'corners' ? 'Long side' : 'From left to right'}</label>
        <Input id="true-wide" value={wide} placeholder={example[0]} onChange={(e) => setWide(e.target.value)} />
        <label htmlFor="true-high">{kind === 'corners' ? 'Short side' : 'From top to bottom'}</label>
        <Input id="true-high" value={high} placeholder={example[1]} onChange={(e) => setHigh(e.target.value)} />
        <Button
          type="primary"
          size="large"
          htmlType="submit"
          loading={act.busy}
          disabled={!wide || (kind === 'corners' && !high)}
        >
          Take it so
        </Button>
        {act.error && (
          <p className="spoil" role="alert">
            {act.error}
          </p>
        )}
      </form>
    </div>
  );
}

/** A line of known length on the table, to be measured: is the picture right? */
function Check({ onAgain, onClose }: { onAgain: () => void; onClose: () => void }) {
  const imperial = useSettings()?.system === 'imperial';
  const [measured, setMeasured] = useState('');
  const [told, setTold] = useState<{ good: boolean; told: string }>();
  const meant = imperial ? '8 in' : '20 cm';
  const act = useAct(async () =>
    setTold(await unwrap(api.POST('/api/true-size/check', { body: { meant, measured } }))),
  );
  return (
    <form
      className="true-panel corner"
      onSubmit={(event) => {
        event.preventDefault();
        void act.run();
      }}
    >
      <label htmlFor="true-check">The thick line should measure {meant}. What does it measure?</label>
      <Input id="true-check" value={measured} onChange={(e) => setMeasured(e.target.value)} />
      <Button type="primary" htmlType="submit" disabled={!measured}>
        Compare
      </Button>{' '}
      <Button onClick={onClose}>Close</Button>
      {told && (
        <p className={told.good ? 'good' : 'spoil'} role="status">
          {told.told} {!told.good && <Button onClick={onAgain}>Calibrate again</Button>}
        </p>
      )}
      {act.error && <p className="spoil">{act.error}</p>}
    </form>
  );
}

function Thrown({
  kept,
  round,
  at,
  onAgain,
}: {
  kept: Kept;
  round: CutRound;
  at: string | undefined;
  onAgain: () => void;
}) {
  const imperial = useSettings()?.system === 'imperial';
  const to = useAt();
  const go = useNavigate();
  const { ref, width, height } = useSize<HTMLDivElement>();
  const whole = wholeOf(round);
  const step = imperial ? 4 * 25.4 : 100;
  // the piece at hand is in the picture from the start
  const [begin] = useState(() => {
    const here = round.shapes.find((shape) => shape.key === at);
    if (!here) return [0, 0] as const;
    const { x0, y0 } = bounds(here.outline);
    return [x0, y0 - whole.y0].map((mm) => Math.max(0, Math.floor((mm - 20) / step) * step)) as [number, number];
  });
  const [along, setAlong] = useState(begin[0]!);
  const [across, setAcross] = useState(begin[1]!);
  const [only, setOnly] = useState(false);
  const [dark, setDark] = useState(() => localStorage.getItem('true-size-dark') === '1');
  const [wide, setWide] = useState(2);
  const [checking, setChecking] = useState(false);
  useEffect(() => {
    function down(event: KeyboardEvent) {
      if ((event.target as HTMLElement).closest('input')) return;
      if (event.key === 'ArrowRight') setAlong((a) => a + step);
      else if (event.key === 'ArrowLeft') setAlong((a) => Math.max(0, a - step));
      else if (event.key === 'ArrowUp') setAcross((a) => a + step);
      else if (event.key === 'ArrowDown') setAcross((a) => Math.max(0, a - step));
      else return;
      event.preventDefault();
    }
    window.addEventListener('keydown', down);
    return () => window.removeEventListener('keydown', down);
  }, [step]);
  /** from the cloth to the picture: the near selvage lies along the lower edge of the rectangle */
  const place = ([x, y]: readonly number[]) =>
    onPicture(kept.matrix, [x! - along, kept.high - (y! - whole.y0 - across)]);
  const run = (outline: readonly (readonly number[])[]) =>
    outline
      .map((at) =>
        place(at)
          .map((n) => n.toFixed(1))
          .join(','),
      )
      .join(' ');
  const shapes = round.shapes.filter((shape) => shape.state === 'waits' && (!only || shape.key === at));
  const gone = round.shapes.filter((shape) => shape.state === 'cut' || shape.state === 'lost');
  const checkLine: number[][] = [
    [along + 20, whole.y0 + across + kept.high / 2],
    [along + 20 + (imperial ? 8 * 25.4 : 200), whole.y0 + across + kept.high / 2],
  ];
  const marks = Math.ceil(round.length / step) + 1;
  return (
    <div className={dark ? 'true-size dark' : 'true-size'} ref={ref}>
      <svg width={width} height={height} role="img" aria-label="The lay at its true size">
        {round.stretches.map((one) => (
          <g key={one.section} className="true-cloth" strokeWidth={wide / 2}>
            {one.lines.map((line, k) => (
              <polyline key={k} points={run([line.start, line.end])} className={line.kind === 'fold' ? 'fold' : ''} />
            ))}
          </g>
        ))}
        {Array.from({ length: marks }, (_, k) => {
          const [x, y] = place([k * step, whole.y0]);
          return (
            <g key={k} className="true-ruler">
              <polyline
                points={run([
                  [k * step, whole.y0],
                  [k * step, whole.y0 + 12],
                ])}
                strokeWidth={wide / 2}
              />
              <text x={x} y={y + 22}>
                {imperial ? `${4 * k} in` : `${10 * k} cm`}
              </text>
            </g>
          );
        })}
        {!only && gone.map((shape) => <polygon key={shape.key} points={run(shape.outline)} className="true-gone" />)}
        {shapes.map((shape) => {
          const xs = shape.outline.map(([x]) => x!);
          const ys = shape.outline.map(([, y]) => y!);
          const [x, y] = place([(Math.min(...xs) + Math.max(...xs)) / 2, (Math.min(...ys) + Math.max(...ys)) / 2]);
          return (
            <g key={shape.key} className={shape.key === at ? 'true-shape here' : 'true-shape'} strokeWidth={wide}>
              <polygon points={run(shape.outline)} />
              <polyline points={run([shape.tail, shape.head])} />
              {shape.marks.map((mark, k) =>
                mark.line.length === 1 ? (
                  <circle key={k} cx={place(mark.line[0]!)[0]} cy={place(mark.line[0]!)[1]} r={3 * wide} />
                ) : (
                  <polyline key={k} points={run(mark.line)} />
                ),
              )}
              <text x={x} y={y}>
                {shape.number}. {shape.name}
              </text>
            </g>
          );
        })}
        {checking && <polyline points={run(checkLine)} className="true-check" strokeWidth={wide * 3} />}
      </svg>
      <div className="true-tools" role="group" aria-label="True size">
        <Button onClick={() => void go(to('cut', { part: 'table' }))}>Close</Button>
        <Button
          aria-label="Along the cloth, back"
          disabled={along === 0}
          onClick={() => setAlong(Math.max(0, along - step))}
        >
          ←
        </Button>
        <Button aria-label="Along the cloth, on" onClick={() => setAlong(along + step)}>
          →
        </Button>
        <Button aria-label="Across the cloth, on" onClick={() => setAcross(across + step)}>
          ↑
        </Button>
        <Button
          aria-label="Across the cloth, back"
          disabled={across === 0}
          onClick={() => setAcross(Math.max(0, across - step))}
        >
          ↓
        </Button>
        <Button aria-pressed={only} onClick={() => setOnly(!only)}>
          {only ? 'All pieces' : 'Only the piece at hand'}
        </Button>
        <Button
          aria-pressed={dark}
          onClick={() => {
            localStorage.setItem('true-size-dark', dark ? '0' : '1');
            setDark(!dark);
          }}
        >
          {dark ? 'For light cloth' : 'For dark cloth'}
        </Button>
        <Button onClick={() => setWide(wide >= 6 ? 2 : wide + 2)}>Thicker lines</Button>
        <Button onClick={() => setChecking(!checking)}>Check the size</Button>
        <Button onClick={onAgain}>Calibrate</Button>
      </div>
      {checking && <Check onAgain={onAgain} onClose={() => setChecking(false)} />}
    </div>
  );
}

/** The lay at its true size on the table, by a projector or a screen that lies there. */
export function TrueSize() {
  const calls = useCut();
  const [kept, setKept] = useState(keptHere.read);
  const found = calls.data;
  if (calls.error) return <main className="stage">{calls.error.message}</main>;
  if (!found) return <main className="stage">Fetching …</main>;
  const step = found.steps.at(found.at ?? -1);
  const round = found.rounds.find((one) => one.round === step?.round) ?? found.rounds.at(-1);
  if (!round) return <main className="stage">{found.missing}</main>;
  return (
    <main className="true-page" aria-label="True size">
      {kept ? (
        <Thrown
          kept={kept}
          round={round}
          at={step?.key}
          onAgain={() => {
            keptHere.write(undefined);
            setKept(undefined);
          }}
        />
      ) : (
        <Calibrate
          onDone={(next) => {
            keptHere.write(next);
            setKept(next);
          }}
        />
      )}
    </main>
  );
}
