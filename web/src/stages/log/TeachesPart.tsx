import { useQuery } from '@tanstack/react-query';
import { api, type Learned, unwrap } from '../../api/client';
import { keys } from '../../api/keys';
import { useSize } from '../../draw/useSize';

/** What all finished garments teach: how far predictions were off, the own hand, what was bought too much. */
export function TeachesPart() {
  const found = useQuery({ queryKey: keys.teaches, queryFn: () => unwrap(api.GET('/api/teaches')) });
  const told = found.data;
  if (!told) return <p className={found.isError ? 'spoil' : 'quiet'}>{found.error?.message ?? 'Fetching …'}</p>;
  return (
    <div className="teaches">
      <h1>{told.headline}</h1>
      {told.learned.length === 0 && (
        <p className="quiet">Measure finished garments under “How it came out”; what that teaches is told here.</p>
      )}
      {told.learned.map((one) => (
        <Kind key={one.kind} one={one} />
      ))}
      <section>
        <h2>Your hand</h2>
        <p>
          {told.hand
            ? `From ${told.laid} pieces you lay within ${told.hand.text} of the place, two times of three. Seams reckon with that.`
            : `Measured on ${told.laid} ${told.laid === 1 ? 'piece' : 'pieces'}; from 4 on seams reckon with your own hand.`}
        </p>
      </section>
      {told.bought.length > 0 && (
        <section>
          <h2>Bought and needed: {told.over_told}</h2>
          <table className="figures">
            <thead>
              <tr>
                <th scope="col">Garment, cloth</th>
                <th scope="col">Bought</th>
                <th scope="col">Needed</th>
                <th scope="col">Left over</th>
                <th scope="col">Worth</th>
              </tr>
            </thead>
            <tbody>
              {told.bought.map((one) => (
                <tr key={`${one.garment} ${one.cloth}`}>
                  <th scope="row">
                    {one.garment}, {one.cloth}
                  </th>
                  <td>{one.bought.text}</td>
                  <td>{one.needed.text}</td>
                  <td className={one.short ? 'spoil' : undefined}>
                    {one.short ? `${one.over.text} too little` : one.over.text}
                  </td>
                  <td>{one.cost || '—'}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
    </div>
  );
}

/** One kind: each measure by how far it was off, in the order they were made, with its table. */
function Kind({ one }: { one: Learned }) {
  return (
    <section>
      <h2>
        {one.name}: {one.told}
      </h2>
      <p>
        On the average {one.mean.text} from what was predicted
        {one.spread ? `, scattering by ${one.spread.text}` : '; one alone does not tell how it scatters'}.
      </p>
      <Chart one={one} />
      <details>
        <summary>As a table</summary>
        <table className="figures">
          <thead>
            <tr>
              <th scope="col">Day</th>
              <th scope="col">Garment</th>
              <th scope="col">What</th>
              <th scope="col">Measured − predicted</th>
            </tr>
          </thead>
          <tbody>
            {one.points.map((point, i) => (
              <tr key={i}>
                <td>{new Date(point.at).toLocaleDateString()}</td>
                <td>{point.garment}</td>
                <td>{point.what}</td>
                <td>
                  {point.difference.text}, {point.foreseen ? 'as foreseen' : 'not foreseen'}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </section>
  );
}

const HIGH = 150;
const EDGE = 92;

function Chart({ one }: { one: Learned }) {
  const { ref, width } = useSize<HTMLDivElement>();
  const most = Math.max(1e-6, ...one.points.map((p) => Math.abs(p.difference.value)));
  const wide = Math.min(width, 760);
  const x = (i: number) => EDGE + ((i + 0.5) * (wide - EDGE - 10)) / one.points.length;
  const y = (value: number) => HIGH / 2 - (value / most) * (HIGH / 2 - 14);
  const largest = one.points.find((p) => Math.abs(p.difference.value) === most);
  return (
    <div ref={ref} className="off-chart">
      {wide > 0 && (
        <svg
          width={wide}
          height={HIGH}
          role="img"
          aria-label={`${one.name}: measured minus predicted, ${one.points.length} times; the largest ${largest?.difference.text ?? ''}`}
        >
          <line x1={EDGE} x2={wide - 4} y1={HIGH / 2} y2={HIGH / 2} className="zero" />
          <text x={EDGE - 8} y={HIGH / 2 + 4} textAnchor="end">
            0
          </text>
          {largest && (
            <text x={EDGE - 8} y={y(largest.difference.value) + 4} textAnchor="end">
              {largest.difference.text}
            </text>
          )}
          <line x1={EDGE} x2={wide - 4} y1={y(one.mean.value)} y2={y(one.mean.value)} className="mean" />
          {one.points.map((point, i) => (
            <g key={i} className={point.foreseen ? 'off foreseen' : 'off'}>
              <line x1={x(i)} x2={x(i)} y1={HIGH / 2} y2={y(point.difference.value)} />
              {point.foreseen ? (
                <circle cx={x(i)} cy={y(point.difference.value)} r={5} />
              ) : (
                <rect x={x(i) - 5} y={y(point.difference.value) - 5} width={10} height={10} />
              )}
            </g>
          ))}
        </svg>
      )}
      <p className="quiet">
        Round: as foreseen; square: not. The dashed line is the average. From left to right as they were measured.
      </p>
    </div>
  );
}
