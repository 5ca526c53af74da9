"use client";
import { Button } from "antd";
import { useState } from "react";
import type { Region } from "@/core/job";
import { sides, type Side } from "@/core/geometry/vec";
import { toNumberText } from "@/core/number";
import { valueOf, numberScope } from "@/core/engine/numbers";
import { NumberBox } from "../common/NumberBox";
import { ChoiceBox } from "../fields/ChoiceBox";
import { judgePicks, type Picked } from "@/core/print/calibration";
import type { Result } from "@/core/base/result";
import { useJob } from "../store/jobStore";
import type { Spot } from "./PrintSheet";
import css from "./PrintTable.module.css";

interface Props {
  /** The region that is set anew, if it is one. */
  old: Region | undefined;
  page: number;
  /** Quarter turns the page is shown with. */
  turn: number;
  points: Spot[];
  done: (r: Region) => void;
  remove?: () => void;
}

/** The stretch of the page that a view lies on: two more picked corners, or the one it had; none for the whole page. */
function stretchOf(points: Spot[], old: Region | undefined): Region["box"] {
  if (points.length === 4) return { x0: points[2].x, y0: points[2].y, x1: points[3].x, y1: points[3].y };
  return points.length === 0 ? old?.box : undefined;
}

const unknown = toNumberText("?");

/**
 * Two picked points, their distance, and what the first one is on the part: that lays a stretch of the page over a
 * view. Two more points bound the stretch.
 */
export function Calibration({ old, page, turn, points, done, remove }: Props) {
  const job = useJob((s) => s.job)!;
  const [view, setView] = useState<Side>(old?.view ?? "top");
  const [distance, setDistance] = useState(old?.distance ?? unknown);
  const [place, setPlace] = useState(old?.place ?? { x: unknown, y: unknown });
  const [a, b] = points.length === 0 && old ? [old.a, old.b] : points;
  const judged = a && b ? judgePicks(a, b, turn) : null;
  const box = stretchOf(points, old);
  const scope = numberScope(job);
  const isGiven =
    valueOf(distance, "length", scope).ok &&
    valueOf(place.x, "coordinate", scope).ok &&
    valueOf(place.y, "coordinate", scope).ok;
  const isReady = judged?.ok && isGiven && points.length !== 3;
  const lay = () => {
    if (judged?.ok) done({ view, page, a, b, distance, direction: judged.value.direction, place, ...(box && { box }) });
  };
  return (
    <div className={css.calibration}>
      <p role="status" className={judged && !judged.ok ? "red" : undefined}>
        {sayNext(points.length, judged, box !== undefined)}
      </p>
      <ChoiceBox label="View" value={view} options={views} choose={(o) => setView(o.value)} />
      <NumberBox own job={job} label="a to b" value={distance} quantity="length" commit={(t) => t && setDistance(t)} />
      {(["x", "y"] as const).map((axis) => (
        <NumberBox
          key={axis}
          own
          job={job}
          label={`a is at ${axis}`}
          value={place[axis]}
          quantity="coordinate"
          commit={(t) => t && setPlace({ ...place, [axis]: t })}
        />
      ))}
      <span>
        <Button type="primary" disabled={!isReady} onClick={lay}>
          lay it over the view
        </Button>
        {remove && (
          <Button size="small" onClick={remove}>
            forget it
          </Button>
        )}
      </span>
    </div>
  );
}

const views = sides.map((s) => ({ value: s, label: s }));

/** What is to be picked next, or what is to be said of what was picked. */
function sayNext(picked: number, judged: Result<Picked> | null, hasStretch: boolean): string {
  if (!judged)
    return picked === 1
      ? "pick point b, along x or y from it; Esc gives up"
      : "pick point a on the print; Esc gives up";
  if (!judged.ok) return `${judged.problems[0].message}: pick ${judged.problems[0].expected}`;
  if (picked === 3) return "pick the other corner of the stretch";
  const { direction, tilt, askew } = judged.value;
  const skew = askew
    ? `, but ${((tilt * 180) / Math.PI).toFixed(1)}° off it: the sheet lies askew, or b is not level with a`
    : "";
  const stretch = hasStretch ? "a stretch of the page" : "the whole page, or pick two corners of a stretch";
  return `a and b lie along ${direction}${skew}; ${stretch}`;
}
