import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import { api, type AgainWay, unwrap } from '../../api/client';
import { useAsked, useProject } from '../../api/hooks';
import { keys } from '../../api/keys';
import { DoButton } from '../../app/DoButton';
import { useAct } from '../../app/useAct';
import { Worked } from '../../app/Working';
import { points } from '../../draw/outline';
import { Trying } from '../buy/Trying';
import { useTrials } from '../buy/useBuy';
import type { CutProps } from './useCut';

const WORDS: Record<AgainWay['state'], string> = {
  waits: 'being tried',
  does: 'does',
  short: 'too short',
  cannot: 'no room',
  buy: 'to buy',
};

/** A way out as it would be cut: what is gone, and what is laid on the rest. */
function WayPicture({ way, ground }: { way: AgainWay; ground: string }) {
  if (!way.lay) return <div className="again-picture" />;
  const long = Math.max(way.lay.length.mm, ...way.gone.flat().map(([x]) => x!));
  const scale = Math.min(300 / long, 170 / way.lay.width);
  const width = long * scale;
  const height = way.lay.width * scale;
  return (
    <svg
      width={width + 2}
      height={height + 2}
      className="again-picture"
      role="img"
      aria-label={`${way.told}: what is cut is hatched, what is laid now stands out`}
    >
      <defs>
        <pattern id="gone" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="6" height="6" fill="#fff" />
          <line y2="6" stroke="#8f897c" strokeWidth="2" />
        </pattern>
      </defs>
      <rect x={1} y={1} width={width} height={height} fill={ground} />
      {way.gone.map((outline, k) => (
        <polygon key={k} className="gone" points={points(outline, scale, 1, 1 + height)} />
      ))}
      {way.lay.outlines.map((outline, k) => (
        <polygon key={k} className="now" points={points(outline, scale, 1, 1 + height)} />
      ))}
      {way.joins.map((line, k) => (
        <polyline key={k} className="join" points={points(line, scale, 1, 1 + height)} />
      ))}
    </svg>
  );
}

/** When something went wrong: what is missing, and every way out with what it costs. */
export function AgainPart({ found, calls }: CutProps) {
  const client = useQueryClient();
  const project = useProject().data!;
  const { id, key, params } = useAsked();
  const mine = keys.cut(id, key, 'again');
  const again = useQuery({
    queryKey: mine,
    enabled: found.owed.length > 0,
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/cut/again', { params })),
  });
  const trials = useTrials('again', again.data?.trials, () => void client.invalidateQueries({ queryKey: mine }));
  const act = useAct(calls.take, { once: true });
  if (found.owed.length === 0)
    return (
      <>
        <h1>Nothing went wrong</h1>
        <p className="quiet">Mark a piece at the table if something does.</p>
      </>
    );
  return (
    <div className="again">
      <h1>{found.headline}</h1>
      <p>
        Missing: <b>{found.owed.join('; ')}</b>. Everything that is cut stays cut; these are the ways to cut it once
        more.
      </p>
      <Trying trials={trials} what="Trying each way" />
      {act.error && (
        <p className="spoil" role="alert">
          {act.error}
        </p>
      )}
      <ul className="again-ways">
        {again.data?.ways.map((way) => (
          <li key={way.key} className={`again-way again-${way.state}`}>
            <WayPicture way={way} ground={project.cloth.ground} />
            <div>
              <h2>{way.told}</h2>
              <p>
                <b className={way.state === 'does' ? 'good' : way.state === 'waits' ? 'quiet' : 'look'}>
                  {WORDS[way.state]}
                </b>
                {way.state !== 'waits' && `: ${way.came}`}
                {way.cost && (
                  <>
                    {' '}
                    (
                    <Worked figure={way.cost} label="What it costs">
                      {way.cost.text}
                    </Worked>
                    )
                  </>
                )}
              </p>
              <p className="quiet">{way.costs}</p>
              {way.state === 'does' && (
                <DoButton type="primary" size="large" onDo={() => act.run(way.key)}>
                  Cut it so
                </DoButton>
              )}
              {way.state === 'buy' && <Button disabled>It is not in the house yet</Button>}
            </div>
          </li>
        ))}
      </ul>
    </div>
  );
}
