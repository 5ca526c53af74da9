import { useShallow } from "zustand/react/shallow";
import { length, scale, add, sub, type Vec3 } from "@/core/geometry/vec";
import type { Finding } from "@/core/findings";
import { showLength, unitOf, type LengthUnit } from "@/core/number";
import { useBench } from "../store/benchStore";
import type { StageScene } from "./scene";
import css from "./Stage.module.css";

/** Length of an axis on the paper, and its distance from the corner, pixels. */
const AXIS = { length: 46, corner: 62 };
/** Share of the width beyond which a leader goes to the left. */
const LEFT_FROM = 0.62;

export interface NamedPoint {
  name: string;
  at: Vec3;
}

/** What is written over the picture: the axes, the leader of a remark, a measured distance. */
export function Marks({
  scene,
  host,
  axes,
  finding,
  unit,
  named,
}: {
  scene: StageScene | null;
  host: HTMLElement | null;
  axes: { x: number; y: number }[];
  finding: Finding | undefined;
  unit: LengthUnit;
  /** Points of the outline that is open, by the names its lines call them. */
  named: NamedPoint[];
}) {
  const measured = useBench(useShallow((s) => s.measured.map((m) => m.point)));
  return (
    <svg className={css.overlay} aria-hidden="true">
      <Axes axes={axes} height={host?.clientHeight ?? 0} />
      {scene && <Names points={named.map((p) => ({ name: p.name, ...scene.project(p.at) }))} />}
      {finding?.place && scene && <Leader from={scene.project(finding.place)} text={finding.rule} host={host} />}
      {measured.length === 2 && scene && <Distance a={measured[0]} b={measured[1]} scene={scene} unit={unit} />}
    </svg>
  );
}

/** Names nearer than this to one that is written already are left out, pixels. */
const NAME_ROOM = 14;

function Names({ points }: { points: { name: string; x: number; y: number }[] }) {
  const written: typeof points = [];
  for (const p of points)
    if (!written.some((w) => Math.abs(w.x - p.x) < 2 * NAME_ROOM && Math.abs(w.y - p.y) < NAME_ROOM)) written.push(p);
  return (
    <g className={css.names} data-testid="point-names">
      {written.map((p) => (
        <text key={p.name} x={p.x + 5} y={p.y - 5}>
          {p.name}
        </text>
      ))}
    </g>
  );
}

function Distance({ a, b, scene, unit }: { a: Vec3; b: Vec3; scene: StageScene; unit: LengthUnit }) {
  const middle = scene.project(scale(add(a, b), 0.5));
  return (
    <text className={css.distance} x={middle.x + 8} y={middle.y - 8}>
      {showLength(length(sub(a, b)), unit, unitOf[unit].places.exact)}
    </text>
  );
}

function Leader({ from, text, host }: { from: { x: number; y: number }; text: string; host: HTMLElement | null }) {
  const left = from.x > (host?.clientWidth ?? 800) * LEFT_FROM;
  const to = { x: from.x + (left ? -90 : 90), y: Math.max(40, from.y - 110) };
  const shelf = 150;
  return (
    <g className={css.leader}>
      <path d={`M${from.x} ${from.y} L${to.x} ${to.y} h${left ? -shelf : shelf}`} />
      <text x={left ? to.x - shelf : to.x + 4} y={to.y - 6}>
        {text.replace(/-/g, " ")}
      </text>
    </g>
  );
}

/** X, Y and Z as inked arrows with letters, as on a sketch. */
function Axes({ axes, height }: { axes: { x: number; y: number }[]; height: number }) {
  const o = { x: AXIS.corner, y: height - AXIS.corner };
  return (
    <g>
      {axes.map(
        (a, i) =>
          Math.hypot(a.x, a.y) > 0.12 && (
            <g key={i} className={css.axis}>
              <line x1={o.x} y1={o.y} x2={o.x + a.x * AXIS.length} y2={o.y + a.y * AXIS.length} />
              <circle cx={o.x + a.x * AXIS.length} cy={o.y + a.y * AXIS.length} r={2.4} />
              <text x={o.x + a.x * (AXIS.length + 11) - 4} y={o.y + a.y * (AXIS.length + 11) + 5}>
                {"XYZ"[i]}
              </text>
            </g>
          ),
      )}
    </g>
  );
}
