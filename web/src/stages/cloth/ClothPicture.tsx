import type { Cloth } from "../../api/client";
import { useTape } from "../../api/hooks";
import { ClothPattern } from "../../cloth-view/ClothPattern";
import { Ruler } from "../../cloth-view/Ruler";
import { useSize } from "../../cloth-view/useSize";

type Props = {
  cloth: Cloth;
  /** millimetres being typed now, in place of what is kept */
  typing: Record<string, number | undefined>;
};

const PAD = { left: 66, top: 44, right: 30, bottom: 34 };

/** A ragged cut end: small teeth down the right edge. */
export function ragged(x: number, top: number, bottom: number): string {
  let d = "";
  for (let y = top, i = 0; y < bottom; y += 7, i++) d += ` L${x + [0, 4, 1, 6, 2, 5, 1, 3][i % 8]!},${y}`;
  return `${d} L${x},${bottom}`;
}

/** The cloth to scale: selvages, margins, the three readings, the way the nap runs. */
export function ClothPicture({ cloth, typing }: Props) {
  const { ref, width, height } = useSize<HTMLDivElement>();
  const tape = useTape();
  const readings = [0, 1, 2].map((i) => typing[`width_readings.${i}`] ?? cloth.width_readings[i]?.mm);
  const known = readings.filter((r): r is number => r !== undefined && r > 0);
  const widest = known.length ? Math.max(...known) : 1400;
  const low = typing["margin_low"] ?? cloth.margin_low.mm;
  const high = typing["margin_high"] ?? cloth.margin_high.mm;
  const inHand = typing["in_hand"] ?? cloth.in_hand?.mm;
  const roomX = Math.max(50, width - PAD.left - PAD.right);
  const roomY = Math.max(50, height - PAD.top - PAD.bottom);
  const wanted = inHand && inHand > 0 ? inHand * 1.02 : widest * 1.6;
  const scale = Math.min(roomY / widest, inHand ? roomX / wanted : 10);
  const length = Math.min(inHand && inHand > 0 ? inHand : Infinity, roomX / scale);
  const x0 = PAD.left;
  const y1 = PAD.top + widest * scale;
  const right = x0 + length * scale;
  const id = "cloth-picture";
  return (
    <div className="picture" ref={ref}>
      {width > 0 && (
        <svg width={width} height={height} role="img" aria-label="The cloth to scale">
          <defs>
            <ClothPattern id={id} cloth={cloth} scale={scale} y0={y1 - low * scale} />
          </defs>
          {[`url(#${id})`, `url(#${id}-weave)`].map((fill) => (
            <path key={fill} d={`M${x0},${y1} L${x0},${PAD.top} L${right},${PAD.top} ${ragged(right, PAD.top, y1)} Z`}
              fill={fill} opacity={known.length ? 1 : 0.4} />
          ))}
          {[{ y: PAD.top, h: high * scale, name: "far selvage" }, { y: y1 - low * scale, h: low * scale, name: "near selvage" }].map((s) => (
            <g key={s.name}>
              <rect x={x0} y={s.y} width={right - x0} height={Math.max(2, s.h)} className="margin" />
              <line x1={x0} x2={right} y1={s.name === "far selvage" ? s.y : s.y + s.h} y2={s.name === "far selvage" ? s.y : s.y + s.h} className="selvage" />
            </g>
          ))}
          <text x={x0 + 6} y={y1 + 18} className="label">near selvage{low > 0 ? `, ${cloth.margin_low.text} not used` : ""}</text>
          <Ruler scale={scale} length={length} unit={tape.mm} imperial={tape.imperial} x={x0} y={PAD.top - 6} />
          <Ruler scale={scale} length={widest} unit={tape.mm} imperial={tape.imperial} vertical x={x0 - 6} y={y1} />
          <text x={x0 - 6} y={PAD.top - 26} className="label" textAnchor="end">{tape.unit}</text>
          {readings.map((value, i) => {
            const x = x0 + (right - x0) * (0.2 + 0.3 * i);
            if (!value) return null;
            return (
              <g key={i} className="reading">
                <line x1={x} x2={x} y1={y1} y2={y1 - value * scale} />
                <path d={`M${x - 4},${y1 - 8} L${x},${y1} L${x + 4},${y1 - 8} M${x - 4},${y1 - value * scale + 8} L${x},${y1 - value * scale} L${x + 4},${y1 - value * scale + 8}`} />
                <g transform={`translate(${x} ${y1 - (value * scale) / 2})`}>
                  <rect x={-36} y={-14} width={72} height={26} rx={4} />
                  <text textAnchor="middle" y={5}>{cloth.width_readings[i]?.mm === value ? cloth.width_readings[i].text : "…"}</text>
                </g>
              </g>
            );
          })}
          {cloth.one_way && (
            <g className="nap" transform={`translate(${x0 + (right - x0) * 0.35} ${PAD.top + 40})`}>
              <rect x={-8} y={-20} width={196} height={38} rx={4} />
              <path d="M0,0 H44 M34,-7 L44,0 L34,7" />
              <text x={56} y={5}>tops all this way</text>
            </g>
          )}
        </svg>
      )}
    </div>
  );
}
