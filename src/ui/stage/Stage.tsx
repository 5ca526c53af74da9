"use client";
import { Button } from "antd";
import { useEffect, useMemo, useRef, useState } from "react";
import type { Job } from "@/core/job";
import { numberScope } from "@/core/engine/numbers";
import { viewOf } from "@/core/engine/views";
import { placeVise } from "@/core/hold/vise";
import { boxOf, sideNormal, scale, type Vec3 } from "@/core/geometry/vec";
import { showLength, unitOf } from "@/core/number";
import type { FaceInfo } from "@/core/engine/kernel";
import { featureOf } from "@/core/print/features";
import { setMeasure } from "../bench/actions";
import { engine } from "../engine/engine";
import { useBench } from "../store/benchStore";
import { useLight } from "../common/light";
import { boxEdges, boxFaces, chainDotted, drillMark, loopLines, pairs, stockBottom, stockEdges } from "./outlines";
import { usePage } from "../print/pagePicture";
import { layPrint } from "./printPlace";
import { snapTo } from "./snap";
import { framed, type CloseUp } from "./closeUp";
import { outlineLines, shownOutline } from "./wireframe";
import { readPalette } from "./ink";
import { StageScene } from "./scene";
import { ViewBar } from "./ViewBar";
import css from "./Stage.module.css";
import { usePointer } from "../store/pointer";
import { useShallow } from "zustand/react/shallow";

/** The stage: the piece in its stock, in the views of a drawing sheet, with what the step at hand adds to it. */
export function Stage({ job }: { job: Job }) {
  const host = useRef<HTMLDivElement>(null);
  const scene = useRef<StageScene | null>(null);
  const b = useBench(
    useShallow((s) => ({
      busy: s.busy,
      evaluated: s.evaluated,
      measuring: s.measuring,
      openOutline: s.openOutline,
      outlineDraft: s.outlineDraft,
      picking: s.picking,
      showRow: s.showRow,
      traceOpacity: s.traceOpacity,
      unitShown: s.unitShown,
      wipe: s.wipe,
      set: s.set,
      picture: s.picture,
      view: s.view,
      section: s.section,
      ghost: s.ghost,
      selected: s.selected,
      picked: s.picked,
      measured: s.measured,
      step: s.step,
      blink: s.blink,
      printOpacity: s.printOpacity,
      showStock: s.showStock,
      planned: s.planned,
    })),
  );
  const {
    set,
    picture,
    evaluated,
    view,
    section,
    ghost,
    selected,
    picked,
    measured,
    step,
    blink,
    printOpacity,
    showStock,
    planned,
  } = b;
  const point = usePointer((s) => s.point);
  const light = useLight((s) => s.light);
  const [overlay, setOverlay] = useState({ axes: [] as { x: number; y: number }[], stamp: 0 });
  const scope = useMemo(() => numberScope(job), [job]);
  const evaluation = evaluated?.evaluation ?? null;
  const fitted = useRef("");

  useEffect(() => {
    const s = new StageScene(host.current!, readPalette());
    scene.current = s;
    s.onDraw = () => setOverlay((o) => ({ axes: s.axes(), stamp: o.stamp + 1 }));
    const size = new ResizeObserver(([e]) => s.resize(e.contentRect.width, e.contentRect.height));
    size.observe(host.current!);
    return () => {
      size.disconnect();
      s.dispose();
      scene.current = null;
    };
  }, []);

  // The part, or what a section leaves of it.
  useEffect(() => {
    const s = scene.current!;
    s.setPalette(readPalette());
    const lit = b.showRow ?? selected;
    const picks = new Set([picked?.face, ...measured.map((m) => m.face)]);
    if (!picture)
      return s.setPart(
        null,
        () => false,
        () => false,
      );
    let live = true;
    if (view === "section") {
      const n = sideNormal(section.side);
      const { min, max } = picture.measure.box;
      const lo = Math.min(dotv(min, n), dotv(max, n)),
        hi = Math.max(dotv(min, n), dotv(max, n));
      const at = lo + (hi - lo) * (1 - section.at);
      engine()
        .section(picture.key, scale(n, at), n)
        .then(
          (r) => {
            if (live && r)
              s.setPart(
                r.mesh,
                () => false,
                () => false,
                new Set(r.sectionFaces),
              );
          },
          () => {},
        );
    } else
      s.setPart(
        picture.mesh,
        (f) => lit !== null && picture.faces[f]?.tag?.row === lit,
        (f) => picks.has(f),
      );
    return () => {
      live = false;
    };
  }, [picture, selected, b.showRow, picked, measured, view, section, light]);

  useEffect(() => scene.current!.setGhost(ghost), [ghost, light]);

  // Stock: chain-dotted brass with a hatched underside.
  const placed = evaluation?.stock?.placed ?? null;
  useEffect(() => {
    const s = scene.current!;
    const p = readPalette();
    if (!placed || !showStock || (view === "section" && step !== "stock")) return s.setLines("stock", []);
    const unit = Math.hypot(placed.box.max.x - placed.box.min.x, placed.box.max.y - placed.box.min.y) / 110;
    s.setLines(
      "stock",
      [{ points: chainDotted(stockEdges(placed), unit), colour: p.brass, width: 1.3 }],
      [{ positions: stockBottom(placed), hatch: { ink: p.brass, opacity: 0.5 } }],
    );
  }, [placed, showStock, light, view, step]);

  // Vise jaws on the Hold step.
  useEffect(() => {
    const s = scene.current!;
    const p = readPalette();
    const piece = evaluation?.stock?.placed.box ?? evaluation?.part?.box;
    const v = step === "hold" && job.hold && piece ? placeVise(job.hold, scope, piece) : null;
    if (!v?.ok) return s.setLines("vise", []);
    s.setLines(
      "vise",
      v.value.jaws.map((j) => ({ points: pairs(boxEdges(j)), colour: p.ink, width: 1.4 })),
      v.value.jaws.map((j) => ({ positions: boxFaces(j), fill: { colour: p.steelDark, opacity: 0.28 } })),
    );
  }, [evaluation, step, job.hold, scope, light]);

  // Wireframe of the paths; what the cutter cannot reach in vermilion.
  useEffect(() => {
    const s = scene.current!;
    const p = readPalette();
    if (step !== "paths" || !planned) return s.setLines("paths", []);
    const only = (id: string) => !selected || selected === id;
    const mark = evaluation?.part
      ? Math.hypot(
          evaluation.part.box.max.x - evaluation.part.box.min.x,
          evaluation.part.box.max.y - evaluation.part.box.min.y,
        ) / 60
      : 1;
    const plans = planned.plans.filter((q) => only(q.rowId));
    s.setLines("paths", [
      {
        points: plans.flatMap((q) => q.chains.flatMap((l) => q.levels.flatMap((d) => loopLines(q.frame, l, d)))),
        colour: p.dye,
        width: 1.8,
        onTop: true,
      },
      {
        points: plans.flatMap((q) => q.clearing.flatMap((l) => loopLines(q.frame, l, q.depth))),
        colour: p.dyeLight,
        width: 1,
        onTop: true,
        opacity: 0.7,
      },
      {
        points: plans.flatMap((q) => q.points.flatMap((c) => drillMark(q.frame, c, q.depth, mark))),
        colour: p.dye,
        width: 1.5,
        onTop: true,
      },
      {
        points: plans.flatMap((q) =>
          q.rest.loops.flatMap((l) => [...loopLines(q.frame, l, 0), ...loopLines(q.frame, l, q.depth)]),
        ),
        colour: p.vermilion,
        width: 2,
        onTop: true,
      },
    ]);
  }, [planned, evaluation, step, selected, light]);

  // The outline that is open: located elements in ink, free ones in loose pencil, a conflict in vermilion.
  const drawn = useMemo(
    () =>
      b.openOutline === null || step !== "shape"
        ? null
        : shownOutline(job, b.openOutline, b.outlineDraft, scope, b.evaluated?.evaluation.solved.shapes),
    [job, b.openOutline, b.outlineDraft, b.evaluated, scope, step],
  );
  useEffect(() => {
    const s = scene.current!;
    const p = readPalette();
    s.setLines("outline", drawn ? outlineLines(drawn, evaluation?.part?.box.max.z ?? 0, p) : []);
  }, [drawn, evaluation, light]);

  // What is picked and measured, and the lines of the finding looked at.
  const finding =
    evaluation?.findings.find((f) => !f.waived && f.place && f.rowId === selected && selected !== null) ??
    (selected === null ? evaluation?.findings.find((f) => !f.waived && f.rowId === null && f.lines) : undefined);
  useEffect(() => {
    const s = scene.current!;
    const p = readPalette();
    const m = measured.map((q) => q.point);
    s.setLines("marks", [
      { points: m.length === 2 ? pairs([[m[0], m[1]]]) : [], colour: p.dye, width: 2.2, onTop: true },
      {
        points: step === "shape" && !drawn && finding?.lines ? pairs(finding.lines) : [],
        colour: p.vermilion,
        width: 2.4,
        onTop: true,
      },
    ]);
  }, [measured, finding, step, drawn, light]);

  // The print over the view a stretch of it was calibrated to; over a section, the view the section is seen from.
  const shownView = view === "pictorial" ? "" : view === "section" ? section.side : view;
  const laid = useMemo(
    () =>
      job.prints
        .flatMap((q) => q.regions.map((region) => ({ print: q, region })))
        .find(({ region }) => region.view === shownView) ?? null,
    [job.prints, shownView],
  );
  const { picture: sheet } = usePage(laid?.print, laid?.region.page ?? 1);
  const part = evaluation?.part?.box ?? null;
  useEffect(() => {
    const at = laid && sheet && part ? layPrint(laid.region, laid.print.turn ?? 0, sheet.aspect, part, scope) : null;
    scene.current!.setPrint(at ? { url: sheet!.url, ...at } : null);
  }, [laid, sheet, part, scope]);
  const wipe = laid && step === "proof" && !blink ? b.wipe : null;
  useEffect(
    () => scene.current!.setWipe(wipe, laid ? viewOf[laid.region.view].right : { x: 1, y: 0, z: 0 }),
    [wipe, laid, sheet, part],
  );
  const shownOpacity = blink || wipe !== null ? 1 : step === "proof" ? printOpacity : drawn ? b.traceOpacity : 0;
  useEffect(() => scene.current!.setPrintOpacity(shownOpacity), [shownOpacity]);

  // Fitting: when the view changes, or the piece becomes another size. A small outline is looked at closely, and the
  // view stays while it is typed.
  const closeUp = useRef<CloseUp | null>(null);
  const bounds = useMemo(() => {
    const piece = placed && showStock ? placed.box : part;
    const v = step === "hold" && job.hold && piece ? placeVise(job.hold, scope, piece) : null;
    if (drawn?.box) {
      closeUp.current = framed(closeUp.current, b.openOutline!, drawn.box);
      const { min, max } = closeUp.current,
        alone =
          piece &&
          max.x - min.x < 0.5 * (piece.max.x - piece.min.x) &&
          max.y - min.y < 0.5 * (piece.max.y - piece.min.y);
      return boxOf([
        { ...min, z: piece?.min.z ?? -1 },
        { ...max, z: piece?.max.z ?? 1 },
        ...(piece && !alone ? [piece.min, piece.max] : []),
      ]);
    }
    return piece && v?.ok ? boxOf([piece.min, piece.max, ...v.value.jaws.flatMap((j) => [j.min, j.max])]) : piece;
  }, [placed, showStock, part, step, job.hold, scope, drawn]);
  // With a print over it a section is looked at straight on, as the print shows it.
  const straight = view === "section" && step === "proof" && laid !== null;
  const viewKey = `${view}${view === "section" ? section.side : ""}${straight}`;
  useEffect(() => {
    const s = scene.current!;
    if (!bounds) return;
    s.setBounds(bounds.min, bounds.max);
    const sizeKey = `${viewKey}|${[bounds.min, bounds.max]
      .flatMap((p) => [p.x, p.y, p.z])
      .map((n) => n.toFixed(2))
      .join()}`;
    if (fitted.current === sizeKey) return;
    fitted.current = sizeKey;
    if (straight) s.look(viewOf[section.side], false);
    else if (view === "section") {
      const n = viewOf[section.side].toEye;
      const tilt = { x: n.x * 0.8 + 0.45, y: n.y * 0.8 - 0.55, z: n.z * 0.8 + 0.5 };
      const l = Math.hypot(tilt.x, tilt.y, tilt.z);
      const toEye = { x: tilt.x / l, y: tilt.y / l, z: tilt.z / l };
      const r = { x: -toEye.y, y: toEye.x, z: 0 },
        rl = Math.hypot(r.x, r.y) || 1;
      const right = { x: r.x / rl, y: r.y / rl, z: 0 };
      s.look(
        {
          toEye,
          right,
          up: {
            x: toEye.y * right.z - toEye.z * right.y,
            y: toEye.z * right.x - toEye.x * right.z,
            z: toEye.x * right.y - toEye.y * right.x,
          },
        },
        true,
      );
    } else s.look(viewOf[view], view === "pictorial");
  }, [bounds, view, viewKey, section.side, straight]);

  const down = useRef({ x: 0, y: 0 });
  const place = (e: React.PointerEvent) => {
    const r = host.current!.getBoundingClientRect();
    return { x: e.clientX - r.left, y: e.clientY - r.top };
  };
  const move = (e: React.PointerEvent) => {
    if (e.buttons) return;
    const p = place(e);
    // Over an open outline the plane itself is read.
    if (drawn && view === "top") {
      const q = scene.current!.onPlane(p.x, p.y);
      return point({ ...q, z: part?.max.z ?? 0 });
    }
    const h = scene.current?.hit(p.x, p.y) ?? null;
    point(h ? (h.corner ?? h.point) : null);
  };
  const click = (e: React.PointerEvent) => {
    const p = place(e);
    if (Math.hypot(p.x - down.current.x, p.y - down.current.y) > 4 || e.button !== 0) return;
    if (drawn && view === "top" && !b.picking && !b.measuring)
      return set({ outlineSpot: snapTo(drawn, scene.current!.onPlane(p.x, p.y), scene.current!.reach(9), job.unit) });
    const h = scene.current?.hit(p.x, p.y) ?? null;
    if (!h) return set({ picked: null, selected: null, ...(b.measuring ? { measured: [] } : {}) });
    const face = view === "section" ? undefined : picture?.faces[h.face];
    if (b.picking) return pickFeature(face, h.corner ?? h.point);
    const pick = {
      point: h.corner ?? h.point,
      snapped: h.corner ? ("corner" as const) : ("face" as const),
      face: view === "section" ? -1 : h.face,
      row: face?.tag?.row ?? null,
      role: face?.tag?.role ?? null,
      area: face?.area ?? 0,
    };
    if (b.measuring) return set({ measured: measured.length === 1 ? [measured[0], pick] : [pick] });
    set({ picked: pick, selected: pick.row ?? null });
  };

  /** A face picked for the measurement of a balloon: one round face is enough with Shift, else two faces. */
  const pickFeature = (face: FaceInfo | undefined, at: Vec3) => {
    const f = face && featureOf(face, at);
    if (!f || !b.picking) return;
    if (b.picking.first === null)
      return set({
        picking: { ...b.picking, first: f },
        picked: {
          point: at,
          snapped: "face",
          face: picture!.faces.indexOf(face),
          row: f.row,
          role: f.role,
          area: face.area,
        },
      });
    setMeasure(b.picking.balloon, { a: b.picking.first, b: f });
  };
  const leader =
    finding?.place && scene.current && step === "shape" && !drawn && view !== "section"
      ? leaderFor(scene.current.project(finding.place), host.current)
      : null;
  const mid =
    measured.length === 2 && scene.current
      ? scene.current.project({
          x: (measured[0].point.x + measured[1].point.x) / 2,
          y: (measured[0].point.y + measured[1].point.y) / 2,
          z: (measured[0].point.z + measured[1].point.z) / 2,
        })
      : null;
  return (
    <section className={css.stage} aria-label="Stage">
      <ViewBar job={job} hasPrint={laid !== null} />
      <div className={css.canvas}>
        <div
          ref={host}
          className={css.host}
          data-testid="stage"
          data-print={laid ? shownOpacity : undefined}
          data-wipe={wipe ?? undefined}
          onPointerDown={(e) => {
            down.current = place(e);
          }}
          onPointerMove={move}
          onPointerUp={click}
          onPointerLeave={() => point(null)}
        />
        <svg className={css.overlay} aria-hidden="true">
          <Axes axes={picture || drawn ? overlay.axes : []} height={host.current?.clientHeight ?? 0} />
          {leader && (
            <g className={css.leader}>
              <path
                d={`M${leader.from.x} ${leader.from.y} L${leader.to.x} ${leader.to.y} h${leader.left ? -leader.width : leader.width}`}
              />
              <text x={leader.left ? leader.to.x - leader.width : leader.to.x + 4} y={leader.to.y - 6}>
                {shortRule(finding!.rule)}
              </text>
            </g>
          )}
          {mid && (
            <text className={css.distance} x={mid.x + 8} y={mid.y - 8}>
              {showLength(
                distance(measured[0].point, measured[1].point),
                b.unitShown ?? job.unit,
                unitOf[b.unitShown ?? job.unit].places.exact,
              )}
            </text>
          )}
        </svg>
        {!picture && !drawn && (
          <p className={css.empty}>
            {job.rows.length
              ? b.busy
                ? "working out the part …"
                : "no row makes material yet"
              : "Nothing stands here yet. Type what the print says: LEAVE BLOCK 4 X 2.5 X .75"}
          </p>
        )}
        {b.picking && (
          <p className={css.hint}>
            balloon {b.picking.balloon}:{" "}
            {b.picking.first === null ? "pick the face it is measured on" : "pick the second face"}
            {b.picking.first !== null && (
              <>
                {" "}
                or{" "}
                <Button size="small" onClick={() => setMeasure(b.picking!.balloon, { a: b.picking!.first! })}>
                  measure this face alone
                </Button>
              </>
            )}{" "}
            <Button size="small" onClick={() => set({ picking: null })}>
              leave it
            </Button>
          </p>
        )}
        {b.measuring && <p className={css.hint}>measuring: pick two places; corners are caught. Press m to stop.</p>}
      </div>
    </section>
  );
}

const dotv = (a: Vec3, b: Vec3) => a.x * b.x + a.y * b.y + a.z * b.z;
const distance = (a: Vec3, b: Vec3) => Math.hypot(a.x - b.x, a.y - b.y, a.z - b.z);
const shortRule = (rule: string) => rule.replace(/-/g, " ");

function leaderFor(from: { x: number; y: number }, host: HTMLElement | null) {
  const w = host?.clientWidth ?? 800;
  const left = from.x > w * 0.62;
  return { from, to: { x: from.x + (left ? -90 : 90), y: Math.max(40, from.y - 110) }, left, width: 150 };
}

/** X, Y and Z as inked arrows with letters, as on a sketch. */
function Axes({ axes, height }: { axes: { x: number; y: number }[]; height: number }) {
  if (!axes.length) return null;
  const o = { x: 62, y: height - 62 },
    l = 46;
  return (
    <g>
      {axes.map(
        (a, i) =>
          Math.hypot(a.x, a.y) > 0.12 && (
            <g key={i} className={css.axis}>
              <line x1={o.x} y1={o.y} x2={o.x + a.x * l} y2={o.y + a.y * l} />
              <circle cx={o.x + a.x * l} cy={o.y + a.y * l} r={2.4} />
              <text x={o.x + a.x * (l + 11) - 4} y={o.y + a.y * (l + 11) + 5}>
                {"XYZ"[i]}
              </text>
            </g>
          ),
      )}
    </g>
  );
}
