"use client";
import { useEffect, useRef } from "react";
import type { Job, Print } from "@/core/job";
import { writeBalloonText } from "@/core/callout";
import { useBench } from "../store/benchStore";
import type { PagePicture } from "./pagePicture";
import css from "./PrintTable.module.css";
import { Bare } from "../fields/Bare";

/** A place on a page, in widths of the page as it is stored, y down. */
export interface Spot {
  x: number;
  y: number;
}

interface Props {
  job: Job;
  print: Print;
  page: number;
  picture: PagePicture;
  zoom: number;
  zoomBy: (k: number) => void;
  aiming: boolean;
  marks: Spot[];
  spot: (p: Spot) => void;
  find: (balloon: number) => void;
}

/**
 * One page on the table. It is dragged about, zoomed with the wheel, read in quarter turns; balloons stand where
 * they were pinned.
 */
export function PrintSheet({ job, print, page, picture, zoom, zoomBy, aiming, marks, spot, find }: Props) {
  const sheet = useRef<HTMLDivElement>(null);
  const balloon = useBench((s) => s.balloon);
  const drag = useRef<{ x: number; y: number; left: number; top: number; moved: boolean } | null>(null);
  const turn = print.turn ?? 0,
    odd = turn % 2 === 1;
  useEffect(() => {
    const el = sheet.current!;
    const wheel = (e: WheelEvent) => {
      if (!e.ctrlKey && !e.metaKey) return;
      e.preventDefault();
      zoomBy(e.deltaY < 0 ? 1.12 : 1 / 1.12);
    };
    el.addEventListener("wheel", wheel, { passive: false });
    return () => el.removeEventListener("wheel", wheel);
  }, [zoomBy]);
  // Found from the ledger: the pin comes into view.
  useEffect(() => {
    if (balloon !== null)
      sheet.current
        ?.querySelector(`[data-pin="${balloon}"]`)
        ?.scrollIntoView({ block: "center", inline: "center", behavior: "smooth" });
  }, [balloon, page]);
  const aspect = odd ? 1 / picture.aspect : picture.aspect;
  const pins = job.balloons.filter((b) => b.place?.print === print.id && (b.place.page ?? 1) === page);
  const at = (p: Spot) => ({ left: `${p.x * 100}%`, top: `${(p.y / picture.aspect) * 100}%` });
  const upright = { transform: `translate(-50%, -50%) rotate(${-turn * 90}deg)` };
  return (
    <div
      ref={sheet}
      className={css.sheet}
      onPointerDown={(e) => {
        if (!aiming && e.button === 0 && !(e.target as HTMLElement).closest("button"))
          drag.current = {
            x: e.clientX,
            y: e.clientY,
            left: sheet.current!.scrollLeft,
            top: sheet.current!.scrollTop,
            moved: false,
          };
      }}
      onPointerMove={(e) => {
        const d = drag.current;
        if (d) {
          d.moved = true;
          sheet.current!.scrollLeft = d.left - (e.clientX - d.x);
          sheet.current!.scrollTop = d.top - (e.clientY - d.y);
        }
      }}
      onPointerUp={() => {
        drag.current = null;
      }}
      onPointerLeave={() => {
        drag.current = null;
      }}
    >
      <div
        className={`${css.picture} ${aiming ? css.aim : css.grab}`}
        style={{ width: `${zoom * 100}%`, aspectRatio: `1 / ${aspect}` }}
        data-testid="print-picture"
      >
        <div
          className={css.page}
          style={{
            width: odd ? `${100 * aspect}%` : "100%",
            aspectRatio: `1 / ${picture.aspect}`,
            transform: `translate(-50%, -50%) rotate(${turn * 90}deg)`,
          }}
        >
          <img
            src={picture.url}
            alt={`print: ${print.name}`}
            draggable={false}
            onClick={(e) => {
              const n = e.nativeEvent,
                el = e.currentTarget;
              if (aiming) spot({ x: n.offsetX / el.offsetWidth, y: n.offsetY / el.offsetWidth });
            }}
          />
          {pins.map((b) => (
            <Bare
              key={b.number}
              className={css.pin}
              data-pin={b.number}
              aria-pressed={balloon === b.number}
              style={{ ...at(b.place!), ...upright, pointerEvents: aiming ? "none" : undefined }}
              title={writeBalloonText(b)}
              onClick={() => find(b.number)}
            >
              {b.number}
            </Bare>
          ))}
          {print.regions
            .filter((r) => r.page === page && r.box)
            .map((r, i) => (
              <span
                key={i}
                className={css.stretch}
                style={{
                  ...at({ x: Math.min(r.box!.x0, r.box!.x1), y: Math.min(r.box!.y0, r.box!.y1) }),
                  width: `${Math.abs(r.box!.x1 - r.box!.x0) * 100}%`,
                  height: `${(Math.abs(r.box!.y1 - r.box!.y0) / picture.aspect) * 100}%`,
                }}
              >
                {r.view}
              </span>
            ))}
          {marks.map((p, i) => (
            <span key={i} className={css.cross} style={at(p)}>
              {"abcd"[i]}
            </span>
          ))}
        </div>
      </div>
    </div>
  );
}
