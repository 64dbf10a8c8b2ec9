import { Button, Upload } from 'antd';
import { useMemo, useState } from 'react';
import { api, type Piece, type Project, saved, type Use } from '../../api/client';
import { useNavigate, useSearchParams } from 'react-router';
import { useAt, useChanges, useChoices, usePart, useProject } from '../../api/hooks';
import { Parts } from '../../app/Parts';
import { Worked } from '../../app/Working';
import { bounds } from '../../draw/outline';
import { useSize } from '../../draw/useSize';
import { DraftScope, EntryChoice, EntryTick } from '../../fields/Entry';
import { PieceShape } from '../../draw/PieceShape';
import { CutsTable } from './CutsTable';
import { PieceDrawer } from './piece/PieceDrawer';
import { PrintPart } from './PrintPart';
import { SeamsPart } from './SeamsPart';
import { SheetPart } from './SheetPart';
import { Stage } from '../../app/Stage';
import { TakingIn } from './TakingIn';

type Spot = { piece: Piece; x: number; y: number; left: number; top: number; width: number; height: number };
const GAP = 26;
const HEAD = 40;

/** Pieces side by side on shelves, all at one scale; the largest scale that fits. */
function arrange(pieces: Piece[], width: number, height: number): { scale: number; spots: Spot[]; high: number } {
  const sizes = pieces.map((p) => bounds(p.enlarged?.length ? p.enlarged : p.cut));
  let scale = 0.8;
  for (let round = 0; round < 40; round++) {
    const spots: Spot[] = [];
    let x = GAP;
    let y = 8;
    let shelf = 0;
    let widest = 0;
    pieces.forEach((piece, i) => {
      const b = sizes[i]!;
      const w = Math.max((b.y1 - b.y0) * scale, 110);
      const h = (b.x1 - b.x0) * scale;
      if (x + w + GAP > width && x > GAP) {
        x = GAP;
        y += shelf + GAP;
        shelf = 0;
      }
      const pad = (w - (b.y1 - b.y0) * scale) / 2;
      spots.push({
        piece,
        x: x + pad + b.y1 * scale,
        y: y + HEAD + b.x1 * scale,
        left: x - 8,
        top: y,
        width: w + 16,
        height: h + HEAD + 10,
      });
      x += w + GAP;
      widest = Math.max(widest, x);
      shelf = Math.max(shelf, h + HEAD);
    });
    const high = y + shelf + GAP;
    if ((high <= height && widest <= width + GAP) || scale < 0.06) return { scale, spots, high };
    scale *= 0.93;
  }
  return { scale, spots: [], high: height };
}

function Facts({
  piece,
  uses,
  onChange,
  onTakeOut,
}: {
  piece: Piece;
  uses: Use[];
  onChange: () => void;
  onTakeOut: () => void;
}) {
  const { piece: change } = useChanges();
  const at = useAt();
  const go = useNavigate();
  const first = piece.cuts[0];
  return (
    <section aria-label="The chosen piece">
      <h2>{piece.name}</h2>
      {piece.fault && <p className="spoil">{piece.fault}</p>}
      {piece.cuts.length < 2 ? (
        <p>{piece.how_cut}</p>
      ) : (
        <ul className="plain-list">
          {piece.cuts.map((c) => (
            <li key={c.use_id}>
              {c.how_cut}, of {uses.find((u) => u.id === c.use_id)?.name}
            </li>
          ))}
        </ul>
      )}
      <p>
        {piece.long && piece.wide ? (
          <>
            <Worked figure={piece.long} label={`length of ${piece.name}`}>
              {piece.long.text}
            </Worked>{' '}
            long,{' '}
            <Worked figure={piece.wide} label={`width of ${piece.name}`}>
              {piece.wide.text}
            </Worked>{' '}
            wide
          </>
        ) : (
          piece.size
        )}
        , at the cut line
      </p>
      <p>
        {piece.seam.mm > 0
          ? `${piece.seam.text} seam allowance added${piece.on_fold ? ', none on the fold' : ''}`
          : 'no allowance to add'}
        {piece.lean && `; its arrow leans ${piece.lean}`}
      </p>
      <p className="commands">
        <Button onClick={onChange}>Change</Button>
        <Button onClick={onTakeOut}>Take out</Button>
        {!piece.fault && (
          <Button
            href={at('plan', { print: String(piece.id) })}
            onClick={(e) => {
              e.preventDefault();
              void go(at('plan', { print: String(piece.id) }));
            }}
          >
            Print it
          </Button>
        )}
      </p>
      <DraftScope value={`piece-${piece.id}`}>
        <EntryTick
          label="does not show when worn (facing, pocket bag)"
          value={piece.hidden}
          onSave={(hidden) => change(piece.id, { hidden }, first?.use_id)}
        />
        <EntryTick label="has a hem at its low end" value={piece.hem} onSave={(hem) => change(piece.id, { hem })} />
        {piece.grain === 'lengthwise' && (
          <>
            <h3>On bars</h3>
            <p className="quiet">
              At which seams bars meet is told under <a href={at('plan', { part: 'seams' })}>Seams</a>.
            </p>
            <EntryTick
              label={
                piece.pair
                  ? 'left and right mirror each other on the bars'
                  : 'its middle lies on a mirror line of the bars'
              }
              value={piece.centred}
              onSave={(centred) => change(piece.id, { centred })}
            />
          </>
        )}
      </DraftScope>
    </section>
  );
}

/** Care of the finished thing: it decides how the cloth is treated first. */
function Care({ project }: { project: Project }) {
  const changes = useChanges();
  const choices = useChoices();
  return (
    <section aria-label="Care">
      <h2>The finished thing</h2>
      <EntryChoice
        label="will be washed"
        value={project.wash}
        options={choices?.washes ?? []}
        onSave={(wash) => changes.project({ wash })}
      />
      <EntryChoice
        label="and dried"
        value={project.dry}
        options={choices?.dries ?? []}
        onSave={(dry) => changes.project({ dry })}
      />
      {project.sizes.length > 0 && <SizeChoice project={project} />}
    </section>
  );
}

/** The size that is cut; another one at a named height makes a piece of both. */
function SizeChoice({ project }: { project: Project }) {
  const changes = useChanges();
  const sizes = project.sizes.map((size) => ({ value: size, label: size }));
  const at = (place: string) => project.size_at.find((one) => one.place === place)?.size ?? '';
  const blend = (place: string, size: string) =>
    changes.project({
      size_at: [...project.size_at.filter((one) => one.place !== place), ...(size ? [{ place, size }] : [])],
    });
  return (
    <>
      <EntryChoice
        label="is cut in size"
        value={project.size}
        options={[{ value: '', label: 'as the points were told' }, ...sizes]}
        onSave={(size) => changes.project({ size })}
      />
      {project.levels.map((place) => (
        <EntryChoice
          key={place}
          label={`at the ${place}`}
          value={at(place)}
          options={[{ value: '', label: 'that size too' }, ...sizes]}
          onSave={(size) => blend(place, size)}
        />
      ))}
    </>
  );
}

const PARTS = [
  { value: 'pieces', label: 'The pieces' },
  { value: 'cuts', label: 'What is cut from what' },
  { value: 'seams', label: 'Seams' },
  { value: 'sheet', label: 'The sheet' },
] as const;

/** The formats in which pieces are written. */
const OUT = [
  ['svg', 'SVG'],
  ['dxf', 'DXF'],
  ['pdf', 'PDF at true size'],
  ['csv', 'table of points'],
  ['json', 'lay problem'],
] as const;

/** Plan: what is made, its pieces at one scale. */
export function Plan() {
  const print = Number(useSearchParams()[0].get('print'));
  return print ? <PrintPart pieceId={print} /> : <Pieces />;
}

function Pieces() {
  const project = useProject().data!;
  const [part, choose] = usePart(PARTS);
  const changes = useChanges();
  const { ref, width, height } = useSize<HTMLDivElement>();
  const [chosen, setChosen] = useState<number>();
  const [form, setForm] = useState<Piece | 'new'>();
  const [picked, setPicked] = useState<File>();
  const [takenIn, setTakenIn] = useState('');
  const { scale, spots, high } = useMemo(() => arrange(project.pieces, width, height), [project.pieces, width, height]);
  const piece = project.pieces.find((p) => p.id === chosen);
  const copies = project.uses.reduce((sum, u) => sum + u.copies, 0);

  async function takeOut(gone: Piece) {
    const path = { params: { path: { piece_id: gone.id }, query: changes.query } };
    changes.keep(await saved(api.DELETE('/api/pieces/{piece_id}', path)));
  }

  if (picked)
    return (
      <Stage className="takes-in">
        <TakingIn
          key={`${picked.name}-${picked.lastModified}-${picked.size}`}
          file={picked}
          uses={project.uses}
          onClose={(told) => {
            setPicked(undefined);
            setTakenIn(told ?? '');
          }}
        />
      </Stage>
    );

  return (
    <Stage className={part === 'pieces' ? 'with-facts' : ''}>
      <div className="picture-side">
        <Parts label="Parts of Plan" parts={PARTS} value={part} onChoose={choose}>
          {part === 'cuts' ? (
            <CutsTable project={project} />
          ) : part === 'seams' ? (
            <SeamsPart />
          ) : part === 'sheet' ? (
            <SheetPart project={project} />
          ) : (
            <>
              <h1>
                {project.pieces.length === 0
                  ? 'Which pieces will be cut?'
                  : `${project.pieces.length} ${project.pieces.length === 1 ? 'piece' : 'pieces'}, ${copies} to cut`}
              </h1>
              <p className="commands">
                <Button
                  type={project.pieces.length === 0 ? 'primary' : 'default'}
                  data-main
                  onClick={() => setForm('new')}
                >
                  Read off with a tape
                </Button>
                <Upload
                  accept=".svg,.dxf,.pdf,.csv,.json,image/svg+xml,application/pdf"
                  showUploadList={false}
                  aria-label="File to take in"
                  beforeUpload={(file) => {
                    setTakenIn('');
                    setPicked(file);
                    return false;
                  }}
                >
                  <Button>Take in a file (SVG, DXF, PDF, table)</Button>
                </Upload>
                <a href="/example-pieces.svg" download>
                  An example drawing
                </a>
              </p>
              {project.school === 'fit' && (
                <p className="look">
                  Sewn first, then shrunk to fit: the solid line is the finished size, the long-dashed one is cut from
                  the raw cloth. Allowances still to be added keep their width; included ones grow with the piece.
                </p>
              )}
              {takenIn && (
                <p className="good" role="status">
                  Taken in: {takenIn}.
                </p>
              )}
              {project.pieces.length > 0 && (
                <details className="pieces-out">
                  <summary>Take the pieces to another program</summary>
                  <p>
                    {OUT.map(([kind, name], i) => (
                      <span key={kind}>
                        {i > 0 && ', '}
                        <a href={`/api/projects/${project.id}/pieces.file?kind=${kind}`} download>
                          {name}
                        </a>
                      </span>
                    ))}
                  </p>
                </details>
              )}
              <div className="picture" ref={ref}>
                {project.pieces.length === 0 ? (
                  <div className="empty">
                    <p>Lay a paper piece on the table, or choose a drawing of your pattern pieces.</p>
                    <p className="quiet">A sleeve takes about six stations along its grainline.</p>
                  </div>
                ) : (
                  width > 0 && (
                    <svg width={width} height={Math.max(high, 10)} className="pieces-sheet">
                      {spots.map((s) => (
                        <g
                          key={s.piece.id}
                          tabIndex={0}
                          role="button"
                          aria-pressed={s.piece.id === chosen}
                          aria-label={`${s.piece.name}, ${s.piece.how_cut}`}
                          className={s.piece.id === chosen ? 'sheet-piece chosen' : 'sheet-piece'}
                          onClick={() => setChosen(s.piece.id)}
                          onKeyDown={(e) => {
                            if (e.key === 'Enter' || e.key === ' ') {
                              e.preventDefault();
                              setChosen(s.piece.id);
                            }
                          }}
                        >
                          <rect x={s.left} y={s.top} width={s.width} height={s.height} className="sheet-hit" />
                          <PieceShape
                            piece={s.piece}
                            scale={scale}
                            x={s.x}
                            y={s.y}
                            name={s.piece.name}
                            detail={s.piece.how_cut}
                          />
                        </g>
                      ))}
                    </svg>
                  )
                )}
              </div>
            </>
          )}
        </Parts>
      </div>
      {part === 'pieces' && (
        <aside className="facts">
          {piece ? (
            <Facts
              piece={piece}
              uses={project.uses}
              onChange={() => setForm(piece)}
              onTakeOut={() => void takeOut(piece)}
            />
          ) : (
            project.pieces.length > 0 && <p className="quiet">Touch a piece for its facts.</p>
          )}
          <Care project={project} />
        </aside>
      )}
      {form && (
        <PieceDrawer
          key={form === 'new' ? 'new' : form.id}
          project={project}
          piece={form === 'new' ? undefined : form}
          onClose={() => setForm(undefined)}
        />
      )}
    </Stage>
  );
}
