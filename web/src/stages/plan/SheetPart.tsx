import { useAct } from '../../app/useAct';
import { keys } from '../../api/keys';
import { useQuery } from '@tanstack/react-query';
import { Button } from 'antd';
import { useState } from 'react';
import { api, type Ease, type Project, type SheetPiece, unwrap } from '../../api/client';
import { useAsked } from '../../api/hooks';
import { Worked } from '../../app/Working';
import { bounds } from '../../draw/outline';
import { PieceShape } from '../../draw/PieceShape';

/** All at one scale: the largest piece fills its place. */
function SmallPiece({ piece, scale }: { piece: SheetPiece; scale: number }) {
  const { x0, y0, x1, y1 } = bounds(piece.cut);
  const [wide, high] = [(y1 - y0) * scale + 16, (x1 - x0) * scale + 16];
  return (
    <svg width={wide} height={high} viewBox={`0 0 ${wide} ${high}`} aria-hidden="true">
      <PieceShape piece={piece} scale={scale} x={8 + y1 * scale} y={8 + x1 * scale} />
      {piece.edges.map((e) => (
        <text
          key={e.number}
          className="sheet-number"
          x={8 + (y1 - e.begins[1]) * scale}
          y={8 + (x1 - e.begins[0]) * scale}
        >
          {e.begins_at}
        </text>
      ))}
    </svg>
  );
}

type EdgeRef = { piece_id: number; edge: number };
const same = (a: EdgeRef, b: EdgeRef) => a.piece_id === b.piece_id && a.edge === b.edge;

/** Every piece with its measures, to be laid beside the paper; and edges that are sewn to one another, compared. */
export function SheetPart({ project }: { project: Project }) {
  const { id, key, params } = useAsked();
  const sheet = useQuery({
    queryKey: keys.sheet(id, key),
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/sheet', { params })),
  }).data;
  const [sides, setSides] = useState<[EdgeRef[], EdgeRef[]]>([[], []]);
  const [ease, setEase] = useState<Ease>();
  const compare = useAct(async (longer: EdgeRef[], shorter: EdgeRef[]) =>
    setEase(await unwrap(api.POST('/api/projects/{project_id}/ease', { params, body: { longer, shorter } }))),
  );
  if (!sheet) return <p className="quiet">Fetching …</p>;
  const largest = Math.max(
    1,
    ...sheet.pieces.flatMap((p) => {
      const b = bounds(p.cut);
      return [(b.x1 - b.x0) / 190, (b.y1 - b.y0) / 190];
    }),
  );
  async function choose(edge: EdgeRef, side: '' | '0' | '1') {
    const next = sides.map((all) => all.filter((one) => !same(one, edge))) as typeof sides;
    if (side) next[Number(side) as 0 | 1].push(edge);
    setSides(next);
    setEase(undefined);
    compare.forget();
    if (next[0].length > 0 && next[1].length > 0) await compare.run(next[0], next[1]);
  }
  const side = (edge: EdgeRef) =>
    sides[0].some((one) => same(one, edge)) ? '0' : sides[1].some((one) => same(one, edge)) ? '1' : '';
  return (
    <>
      <h1>
        {sheet.pieces.length === 0
          ? 'No pieces yet'
          : `${project.name}${sheet.size ? `, size ${sheet.size}` : ''}: ${sheet.pieces.length} pieces to check against the paper`}
      </h1>
      <p className="commands no-print">
        <Button onClick={() => window.print()}>Print the sheet</Button>
        <span className="quiet" role="status">
          {ease ? (
            <>
              ease{' '}
              <Worked figure={ease.ease} label="ease">
                {ease.ease.text}
              </Worked>
              {ease.share && (
                <>
                  ,{' '}
                  <Worked figure={ease.share} label="ease, of the other edge">
                    {ease.share.text}
                  </Worked>{' '}
                  of the edge it is eased to
                </>
              )}
            </>
          ) : (
            'To compare edges that are sewn together (a sleeve head and its armhole), say of each on which side it is.'
          )}
        </span>
      </p>
      {compare.error && (
        <p className="spoil" role="alert">
          {compare.error}
        </p>
      )}
      <div className="sheet">
        {sheet.pieces.map((p) => (
          <section key={p.piece_id} className="sheet-of" aria-label={p.name}>
            <SmallPiece piece={p} scale={1 / largest} />
            <div>
              <h2>{p.name}</h2>
              {p.fault ? (
                <p className="spoil">{p.fault}</p>
              ) : (
                <p>
                  {p.how_cut}; {p.long} long, {p.wide} wide, {p.area}
                </p>
              )}
              <table className="sheet-edges">
                <thead>
                  <tr>
                    <th>edge</th>
                    <th>along the seam</th>
                    <th>allowance</th>
                    <th className="no-print">sewn to</th>
                  </tr>
                </thead>
                <tbody>
                  {p.edges.map((e) => {
                    const edge = { piece_id: p.piece_id, edge: e.number };
                    return (
                      <tr key={e.number}>
                        <th scope="row">{e.name}</th>
                        <td>{e.seam.text}</td>
                        <td>{e.on_fold ? 'fold' : e.allowance.text}</td>
                        <td className="no-print">
                          {!e.on_fold && (
                            <select
                              className="choice"
                              aria-label={`${p.name}, edge ${e.name}, side`}
                              value={side(edge)}
                              onChange={(event) => void choose(edge, event.target.value as '')}
                            >
                              <option value="">–</option>
                              <option value="0">this side</option>
                              <option value="1">the other</option>
                            </select>
                          )}
                        </td>
                      </tr>
                    );
                  })}
                </tbody>
              </table>
            </div>
          </section>
        ))}
      </div>
    </>
  );
}
