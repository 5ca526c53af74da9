"use client";
import type { Elevation, Rectangle } from "@/core/hold/elevation";
import css from "./HoldPicture.module.css";

/** Paper left for the figures, as a share of the picture's width. */
const MARGIN = 0.2;

/** The piece in the jaws, looked at along them, with what stands in and what stands over. */
export function HoldPicture({ seen, grip, above }: { seen: Elevation; grip: string; above: string }) {
  const { box, piece, jawTop } = seen;
  const margin = box.width * MARGIN;
  const right = box.x + box.width;
  // Heights grow upwards on paper, downwards on the screen.
  const rect = (r: Rectangle) => ({ x: r.x, y: -(r.y + r.height), width: r.width, height: r.height });
  const size = box.width / 26;
  const at = right + margin * 0.35;
  const figure = (from: number, to: number, text: string) => (
    <g className={css.figure}>
      <path
        d={`M${right + size / 3} ${-from}H${at + size / 3}M${right + size / 3} ${-to}H${at + size / 3}M${at} ${-from}V${-to}`}
      />
      <text x={at + size / 2} y={-(from + to) / 2 + size / 3} fontSize={size}>
        {text}
      </text>
    </g>
  );
  return (
    <svg
      className={css.picture}
      viewBox={`${box.x - size} ${-(box.y + box.height) - size} ${box.width + margin + 2 * size} ${box.height + 2 * size}`}
      role="img"
      aria-label={`The piece in the jaws: ${grip} held, ${above} above them`}
    >
      <defs>
        <pattern id="held-stock" width={size} height={size} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d={`M0 0V${size}`} className={css.hatch} />
        </pattern>
      </defs>
      {seen.jaws.map((j, i) => (
        <rect key={i} {...rect(j)} className={css.jaw} />
      ))}
      <rect {...rect(piece)} className={css.stock} fill="url(#held-stock)" />
      {seen.part && <rect {...rect(seen.part)} className={css.part} />}
      {figure(piece.y, jawTop, grip)}
      {figure(jawTop, piece.y + piece.height, above)}
    </svg>
  );
}
