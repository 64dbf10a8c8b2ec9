import { keys } from '../../api/keys';
import { useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import { api, type Project, saved, type Strips, type StripsChange, unwrap } from '../../api/client';
import { Worked } from '../../app/Working';
import { EntryChoice, EntryLength, EntryText } from '../../fields/Entry';
import { useBuyPart } from './useBuy';

const orNull = (text: string) => (text.trim() ? text : null);

/** Gathered strips and ruffles, and bias tape out of a rectangle. */
export function StripsPart({ project }: { project: Project }) {
  const part = useBuyPart<Strips>('strips', (params) =>
    unwrap(api.GET('/api/projects/{project_id}/strips', { params })),
  );
  const client = useQueryClient();
  const found = part.data;
  if (part.error) return <p className="spoil">{part.error.message}</p>;
  if (!found) return <p className="quiet">Fetching …</p>;
  async function change(body: StripsChange) {
    part.keep(await saved(api.PATCH('/api/projects/{project_id}/strips', { params: part.params, body })));
  }
  async function make(what: 'across' | 'along' | 'tape') {
    part.keep(
      await saved(api.POST('/api/projects/{project_id}/strips/pieces', { params: part.params, body: { what } })),
    );
    await client.invalidateQueries({ queryKey: keys.project(project.id) });
  }
  const length = (label: string, key: 'edge' | 'depth' | 'hem' | 'seam' | 'long' | 'wide' | 'tape' | 'tape_seam') => (
    <EntryLength label={label} path={key} value={found[key]?.text ?? ''} onSave={(t) => change({ [key]: orNull(t) })} />
  );
  return (
    <div className="buy-strips">
      <section className="strip-form">
        <h1>{found.headline}</h1>
        {found.told && (
          <p
            className={
              found.ways.some((way) => way.planned === 'yes') || found.tape_planned === 'yes' ? 'quiet' : 'look'
            }
          >
            {found.told}
          </p>
        )}
        <h2>A gathered strip or ruffle</h2>
        <div className="three">
          {length('Sewn to an edge of', 'edge')}
          {length('Finished depth', 'depth')}
          <EntryText
            label="Fullness (1.5 to 3)"
            path="fullness"
            value={String(found.fullness)}
            onSave={(fullness) => change({ fullness })}
          />
          {length('Hem turned up', 'hem')}
          {length('Seam allowance', 'seam')}
          <EntryChoice
            label="Joined"
            value={found.ring ? 'ring' : 'flat'}
            options={[
              { value: 'ring', label: 'into a ring' },
              { value: 'flat', label: 'flat' },
            ]}
            onSave={(v) => change({ ring: v === 'ring' })}
          />
        </div>
        {found.fault && (
          <p className="spoil" role="alert">
            {found.fault}
          </p>
        )}
        {found.ways.map((way) => (
          <div key={way.key} className={way.least ? 'strip-way least' : 'strip-way'}>
            <StripPicture way={way} project={project} width={found.width?.mm ?? 1000} ring={found.ring} />
            <div>
              <h3>
                {way.name} {way.least && <span className="good">✓ less cloth</span>}
              </h3>
              <p>
                {way.strips === 1 ? 'one strip' : `${way.strips} strips`} of {way.each.text};{' '}
                {found.ring ? 'round' : 'flat'}{' '}
                <Worked figure={way.joined} label={`joined, ${way.name}`}>
                  {way.joined.text}
                </Worked>
              </p>
              <p>
                fullness{' '}
                <Worked figure={way.fullness} label={`fullness, ${way.name}`}>
                  {way.fullness.value.toFixed(2)}
                </Worked>{' '}
                {way.other_fullness && <span className="quiet">instead of {found.fullness}</span>}
              </p>
              <p>
                takes{' '}
                <Worked figure={way.cloth} label={`cloth, ${way.name}`}>
                  {way.cloth.text}
                </Worked>{' '}
                of cloth, {way.key === 'across' ? 'over its whole width' : `${way.deep.text} of its width`}
              </p>
              <Planned planned={way.planned} what={way.name} onMake={() => make(way.key)} />
            </div>
          </div>
        ))}
      </section>
      <section className="strip-form">
        <h2>Bias tape out of a rectangle</h2>
        <div className="two">
          {length('The rectangle is long', 'long')}
          {length('and wide', 'wide')}
          {length('Tape, cut width', 'tape')}
          {length('Allowance at joins', 'tape_seam')}
        </div>
        {found.tape_fault && (
          <p className="spoil" role="alert">
            {found.tape_fault}
          </p>
        )}
        {found.long && found.wide && found.tape && !found.tape_fault && (
          <BiasPicture long={found.long.mm} wide={found.wide.mm} slants={found.slants} ground={project.cloth.ground} />
        )}
        {found.cut_strips && found.continuous && (
          <>
            <p>
              By strips:{' '}
              <Worked figure={found.cut_strips} label="by strips">
                {found.cut_strips.text}
              </Worked>
              , {found.joins === 1 ? '1 join' : `${found.joins} joins`}
            </p>
            <p>
              Continuous:{' '}
              <Worked figure={found.continuous} label="continuous">
                {found.continuous.text}
              </Worked>
              , {found.rounds} rounds
            </p>
            <p className="quiet">{found.tape_told}</p>
            <Planned planned={found.tape_planned} what="the rectangle" onMake={() => make('tape')} />
          </>
        )}
      </section>
    </div>
  );
}

/** Whether strips are pieces of the garment, and so laid and bought with it; a command that makes them so. */
function Planned({
  planned,
  what,
  onMake,
}: {
  planned: Strips['tape_planned'];
  what: string;
  onMake: () => Promise<unknown>;
}) {
  if (planned === 'yes') return <p className="good">✓ Pieces of this garment: laid and bought with it.</p>;
  return (
    <p className="commands">
      <Button
        size="small"
        aria-label={`${planned === 'no' ? 'Make pieces of' : 'Make anew the pieces of'}: ${what}`}
        onClick={() => void onMake()}
      >
        {planned === 'no' ? 'Make these pieces of the garment' : 'The pieces are otherwise: make them anew'}
      </Button>
    </p>
  );
}

/** The strips on the width they are cut from, at one scale. */
function StripPicture({
  way,
  project,
  width,
  ring,
}: {
  way: Strips['ways'][number];
  project: Project;
  width: number;
  ring: boolean;
}) {
  const along = way.key === 'along';
  const deep = way.deep.mm;
  const long = way.cloth.value;
  const scale = Math.min(320 / long, 120 / width);
  return (
    <svg
      width={long * scale + 2}
      height={width * scale + 2}
      className="small-lay"
      role="img"
      aria-label={`${way.name}: ${way.strips} ${ring ? 'round' : 'flat'}`}
    >
      <rect x={1} y={1} width={long * scale} height={width * scale} fill={project.cloth.ground} />
      {along ? (
        <polygon points={`1,1 ${1 + long * scale},1 ${1 + long * scale},${1 + deep * scale} 1,${1 + deep * scale}`} />
      ) : (
        Array.from({ length: Math.min(way.strips, 200) }, (_, k) => (
          <polygon
            key={k}
            points={`${1 + k * deep * scale},1 ${1 + (k + 1) * deep * scale},1 ${1 + (k + 1) * deep * scale},${1 + width * scale} ${1 + k * deep * scale},${1 + width * scale}`}
          />
        ))
      )}
    </svg>
  );
}

function BiasPicture({
  long,
  wide,
  slants,
  ground,
}: {
  long: number;
  wide: number;
  slants: Strips['slants'];
  ground: string;
}) {
  const scale = Math.min(380 / long, 180 / wide);
  const [w, h] = [long * scale, wide * scale];
  return (
    <svg width={w + 2} height={h + 2} className="small-lay" role="img" aria-label="slanted strips on the rectangle">
      <rect x={1} y={1} width={w} height={h} fill={ground} />
      {slants.map((s, k) => (
        <line key={k} x1={1 + s.x0 * scale} y1={1 + s.y0 * scale} x2={1 + s.x1 * scale} y2={1 + s.y1 * scale} />
      ))}
    </svg>
  );
}
