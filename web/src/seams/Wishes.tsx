import { Button } from 'antd';
import { useState } from 'react';
import type { Match } from '../api/client';
import { useAct } from '../app/useAct';
import { Choice } from '../fields/Choice';
import type { MatchCalls } from './useMatch';

/** The bar that matters: which falls where on a piece, by name. */
export function Wishes({
  match,
  calls,
  onDrag,
}: {
  match: Match;
  calls: MatchCalls;
  /** the bars are to be dragged over this piece */
  onDrag: (piece: number) => void;
}) {
  const [piece, setPiece] = useState(match.pieces[0]?.id ?? 0);
  const [way, setWay] = useState<'levels' | 'lengthwise'>(match.bars.x_seen ? 'levels' : 'lengthwise');
  const of = match.pieces.find((p) => p.id === piece);
  const [spot, setSpot] = useState(0);
  const spots = of?.spots.filter((s) => s.way === way) ?? [];
  const named = match.named_bars.filter((b) => b.way === way);
  const act = useAct(async (body: Parameters<MatchCalls['wish']>[0]) => calls.wish(body));
  const wish = match.wishes.find((w) => w.piece_id === piece && w.way === way);
  const at = spots[Math.min(spot, spots.length - 1)];
  return (
    <section aria-label="The bar that matters">
      <h2>The bar that matters</h2>
      <div className="wish">
        <Choice
          placeholder=""
          wrong={false}
          id="wish-piece"
          label="Piece"
          value={String(piece)}
          options={match.pieces.map((p) => ({ value: String(p.id), label: p.name }))}
          onChoose={(v) => setPiece(Number(v))}
        />
        {match.bars.x_seen && match.bars.y_seen && (
          <Choice
            placeholder=""
            wrong={false}
            id="wish-way"
            label="Bars"
            value={way}
            options={[
              { value: 'levels', label: 'across the garment' },
              { value: 'lengthwise', label: 'along the garment' },
            ]}
            onChoose={(v) => setWay(v as typeof way)}
          />
        )}
        <Choice
          placeholder=""
          wrong={false}
          id="wish-at"
          label="At"
          value={String(spot)}
          options={spots.map((s, n) => ({ value: String(n), label: s.name }))}
          onChoose={(v) => setSpot(Number(v))}
        />
        <Choice
          wrong={false}
          id="wish-bar"
          label="this bar"
          value={wish ? String(named.findIndex((b) => Math.abs(b.bar - wish.bar) < 0.05)) : ''}
          placeholder={wish ? 'where it was dragged to' : 'free, for the least cloth'}
          options={[
            { value: 'free', label: 'free, for the least cloth' },
            ...named.map((b, n) => ({ value: String(n), label: b.name })),
          ]}
          onChoose={(v) =>
            void act.run({
              piece_id: piece,
              way,
              at: at?.at ?? 0,
              bar: v === 'free' ? null : (named[Number(v)]?.bar ?? null),
            })
          }
        />
      </div>
      {way === 'levels' && match.bars.x_seen && (
        <p className="commands">
          <Button onClick={() => onDrag(piece)}>Drag the bars over it</Button>
        </p>
      )}
      {act.error && (
        <p className="spoil" role="alert">
          {act.error}
        </p>
      )}
      <p className="quiet">What a wish costs in length is told under Buy, once the pieces are laid with it.</p>
    </section>
  );
}
