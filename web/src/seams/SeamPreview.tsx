import { useQuery } from '@tanstack/react-query';
import { Segmented } from 'antd';
import { useState } from 'react';
import { api, type Match, type Preview, type Seam, unwrap } from '../api/client';
import { useAsked, useTape } from '../api/hooks';
import { keys } from '../api/keys';
import { bounds } from '../draw/outline';
import { Choice } from '../fields/Choice';
import { BarsFill } from './BarsFill';
import { StripChart } from './StripChart';
import { called, Verdict } from './Verdict';

/** What is shown of the finished garment, mm and pixels. */
const SHOWN_MM = 420;
const HIGH = 440;
const ZOOMS = [1, 2, 4];

/** A piece as it lies in the picture: what will be seen of it. */
function Piece({ half }: { half: Preview['a'] }) {
  return (
    <g transform={`matrix(${half.matrix.join(' ')})`}>
      <polygon points={half.shown.map((p) => p.join(',')).join(' ')} fill="url(#seam-bars)" className="shown-piece" />
    </g>
  );
}

/** Two cut pieces laid together at their seam line, each with the bars this lay gives it. */
function Picture({ found, zoom, at }: { found: Preview; zoom: number; at: number }) {
  const line = found.along;
  const middle = line[Math.min(line.length - 1, Math.round(at * (line.length - 1)))] ?? [0, 0];
  const b = bounds(line);
  const wide = SHOWN_MM / zoom;
  const long = Math.max(b.x1 - b.x0, b.y1 - b.y0);
  const [cx, cy] =
    zoom === 1 && long < SHOWN_MM ? [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2] : [middle[0] ?? 0, middle[1] ?? 0];
  const ratio = 1.3;
  const path = (points: readonly (readonly number[])[]) => points.map((p) => p.join(',')).join(' ');
  return (
    <svg
      className="seam-shown"
      style={{ height: HIGH }}
      viewBox={`${cx - (wide * ratio) / 2} ${-cy - wide / 2} ${wide * ratio} ${wide}`}
      role="img"
      aria-label={`${found.a.name} and ${found.b.name} joined: ${found.told}`}
    >
      <defs>
        <BarsFill id="seam-bars" bars={found.bars} />
      </defs>
      <g transform="scale(1 -1)">
        <Piece half={found.b} />
        <Piece half={found.a} />
        <polyline points={path(line)} className="shown-seam" style={{ strokeWidth: wide / 350 }} />
      </g>
    </svg>
  );
}

/** A seam as one will see it on the finished garment, with its strip chart below. */
export function SeamPreview({ match, seam }: { match: Match; seam: Seam }) {
  const { id, key, params } = useAsked();
  const tape = useTape();
  const [couple, setCouple] = useState(0);
  const [atCut, setAtCut] = useState(false);
  const [zoom, setZoom] = useState(1);
  const [at, setAt] = useState(0.5);
  const shown = Math.min(couple, Math.max(0, seam.couples.length - 1));
  const found = useQuery({
    queryKey: keys.seam(id, key, seam.id, shown, atCut),
    enabled: match.laid && seam.couples.length > 0,
    queryFn: () =>
      unwrap(
        api.GET('/api/projects/{project_id}/seams/{seam_id}/preview', {
          params: {
            path: { ...params.path, seam_id: seam.id },
            query: { ...params.query, couple: shown, at_cut: atCut },
          },
        }),
      ),
    placeholderData: (old) => old,
  });
  const strips = found.data?.strips.filter((s) => (s.way === 'levels' ? seam.levels : seam.lengthwise) || !seam.levels);
  return (
    <div className="seam-preview">
      <p>
        <Verdict seam={seam} />
      </p>
      {!match.laid && <p className="quiet">Lay the pieces first: then the bars of this seam are drawn here.</p>}
      {found.isError && (
        <p className="spoil" role="alert">
          {found.error.message}
        </p>
      )}
      {found.data && (
        <>
          <p className="commands">
            {found.data.couples.length > 1 && (
              <Choice
                placeholder=""
                wrong={false}
                id="couple"
                label="Which copies"
                value={String(shown)}
                options={found.data.couples.map((name, n) => ({ value: String(n), label: name }))}
                onChoose={(n) => setCouple(Number(n))}
              />
            )}
            <Segmented
              aria-label="How near"
              value={zoom}
              onChange={setZoom}
              options={ZOOMS.map((z) => ({ value: z, label: `× ${z}` }))}
            />
            <Segmented<'seam' | 'cut'>
              aria-label="Matched at"
              value={atCut ? 'cut' : 'seam'}
              onChange={(v) => setAtCut(v === 'cut')}
              options={[
                { value: 'seam', label: 'at the seam line' },
                { value: 'cut', label: 'at the cut edge' },
              ]}
            />
          </p>
          <Picture found={found.data} zoom={zoom} at={at} />
          {zoom > 1 && (
            <label className="along-seam">
              along the seam
              <input
                type="range"
                min={0}
                max={1}
                step={0.02}
                value={at}
                onChange={(e) => setAt(Number(e.target.value))}
              />
            </label>
          )}
          {atCut && (
            <p className="quiet">
              This is what the edges would show if they were sewn as they were cut. The seam lies further in: what meets
              at the cut edge of a slanted or curved seam misses there.
            </p>
          )}
          {strips?.map((s) => (
            <StripChart key={s.way} strip={s} limits={{ good: match.limit_good, bad: match.limit_bad }} unit={tape} />
          ))}
          <p className="quiet">
            {match.limits} {match.how_sure}
            {found.data.gap.mm > 2 &&
              ` Both edges are curved: laid flat they gape by up to ${found.data.gap.text}; sewn they do not.`}
          </p>
        </>
      )}
    </div>
  );
}

/** The title of the drawer in which a seam is shown. */
export const previewTitle = (seam: Seam | undefined) => (seam ? `${called(seam)}, as it will be seen` : '');
