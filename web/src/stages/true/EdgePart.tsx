import { Button, Radio } from 'antd';
import { Worked } from '../../app/Working';
import { ClothPattern } from '../../draw/ClothPattern';
import { useSize } from '../../draw/useSize';
import { EntryLength } from '../../fields/Entry';
import { useHeld } from '../../fields/useHeld';
import { Explained } from '../../app/Words';
import type { PartProps } from './useTrue';

/** First edge: which way to make it and why, what the present cut edge costs, and what follows from it. */
export function EdgePart({ found, calls, project }: PartProps) {
  const { cost, edge } = found;
  const way = edge.ways.find((w) => w.key === found.way)!;
  const readings = cost.readings.map((r) => r.mm);
  const change = useHeld<(string | number)[]>(readings, (edge) => calls.change({ edge }));
  return (
    <div className="buy-two">
      <div className="picture-side">
        <h1>
          {way.name[0]!.toUpperCase() + way.name.slice(1)}: this end loses{' '}
          <Worked figure={cost.this_end} label="this end">
            {cost.this_end.text}
          </Worked>
        </h1>
        <CutEdge readings={readings} loss={cost.this_end.value} told={cost.this_end.text} project={project} />
        <fieldset className="edge-readings">
          <legend>From a line square to the selvage to the cut edge, at places across</legend>
          {[...cost.readings, undefined].map((r, i) => (
            <EntryLength
              key={i}
              bare
              label={`Cut edge, reading ${i + 1}`}
              path={`edge.${i}`}
              value={r?.text ?? ''}
              placeholder={`place ${i + 1}`}
              onSave={(v) =>
                change((held) =>
                  v.trim() ? [...held.slice(0, i), v, ...held.slice(i + 1)] : held.filter((_, n) => n !== i),
                )
              }
            />
          ))}
        </fieldset>
        <ol className="treat-steps">
          {way.steps.map((s) => (
            <li key={s}>
              <Explained text={s} />
            </li>
          ))}
        </ol>
        {way.caution && (
          <ul className="cautions">
            <li>{way.caution}</li>
          </ul>
        )}
      </div>
      <aside className="facts">
        <section>
          <h2>Which way</h2>
          {edge.ways.map((w) => (
            <Radio
              key={w.key}
              className="school"
              name="way"
              checked={way.key === w.key}
              onChange={() => void calls.change({ edge_way: w.key === edge.way ? '' : (w.key as 'tear') })}
            >
              <b>{w.name}</b>
              {w.key === edge.way && <span className="good"> ✓ for this cloth</span>}
              <br />
              <span className="quiet">
                {w.why}; about {w.loss.text}
              </span>
            </Radio>
          ))}
        </section>
        <section>
          <h2>What it costs</h2>
          <p>
            This end{' '}
            <Worked figure={cost.this_end} label="this end, again">
              {cost.this_end.text}
            </Worked>
            {cost.cut_off.mm > 0 && ` and ${cost.cut_off.text} cut off`}, the other about{' '}
            <Worked figure={cost.other_end} label="the other end">
              {cost.other_end.text}
            </Worked>
            .
          </p>
          <EntryLength
            label="Cut off at this end, because it could not be straightened"
            path="cut_off"
            value={cost.cut_off.text}
            onSave={(cut_off) => calls.change({ cut_off })}
          />
          <p>
            Both ends together:{' '}
            <b>
              <Worked figure={cost.ends} label="both ends">
                {cost.ends.text}
              </Worked>
            </b>
            {!cost.measured && <span className="quiet"> (as planned; read the edge to know)</span>}
          </p>
          {!cost.measured && <Button onClick={() => void change(() => [])}>Plan with this way</Button>}
          {cost.in_hand_after && (
            <p>
              Of the {project.cloth.length_now?.text} in hand,{' '}
              <Worked figure={cost.in_hand_after} label="left to lay on">
                {cost.in_hand_after.text}
              </Worked>{' '}
              are left to lay on, as it is cut.
            </p>
          )}
          {cost.to_buy && (
            <p>
              To buy: <b>{cost.to_buy}</b>
            </p>
          )}
        </section>
      </aside>
    </div>
  );
}

/** The end of the cloth with its ragged cut edge as it was read, and the true line behind it. */
function CutEdge({
  readings,
  loss,
  told,
  project,
}: {
  readings: number[];
  loss: number;
  told: string;
  project: PartProps['project'];
}) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  // before anything was read, an edge that might be
  const shown = readings.length > 1 ? readings : [loss * 1.6, loss * 2, loss * 1.4, loss * 1.9, loss * 1.7];
  const longest = Math.max(...shown);
  const line = width - 90;
  const scale = Math.min(9, (line - 60) / Math.max(longest, loss, 1));
  const bottom = height - 34;
  const x = (mm: number) => line - mm * scale;
  const y = (k: number) => 30 + (k * (bottom - 30)) / (shown.length - 1);
  const edge = shown.map((mm, k) => `${x(mm)},${y(k)}`).join(' L');
  const cut = x(longest - loss);
  return (
    <div className="picture" ref={ref}>
      {width > 0 && (
        <svg
          width={width}
          height={height}
          role="img"
          aria-label={`The cut edge and the true edge behind it: ${told} go`}
        >
          <defs>
            <ClothPattern
              id="edge"
              cloth={project.cloth}
              scale={0.5}
              x0={line}
              y0={bottom}
              left={project.cloth.bars_now}
            />
          </defs>
          {['url(#edge)', 'url(#edge-weave)'].map((fill) => (
            <path key={fill} d={`M${edge} L${width - 20},${bottom} L${width - 20},30 Z`} fill={fill} />
          ))}
          <path d={`M${edge} L${cut},${bottom} L${cut},30 Z`} className="goes" />
          <path d={`M${edge}`} className={readings.length > 1 ? 'front-edge' : 'front-edge guessed'} />
          <line x1={cut} x2={cut} y1={22} y2={bottom + 8} className="lay-end" />
          <text x={cut} y={bottom + 26} textAnchor="middle" className="lay-end-text">
            true edge
          </text>
          <line x1={line} x2={line} y1={30} y2={bottom} className="as-drawn" />
          <text x={line + 6} y={bottom + 26} textAnchor="middle" className="label">
            line
          </text>
          <text x={(x(longest) + cut) / 2} y={18} textAnchor="middle" className="label-strong">
            {told} go
          </text>
        </svg>
      )}
    </div>
  );
}
