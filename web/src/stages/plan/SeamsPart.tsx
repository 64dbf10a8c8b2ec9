import { Button, Drawer } from 'antd';
import { useEffect, useState } from 'react';
import type { Match, SeamPiece } from '../../api/client';
import { useAct } from '../../app/useAct';
import { useSize } from '../../draw/useSize';
import { Diagram, type Touched } from '../../seams/Diagram';
import { SeamFacts } from '../../seams/SeamFacts';
import { SeamList } from '../../seams/SeamList';
import { previewTitle, SeamPreview } from '../../seams/SeamPreview';
import { type MatchCalls, useMatch } from '../../seams/useMatch';
import { Wishes } from '../../seams/Wishes';

type Doing = 'look' | 'sew' | 'lay' | 'corners' | 'bars';

/** Seams that are likely, each to be taken or left. */
function Proposed({ match, calls }: { match: Match; calls: MatchCalls }) {
  const [left, setLeft] = useState<string[]>([]);
  const act = useAct(calls.take, { once: true });
  const key = (p: Match['proposed'][number]) => `${p.name}:${p.told}`;
  const taken = match.proposed.filter((p) => !left.includes(key(p)));
  if (match.proposed.length === 0) return null;
  return (
    <section aria-label="Proposed seams" className="proposed">
      <h2>Proposed</h2>
      <ul className="plain-list">
        {match.proposed.map((p) => (
          <li key={key(p)}>
            <label>
              <input
                type="checkbox"
                checked={!left.includes(key(p))}
                onChange={(e) => setLeft(e.target.checked ? left.filter((one) => one !== key(p)) : [...left, key(p)])}
              />{' '}
              {p.name} <small className="quiet">{p.told}</small>
            </label>
          </li>
        ))}
      </ul>
      <p className="commands">
        <Button
          type="primary"
          data-main
          disabled={taken.length === 0}
          loading={act.busy}
          onClick={() => void act.run(taken.map((p) => p.number))}
        >
          {taken.length === 1 ? 'Make this seam' : `Make these ${taken.length} seams`}
        </Button>
      </p>
      {act.error && (
        <p className="spoil" role="alert">
          {act.error}
        </p>
      )}
    </section>
  );
}

/** The seams of the garment: made by touching two edges, and what the bars of the cloth come to at each. */
export function SeamsPart() {
  const calls = useMatch();
  const match = calls.data;
  const { ref, width, height } = useSize<HTMLDivElement>();
  const [doing, setDoing] = useState<Doing>('look');
  const [first, setFirst] = useState<Touched>();
  const [chosen, setChosen] = useState<number>();
  const [parts, setParts] = useState(false);
  const [seen, setSeen] = useState(false);
  const [dragged, setDragged] = useState<{ piece: number; moved: number }>();
  const act = useAct(async (then: () => Promise<unknown>) => then());
  // Escape lets go of what was begun
  const begun = first !== undefined || doing !== 'look';
  useEffect(() => {
    if (!begun) return undefined;
    const letGo = (e: KeyboardEvent) => {
      if (e.key !== 'Escape') return;
      setFirst(undefined);
      setDoing('look');
    };
    window.addEventListener('keydown', letGo);
    return () => window.removeEventListener('keydown', letGo);
  }, [begun]);
  if (calls.error) return <p className="spoil">{calls.error.message}</p>;
  if (!match) return <p className="quiet">Fetching …</p>;
  const seam = match.seams.find((s) => s.id === chosen);
  const side = (t: Touched) => ({ piece_id: t.piece.id, begin: t.edge.begin, end: t.edge.end });

  function touch(edge: Touched) {
    act.forget();
    if (doing !== 'sew' && doing !== 'lay') {
      setDoing('sew');
      setFirst(edge);
      return;
    }
    if (!first || doing === 'lay') {
      setFirst(edge);
      return;
    }
    const from = first;
    const itself = from.piece.id === edge.piece.id && from.edge.name === edge.edge.name;
    setFirst(undefined);
    void act.run(async () => {
      await calls.add({ a: side(from), b: side(edge), ...(itself && { same_way: true }) });
      setDoing('look');
    });
  }

  function place(piece: SeamPiece, along: number, across: number) {
    if (!first) return;
    const from = first;
    setFirst(undefined);
    void act.run(async () => {
      await calls.add({
        a: side(from),
        b: { piece_id: piece.id, along, across },
        kind: 'laid on',
        levels: match!.bars.x_seen,
        lengthwise: match!.bars.y_seen,
      });
      setDoing('look');
    });
  }

  const wish = dragged && match.wishes.find((w) => w.piece_id === dragged.piece && w.way === 'levels');
  // what of the bars lies at the piece's low end: as they were measured, and as they are on the cloth now
  const left = match.bars.left[0];
  const low = wish ? wish.bar - wish.at / left : 0;
  const over =
    doing === 'bars' && dragged
      ? { piece: dragged.piece, at: (match.bars.x[0]?.begins ?? 0) + low * left + dragged.moved }
      : undefined;
  function drag(moved: number, done: boolean) {
    if (!dragged) return;
    setDragged({ ...dragged, moved });
    if (done)
      void act.run(async () => {
        const repeat = (match!.bars.x_repeat ?? 1) / left;
        const bar = (((low + moved / left) % repeat) + repeat) % repeat;
        await calls.wish({ piece_id: dragged.piece, way: 'levels', at: 0, bar });
        setDragged({ piece: dragged.piece, moved: 0 });
      });
  }

  const told = {
    look: 'Touch two edges to sew them; touch a sign for its seam.',
    sew: first
      ? `${first.piece.name}, ${first.edge.long.text}: touch the edge it is sewn to, or the same one again for its mirror image.`
      : 'Touch the first edge.',
    lay: first
      ? `${first.piece.name}: touch the place where the middle of that edge lies.`
      : 'Touch the edge of the piece that is laid on another.',
    corners: 'Touch a point to make it a corner of a seam, or none.',
    bars: 'Drag the bars up or down over the piece.',
  }[doing];
  const does = (what: Doing, label: string) => (
    <Button
      type={doing === what ? 'primary' : 'default'}
      ghost={doing === what}
      aria-pressed={doing === what}
      onClick={() => {
        setDoing(doing === what ? 'look' : what);
        setFirst(undefined);
        act.forget();
      }}
    >
      {label}
    </Button>
  );
  return (
    <div className="seams-part">
      <div className="seams-picture">
        <h1>
          {match.seams.length === 0
            ? 'Which edges are sewn to which?'
            : `${match.seams.length} ${match.seams.length === 1 ? 'seam' : 'seams'}`}
        </h1>
        <p className="commands" role="group" aria-label="On the diagram">
          {does('sew', 'Sew two edges')}
          {does('lay', 'Lay one on another')}
          {does('corners', 'Corners')}
          {match.pieces.some((p) => p.edges.some((e) => !e.whole)) && (
            <Button
              type={parts ? 'primary' : 'default'}
              ghost={parts}
              aria-pressed={parts}
              onClick={() => setParts(!parts)}
            >
              Up to notches
            </Button>
          )}
        </p>
        <p className="quiet" role="status">
          {told}
        </p>
        {act.error && (
          <p className="spoil" role="alert">
            {act.error}
          </p>
        )}
        {match.out_of_date && (
          <p className="look">The lay was made before a change: what is told of the seams is told of that lay.</p>
        )}
        <div className="picture" ref={ref}>
          {match.pieces.length === 0 ? (
            <p className="empty">Add the pattern pieces first.</p>
          ) : (
            width > 0 && (
              <Diagram
                match={match}
                width={width}
                height={height}
                chosen={chosen}
                first={first}
                parts={parts}
                corners={doing === 'corners'}
                placing={doing === 'lay' && first !== undefined}
                bars={over}
                onSeam={setChosen}
                onEdge={touch}
                onCorner={(piece, key, corner) => void act.run(() => calls.corner(piece, key, corner))}
                onPlace={place}
                onBars={drag}
              />
            )
          )}
        </div>
      </div>
      <aside className="facts">
        {seam ? (
          <>
            <p className="commands">
              <button type="button" className="as-link" onClick={() => setChosen(undefined)}>
                All seams
              </button>
            </p>
            <SeamFacts match={match} seam={seam} calls={calls} onSee={() => setSeen(true)} />
          </>
        ) : (
          <>
            <Proposed match={match} calls={calls} />
            {match.seams.length > 0 && (
              <section aria-label="Seams">
                <h2>Seams, the worst first</h2>
                <SeamList match={match} chosen={chosen} onChoose={setChosen} />
                <p className="quiet">{match.limits}</p>
              </section>
            )}
            {match.consequences.length > 0 && (
              <section aria-label="What the bars mean">
                <h2>What the bars mean</h2>
                {match.consequences.map((text) => (
                  <p key={text}>{text}</p>
                ))}
              </section>
            )}
            {match.named_bars.length > 0 && match.pieces.length > 0 && (
              <Wishes
                match={match}
                calls={calls}
                onDrag={(piece) => {
                  setDoing('bars');
                  setDragged({ piece, moved: 0 });
                }}
              />
            )}
          </>
        )}
      </aside>
      <Drawer
        closeIcon="Close"
        title={previewTitle(seam)}
        open={seen && seam !== undefined}
        onClose={() => setSeen(false)}
        size={700}
        destroyOnHidden
      >
        {seam && <SeamPreview key={seam.id} match={match} seam={seam} />}
      </Drawer>
    </div>
  );
}
