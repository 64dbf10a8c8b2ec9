import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, type ClothLeft, type Remnant, saved, unwrap } from '../../api/client';
import { useAsked, useProject } from '../../api/hooks';
import { every, keys } from '../../api/keys';
import { DoButton } from '../../app/DoButton';
import { useAct } from '../../app/useAct';
import { Worked } from '../../app/Working';
import { ClothPattern } from '../../draw/ClothPattern';
import { points } from '../../draw/outline';
import { useSize } from '../../draw/useSize';
import { EntryLength } from '../../fields/Entry';

function Picture({ left }: { left: ClothLeft }) {
  const cloth = useProject().data?.cloth;
  const { ref, width } = useSize<HTMLDivElement>();
  const scale = Math.min(width / left.long.mm, 420 / left.width);
  const height = left.width * scale;
  const moved = (one: Remnant, outline: number[][]) => outline.map(([x, y]) => [x! + one.x, y! + one.y]);
  return (
    <div ref={ref} className="left-picture">
      {width > 0 && (
        <svg width={left.long.mm * scale} height={height} role="img" aria-label="What is left of the cloth">
          <defs>{cloth && <ClothPattern id="left-cloth" cloth={cloth} scale={scale} y0={height} />}</defs>
          <rect width={left.long.mm * scale} height={height} className="gone-ground" />
          {left.remnants.map((one) => (
            <g key={one.number} className={one.kept ? 'remnant kept' : 'remnant'}>
              <polygon points={points(moved(one, one.outline), scale, 0, height)} fill="url(#left-cloth)" />
              {one.rectangles.map((r, k) => (
                <rect
                  key={k}
                  className="rectangle"
                  x={(one.x + r.x) * scale}
                  y={height - (one.y + r.y + r.across.mm) * scale}
                  width={r.along.mm * scale}
                  height={r.across.mm * scale}
                />
              ))}
              {one.rectangles[0] && (
                <text
                  x={(one.x + one.rectangles[0].x + one.rectangles[0].along.mm / 2) * scale}
                  y={height - (one.y + one.rectangles[0].y + one.rectangles[0].across.mm / 2) * scale + 6}
                >
                  {one.number + 1}
                </text>
              )}
            </g>
          ))}
          {left.gone.map((outline, k) => (
            <polygon key={k} className="gone" points={points(outline, scale, 0, height)} />
          ))}
        </svg>
      )}
    </div>
  );
}

/** What is left of the cloth: remnants in their true outlines, each put into the cupboard by one touch. */
export function LeftPart() {
  const client = useQueryClient();
  const { id, key, params } = useAsked();
  const mine = keys.cut(id, key, 'left');
  const left = useQuery({
    queryKey: mine,
    queryFn: () => unwrap(api.GET('/api/projects/{project_id}/cut/left', { params })),
  }).data;
  const keep = (told: ClothLeft) => {
    client.setQueryData(mine, told);
    for (const kind of ['cupboard', 'cloth', 'log'] as const) void client.invalidateQueries(every(kind));
  };
  const act = useAct(async ({ x, y, area }: Remnant) =>
    keep(await saved(api.POST('/api/projects/{project_id}/cut/left', { params, body: { x, y, area } }))),
  );
  if (!left) return <p className="quiet">Fetching …</p>;
  if (!left.there)
    return (
      <>
        <h1>All of it is left</h1>
        <p className="quiet">Nothing was cut from this cloth yet.</p>
      </>
    );
  return (
    <div className="left">
      <h1>
        {left.remnants.length === 0
          ? 'Only scraps are left'
          : left.remnants.length === 1
            ? 'One remnant is left'
            : `${left.remnants.length} remnants are left`}
      </h1>
      <div className="left-both">
        <Picture left={left} />
        <div>
          <p>
            Of {left.long.text}
            {!left.known && ' that the lay took (the length of the cloth was not measured)'}
            {left.used && (
              <>
                ,{' '}
                <Worked figure={left.used} label="What went into pieces">
                  {left.used.text}
                </Worked>{' '}
                went into pieces
              </>
            )}
            ; {left.scrap_told}.
          </p>
          <EntryLength
            label="A remnant has a rectangle on grain of at least"
            path="least"
            value={left.least.text}
            onSave={async (least) =>
              keep(await saved(api.PUT('/api/projects/{project_id}/cut/scrap', { params, body: { least } })))
            }
          />
          {act.error && <p className="spoil">{act.error}</p>}
          <ol className="remnants">
            {left.remnants.map((one) => (
              <li key={one.number}>
                <div>
                  <b>
                    {one.along.text} by {one.across.text}
                  </b>{' '}
                  at its widest; on grain {one.rectangles.map((r) => `${r.along.text} by ${r.across.text}`).join(', ')}
                  {one.border && <>; {one.border.text} of the border on it</>}
                </div>
                {one.kept ? (
                  <span className="good">
                    in the <Link to="/cupboard">cupboard</Link>
                  </span>
                ) : (
                  <DoButton size="large" onDo={() => act.run(one)}>
                    Put it into the cupboard
                  </DoButton>
                )}
              </li>
            ))}
          </ol>
        </div>
      </div>
    </div>
  );
}
