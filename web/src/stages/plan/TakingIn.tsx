import { Button, Checkbox, Input } from 'antd';
import { useEffect, useRef, useState, type PointerEvent } from 'react';
import { api, type NotRead, Refusal, saved, type Taken, type TakenPiece, type Use, unwrap } from '../../api/client';
import { useChanges, useChoices } from '../../api/hooks';
import { DoButton } from '../../app/DoButton';
import { inBase64 } from '../../app/inBase64';
import { useAct } from '../../app/useAct';
import { GrainArrow } from '../../draw/GrainArrow';
import { Marks } from '../../draw/PieceShape';
import { bounds, points } from '../../draw/outline';
import { useSize } from '../../draw/useSize';
import { Choice } from '../../fields/Choice';

type Place = { number: number; x: number; y: number };
type Wishes = { unit?: string; styles?: string[]; columns?: number; places?: Place[] };
/** What is kept of a piece: as it was understood, until it is changed here. */
type Wanted = {
  keep: boolean;
  name: string;
  copies: string;
  pair: boolean;
  grain: TakenPiece['grain'];
  one_way: boolean;
  seam: string;
  use: string;
};

const UNIT_NAMES: Record<string, string> = {
  mm: 'a millimetre',
  cm: 'a centimetre',
  in: 'an inch',
  pt: 'a point (1/72 in)',
  px: '1/96 in',
};

const wantedOf = (piece: TakenPiece, main: number): Wanted => ({
  keep: true,
  name: piece.name,
  copies: String(piece.copies),
  pair: piece.pair,
  grain: piece.grain,
  one_way: piece.one_way,
  seam: piece.seam.mm > 0 ? piece.seam.text : '',
  use: String(main),
});

/** A file of pieces: left as it is drawn, right what was understood; nothing is kept before it is confirmed. */
export function TakingIn({ file, uses, onClose }: { file: File; uses: Use[]; onClose: (told?: string) => void }) {
  const changes = useChanges();
  const [wishes, setWishes] = useState<Wishes>({});
  const [taken, setTaken] = useState<Taken>();
  const [wanted, setWanted] = useState<Wanted[]>([]);
  const [again, setAgain] = useState('');
  const main = uses[0]!.id;

  const looking = useAct(async (asked: Wishes) => {
    const before = taken;
    setWishes(asked);
    const found = await unwrap(
      api.POST('/api/plan/taking-in', { body: { file_name: file.name, file: await inBase64(file), ...bodyOf(asked) } }),
    );
    setTaken(found);
    // what was typed of a piece stays with it, as long as it is still that piece
    setWanted((old) =>
      found.pieces.map((piece, i) =>
        old[i] && before?.pieces[i]?.name === piece.name ? old[i] : wantedOf(piece, main),
      ),
    );
  });
  const { run: look } = looking;
  const begun = useRef(false);
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    void look({});
  }, [look]);

  const keeping = useAct(
    async (twice: 'ask' | 'instead' | 'beside') => {
      setAgain('');
      const pieces = taken!.pieces.flatMap((piece, i) => {
        const want = wanted[i]!;
        return want.keep
          ? [
              {
                number: piece.number,
                name: want.name,
                copies: /^\d+$/.test(want.copies.trim()) ? Number(want.copies) : 0,
                pair: want.pair,
                grain: want.grain as 'lengthwise',
                one_way: want.one_way,
                seam: want.seam || '0',
                use_id: Number(want.use),
              },
            ]
          : [];
      });
      try {
        const told = await saved(
          api.POST('/api/projects/{project_id}/pieces/taken-in', {
            params: { path: { project_id: changes.id } },
            body: { file_name: file.name, file: await inBase64(file), ...bodyOf(wishes), pieces, twice },
          }),
        );
        changes.keep(told.project);
        onClose(told.added.join(', '));
      } catch (fault) {
        if (!(fault instanceof Refusal && fault.code === 'again')) throw fault;
        setAgain(fault.message);
      }
    },
    { once: true },
  );

  const change = (i: number, to: Partial<Wanted>) =>
    setWanted((old) => old.map((one, k) => (k === i ? { ...one, ...to } : one)));
  const kept = wanted.filter((one) => one.keep).length;
  return (
    <section className="taking-in" aria-label="Taking in">
      <h1>
        {taken
          ? `${taken.pieces.length} ${taken.pieces.length === 1 ? 'piece' : 'pieces'} understood in “${file.name}”`
          : looking.error
            ? `“${file.name}” could not be read`
            : `Reading “${file.name}” …`}
      </h1>
      {(looking.error || keeping.error) && (
        <p className="spoil" role="alert">
          {looking.error || keeping.error}
        </p>
      )}
      {taken && <Open taken={taken} wishes={wishes} busy={looking.busy} onWish={(asked) => void look(asked)} />}
      {taken && (
        <div className="taking-in-both">
          <Sheet taken={taken} onPlace={(places) => void look({ ...wishes, places })} />
          <ol className="taken-pieces" aria-label="What was understood">
            <Remarks summary="Not understood" what={taken.not_read} open />
            <Remarks summary="Assumed, or put right" what={taken.mended} open={taken.mended.length < 4} />
            {taken.pieces.map((piece, i) => (
              <Understood
                key={piece.number}
                piece={piece}
                want={wanted[i]!}
                uses={uses}
                onChange={(to) => change(i, to)}
              />
            ))}
          </ol>
        </div>
      )}
      {again && (
        <div className="look-again" role="alertdialog" aria-label="Read twice">
          <p>{again}</p>
          <p className="commands">
            <Button autoFocus onClick={() => void keeping.run('instead')}>
              Instead
            </Button>
            <Button onClick={() => void keeping.run('beside')}>Both</Button>
          </p>
        </div>
      )}
      <p className="commands">
        {taken && taken.pieces.length > 0 && (
          <DoButton type="primary" data-main disabled={kept === 0} onDo={() => keeping.run('ask')}>
            {kept === 1 ? 'Keep this piece' : `Keep these ${kept} pieces`}
          </DoButton>
        )}
        <Button onClick={() => onClose()}>Leave it</Button>
        <span className="quiet">Nothing of it is kept yet.</span>
      </p>
    </section>
  );
}

const bodyOf = (wishes: Wishes) => ({
  unit: wishes.unit ?? null,
  styles: wishes.styles ?? [],
  columns: wishes.columns ?? null,
  places: wishes.places ?? null,
});

/** What the file leaves open. */
function Open({
  taken,
  wishes,
  busy,
  onWish,
}: {
  taken: Taken;
  wishes: Wishes;
  busy: boolean;
  onWish: (wishes: Wishes) => void;
}) {
  const largest = taken.pieces[0];
  return (
    <div className="taking-in-open">
      <span>{taken.told}</span>
      {taken.units.length > 0 && (
        <label>
          One unit of it is{' '}
          <Choice
            id="taken-unit"
            value={taken.unit}
            options={taken.units.map((unit) => ({ value: unit, label: UNIT_NAMES[unit] ?? unit }))}
            placeholder="choose"
            wrong={false}
            onChoose={(unit) => onWish({ ...wishes, unit })}
          />
          {largest && (
            <b>
              {' '}
              “{largest.name}” is then {largest.size}
            </b>
          )}
        </label>
      )}
      {taken.styles.length > 1 && (
        <span role="group" aria-label="Kinds of line">
          {taken.nested ? 'Which size, by its line: ' : 'Cut lines are: '}
          {taken.styles.map((style) => (
            <Button
              key={style.name}
              size="small"
              aria-pressed={style.read}
              type={style.read ? 'primary' : 'default'}
              disabled={busy}
              onClick={() =>
                onWish({
                  ...wishes,
                  styles: taken.nested
                    ? [style.name]
                    : taken.styles.filter((s) => (s.name === style.name ? !s.read : s.read)).map((s) => s.name),
                })
              }
            >
              <span
                className="swatch-line"
                style={{ borderColor: style.name.split(' ')[0] }}
                data-dashed={style.name.includes('dashed') || undefined}
              />
              {style.name.includes('dashed') ? 'dashed, ' : ''}
              {style.outlines} {style.outlines === 1 ? 'outline' : 'outlines'}
            </Button>
          ))}
        </span>
      )}
      {taken.pages.length > 1 && (
        <label>
          {taken.pages.length} pages, laid together {taken.joined}; if that is wrong, drag them, or so many in a row:{' '}
          <Input
            className="short"
            inputMode="numeric"
            defaultValue={wishes.columns}
            onPressEnter={(e) => {
              const columns = Number(e.currentTarget.value);
              if (columns >= 1) {
                const { places: _, ...rest } = wishes;
                onWish({ ...rest, columns });
              }
            }}
          />
        </label>
      )}
    </div>
  );
}

/** The file as it is drawn; pages of a PDF can be dragged, or moved by the arrow keys. */
function Sheet({ taken, onPlace }: { taken: Taken; onPlace: (places: Place[]) => void }) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const [moved, setMoved] = useState<Place>();
  const from = useRef<[number, number]>(undefined);
  const pages = taken.pages.length > 1 ? taken.pages : [];
  const all = bounds([
    ...taken.lines.flat(),
    ...pages.flatMap((p): [number, number][] => [
      [p.x, -p.y],
      [p.x + p.wide, -(p.y + p.high)],
    ]),
  ]);
  const wide = Math.max(all.x1 - all.x0, 1);
  const high = Math.max(all.y1 - all.y0, 1);
  const scale = Math.min((width - 8) / wide, (height - 8) / high);
  const at = (page: { number: number; x: number; y: number }) => (moved?.number === page.number ? moved : page);
  const put = (place: Place) =>
    onPlace(taken.pages.map((p) => (p.number === place.number ? place : { number: p.number, x: p.x, y: p.y })));
  const drag = (e: PointerEvent, page: Place) => {
    if (!from.current) return;
    const [x, y] = from.current;
    setMoved({ number: page.number, x: page.x + (e.clientX - x) / scale, y: page.y - (e.clientY - y) / scale });
  };
  return (
    <div className="taking-in-sheet" ref={ref}>
      {width > 0 && (
        <svg width={width} height={height} role="group" aria-label="The file as it is drawn">
          <g transform={`translate(${4 - all.x0 * scale} ${4 - all.y0 * scale})`}>
            {pages.map((page) => {
              const place = at(page);
              return (
                <g
                  key={page.number}
                  tabIndex={0}
                  role="button"
                  aria-label={`Page ${page.number}: drag it, or move it by the arrow keys`}
                  className="taken-page"
                  onPointerDown={(e) => {
                    from.current = [e.clientX, e.clientY];
                    e.currentTarget.setPointerCapture(e.pointerId);
                  }}
                  onPointerMove={(e) => drag(e, page)}
                  onPointerUp={() => {
                    from.current = undefined;
                    if (moved) put(moved);
                    setMoved(undefined);
                  }}
                  onKeyDown={(e) => {
                    const by = e.shiftKey ? 10 : 1;
                    const way = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, by], ArrowDown: [0, -by] }[
                      e.key
                    ];
                    if (!way) return;
                    e.preventDefault();
                    put({ number: page.number, x: page.x + way[0]!, y: page.y + way[1]! });
                  }}
                >
                  <rect
                    x={place.x * scale}
                    y={-(place.y + page.high) * scale}
                    width={page.wide * scale}
                    height={page.high * scale}
                  />
                  <text x={place.x * scale + 6} y={-(place.y + page.high) * scale + 16}>
                    {page.number}
                  </text>
                </g>
              );
            })}
            {taken.lines.map((line, i) => (
              <polyline
                key={i}
                className="taken-line"
                points={line.map(([x = 0, y = 0]) => `${(x * scale).toFixed(1)},${(y * scale).toFixed(1)}`).join(' ')}
              />
            ))}
          </g>
        </svg>
      )}
    </div>
  );
}

/** One piece, with what may be changed of it before it is kept. */
function Understood({
  piece,
  want,
  uses,
  onChange,
}: {
  piece: TakenPiece;
  want: Wanted;
  uses: Use[];
  onChange: (to: Partial<Wanted>) => void;
}) {
  const id = `taken-${piece.number}`;
  const choices = useChoices();
  const marks = [
    `${piece.edges} ${piece.edges === 1 ? 'edge' : 'edges'}`,
    piece.notches > 0 && `${piece.notches} ${piece.notches === 1 ? 'notch' : 'notches'}`,
    piece.shorter.mm > 0 && `${piece.shorter.text} shorter at its low end`,
    piece.included.mm > 0 && `${piece.included.text} allowance inside its line`,
    piece.sizes.length > 0 && `sizes ${piece.sizes.join(', ')}`,
  ].filter(Boolean);
  return (
    <li className={want.keep ? '' : 'left-out'}>
      <Thumb piece={piece} />
      <div className="taken-facts">
        <Checkbox checked={want.keep} onChange={(e) => onChange({ keep: e.target.checked })}>
          <span className="unseen">Keep {want.name}</span>
        </Checkbox>
        <Input
          aria-label="Name"
          value={want.name}
          maxLength={120}
          onChange={(e) => onChange({ name: e.target.value })}
        />
        <span className="quiet">
          {piece.size}
          {piece.on_fold ? ', half, on the fold' : ''}
          {marks.length > 0 && `; ${marks.join(', ')}`}
        </span>
        <span className="taken-how">
          <label>
            <Input
              className="short"
              aria-label="Copies to cut"
              inputMode="numeric"
              value={want.copies}
              onChange={(e) => onChange({ copies: e.target.value })}
            />{' '}
            to cut
          </label>
          {!piece.on_fold && (
            <Checkbox checked={want.pair} onChange={(e) => onChange({ pair: e.target.checked })}>
              in pairs
            </Checkbox>
          )}
          <Checkbox checked={want.one_way} onChange={(e) => onChange({ one_way: e.target.checked })}>
            one way
          </Checkbox>
          <label>
            grain{' '}
            <Choice
              id={`${id}-grain`}
              value={want.grain}
              options={choices?.grains ?? []}
              placeholder="choose"
              wrong={false}
              onChoose={(grain) => onChange({ grain })}
            />
          </label>
          <label>
            add{' '}
            <Input
              className="short"
              aria-label="Allowance to add"
              value={want.seam}
              placeholder="nothing"
              maxLength={30}
              onChange={(e) => onChange({ seam: e.target.value })}
            />
          </label>
          {uses.length > 1 && (
            <label>
              from{' '}
              <Choice
                id={`${id}-use`}
                value={want.use}
                options={uses.map((use) => ({ value: String(use.id), label: use.name }))}
                placeholder="choose"
                wrong={false}
                onChoose={(use) => onChange({ use })}
              />
            </label>
          )}
        </span>
      </div>
    </li>
  );
}

const THUMB = 112;

function Thumb({ piece }: { piece: TakenPiece }) {
  const turn = (line: TakenPiece['cut']) => line.map(([a = 0, b = 0]): [number, number] => [-b, a]);
  const box = bounds(turn(piece.cut));
  const scale = (THUMB - 8) / Math.max(box.x1 - box.x0, box.y1 - box.y0, 1);
  const place = (line: TakenPiece['cut']) =>
    turn(line).map(([x, y]): [number, number] => [4 + (x - box.x0) * scale, 4 + (box.y1 - y) * scale]);
  const [tail, head] = place(piece.arrow);
  return (
    <svg
      width={(box.x1 - box.x0) * scale + 8}
      height={(box.y1 - box.y0) * scale + 8}
      className="piece"
      aria-hidden="true"
    >
      <polygon points={points(turn(piece.cut), scale, 4 - box.x0 * scale, 4 + box.y1 * scale)} className="piece-cut" />
      <Marks drawn={piece.marks} place={place} named={false} />
      {tail && head && <GrainArrow tail={tail} head={head} oneWay={piece.one_way} />}
    </svg>
  );
}

/** What there is to say about a file that was read. */
function Remarks({ summary, what, open }: { summary: string; what: NotRead[]; open: boolean }) {
  if (what.length === 0) return null;
  return (
    <li className="not-read-row">
      <details open={open} className="not-read">
        <summary>
          {summary} ({what.length})
        </summary>
        <ul>
          {what.map((n, i) => (
            <li key={i}>
              {n.what}: {n.why}
            </li>
          ))}
        </ul>
      </details>
    </li>
  );
}
