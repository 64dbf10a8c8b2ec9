import { keys } from '../../api/keys';
import { useQuery } from '@tanstack/react-query';
import { Button, Checkbox } from 'antd';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, unwrap } from '../../api/client';
import { useAsked, useAt } from '../../api/hooks';
import { Marks } from '../../draw/PieceShape';
import { GrainArrow } from '../../draw/GrainArrow';
import { points } from '../../draw/outline';

const PAPERS = [
  ['a4', 'A4'],
  ['a3', 'A3'],
  ['letter', 'Letter'],
] as const;
type Paper = (typeof PAPERS)[number][0];

/** A piece at its true size, on as many sheets as it takes. */
export function PrintPart({ pieceId }: { pieceId: number }) {
  const { id, key, params } = useAsked();
  const at = useAt();
  const [paper, setPaper] = useState<Paper>('a4');
  const [enlarged, setEnlarged] = useState(false);
  const { data: found, error } = useQuery({
    queryKey: keys.pages(id, key, pieceId, paper, enlarged),
    queryFn: () =>
      unwrap(
        api.GET('/api/pieces/{piece_id}/pages', {
          params: { path: { piece_id: pieceId }, query: { ...params.query, paper, enlarged } },
        }),
      ),
    placeholderData: (old) => old,
    retry: false,
  });
  if (error)
    return (
      <main className="stage">
        <p className="spoil" role="alert">
          {(error as Error).message}
        </p>
        <Link to={at('plan')}>Back to the pieces</Link>
      </main>
    );
  if (!found) return null;
  const up = (line: [number, number][]) => line.map(([a, b]): [number, number] => [-b, a]);
  const flat = (line: [number, number][]) => up(line).map(([x, y]): [number, number] => [x, -y]);
  const [tail, head] = flat(found.arrow);
  return (
    <main className="stage printing">
      <style>{`@page { size: ${found.paper_width}mm ${found.paper_height}mm; margin: 0; }`}</style>
      <div className="no-print">
        <p>
          <Link to={at('plan')}>Back to the pieces</Link>
        </p>
        <h1>
          {found.name} at its true size, on {found.pages.length} {found.pages.length === 1 ? 'sheet' : 'sheets'}
        </h1>
        <p className="commands">
          <label>
            Paper{' '}
            <select className="choice" value={paper} onChange={(e) => setPaper(e.target.value as Paper)}>
              {PAPERS.map(([value, label]) => (
                <option key={value} value={value}>
                  {label}
                </option>
              ))}
            </select>
          </label>
          {found.can_enlarge && (
            <Checkbox className="tick" checked={enlarged} onChange={(e) => setEnlarged(e.target.checked)}>
              enlarged, to shrink to fit
            </Checkbox>
          )}
          <Button type="primary" onClick={() => window.print()}>
            Print
          </Button>
        </p>
        <p>
          Print at 100 %, without fitting to the page. The square on the first sheet must measure {found.check_told}{' '}
          each way. Lay a sheet over its neighbour up to the dashed line and tape them.
        </p>
        <table className="sheet-edges">
          <thead>
            <tr>
              <th>edge</th>
              <th>along the seam</th>
              <th>allowance</th>
              {enlarged && <th>grown by</th>}
            </tr>
          </thead>
          <tbody>
            {found.edges.map((e) => (
              <tr key={e.number}>
                <th scope="row">{e.name}</th>
                <td>{e.seam.text}</td>
                <td>{e.on_fold ? 'fold' : e.allowance.text}</td>
                {enlarged && <td>{e.grown?.text}</td>}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="print-pages">
        {found.pages.map((page, i) => (
          <svg
            key={page.name}
            className="print-page"
            aria-label={`Sheet ${page.name}`}
            style={{ width: `${found.paper_width}mm`, height: `${found.paper_height}mm` }}
            viewBox={`0 0 ${found.paper_width} ${found.paper_height}`}
          >
            <clipPath id={`clip-${page.name}`}>
              <rect x={found.margin} y={found.margin} width={page.width} height={page.height} />
            </clipPath>
            <g clipPath={`url(#clip-${page.name})`}>
              <g transform={`translate(${found.margin - page.x} ${found.margin + page.y + page.height})`}>
                <polygon className="print-cut" points={points(up(found.cut), 1, 0, 0)} />
                <polygon className="print-seam" points={points(up(found.outline), 1, 0, 0)} />
                {tail && head && <GrainArrow tail={tail} head={head} oneWay={found.one_way} />}
                <Marks drawn={found.drawn} place={flat} />
                {tail && head && (
                  <text className="print-name" x={(tail[0] + head[0]) / 2 + 6} y={(tail[1] + head[1]) / 2}>
                    {found.name}: {found.how_cut}
                    {found.enlarged ? ', enlarged' : ''}
                  </text>
                )}
              </g>
            </g>
            <rect
              className="print-overlap"
              x={found.margin}
              y={found.margin}
              width={page.width - found.overlap}
              height={page.height - found.overlap}
            />
            <text className="print-name" x={found.margin + 2} y={found.paper_height - 4}>
              {found.name}, sheet {page.name} of {found.pages.length}; {found.size}
            </text>
            {i === 0 && (
              <g>
                <rect
                  className="print-check"
                  x={found.margin + 6}
                  y={found.margin + 6}
                  width={found.check}
                  height={found.check}
                />
                <text className="print-name" x={found.margin + 10} y={found.margin + 14}>
                  {found.check_told} each way
                </text>
              </g>
            )}
          </svg>
        ))}
      </div>
    </main>
  );
}
