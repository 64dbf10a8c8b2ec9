import type { PartProps } from './useTrue';

type Props = { found: PartProps['found'] };
const W = 320;
const H = 110;

/** Height of a reading on a chart whose top is `most`. */
const up = (mm: number, most: number) => H - 18 - (mm / most) * (H - 30);

const byId = (found: Props['found'], ids: number[]) => ids.flatMap((id) => found.tests.find((t) => t.id === id) ?? []);

function BandLines({ found, most }: Props & { most: number }) {
  return (
    <>
      {found.bands.map(
        (band) =>
          band.mm < most && (
            <g key={band.mm}>
              <line x1={34} x2={W} y1={up(band.mm, most)} y2={up(band.mm, most)} />
              <text x={0} y={up(band.mm, most) + 4}>
                {band.text}
              </text>
            </g>
          ),
      )}
      <line x1={34} x2={W} y1={H - 18} y2={H - 18} className="base" />
    </>
  );
}

/** Offset over the tries at one place. */
export function AttemptsChart({ found }: Props) {
  const here = byId(found, found.here);
  if (here.length < 2) return null;
  const most = Math.max(...here.map((t) => t.offset.mm), found.bands[1]!.mm) * 1.15;
  const x = (k: number) => 54 + (k * (W - 80)) / Math.max(1, here.length - 1);
  return (
    <figure className="cycles true-chart">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        role="img"
        aria-label={`Offset over ${here.length} tries: ${here.map((t) => t.offset.text).join(', ')}`}
      >
        <BandLines found={found} most={most} />
        <path d={here.map((t, k) => `${k ? 'L' : 'M'}${x(k)},${up(t.offset.mm, most)}`).join(' ')} />
        {here.map((t, k) => (
          <circle key={t.id} cx={x(k)} cy={up(t.offset.mm, most)} r={4} />
        ))}
        {here.map((t, k) => (
          <text key={t.id} x={x(k)} y={H - 4} textAnchor="middle">
            {k + 1}
          </text>
        ))}
      </svg>
      <figcaption>edges apart, try by try, at {here.at(-1)!.place.text}</figcaption>
    </figure>
  );
}

/** Slant along the length, when several places were tested. */
export function PlacesChart({ found }: Props) {
  const places = byId(found, found.by_place);
  if (places.length < 2) return null;
  const most = Math.max(...places.map((t) => t.offset.mm), found.bands[1]!.mm) * 1.15;
  const long = places.at(-1)!.place.mm;
  const x = (mm: number) => 54 + (mm / long) * (W - 80);
  return (
    <figure className="cycles true-chart">
      <svg
        viewBox={`0 0 ${W} ${H}`}
        role="img"
        aria-label={`Offset along the length: ${places.map((t) => `${t.offset.text} at ${t.place.text}`).join(', ')}`}
      >
        {found.good_from && (
          <rect
            x={x(found.good_from.mm)}
            y={4}
            width={W - x(found.good_from.mm)}
            height={H - 22}
            className="good-stretch"
          />
        )}
        <BandLines found={found} most={most} />
        <path d={places.map((t, k) => `${k ? 'L' : 'M'}${x(t.place.mm)},${up(t.offset.mm, most)}`).join(' ')} />
        {places.map((t) => (
          <circle key={t.id} cx={x(t.place.mm)} cy={up(t.offset.mm, most)} r={4} />
        ))}
        {places.map((t) => (
          <text key={t.id} x={x(t.place.mm)} y={H - 4} textAnchor="middle">
            {t.place.text}
          </text>
        ))}
      </svg>
      <figcaption>edges apart along the length</figcaption>
    </figure>
  );
}
