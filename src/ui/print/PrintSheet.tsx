"use client";
import { useEffect, useRef, type CSSProperties, type MouseEvent } from "react";
import type { Balloon, Job, Print } from "@/core/job";
import { writeBalloonText } from "@/core/callout";
import { useBench } from "../store/benchStore";
import type { PagePicture } from "./pagePicture";
import { useDragScroll } from "./useDragScroll";
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
  const dragging = useDragScroll(sheet, zoomBy, !aiming);
  const balloon = useBench((s) => s.balloon);
  // Found from the ledger: the pin comes into view.
  useEffect(() => {
    const pin = balloon === null ? null : sheet.current?.querySelector(`[data-pin="${balloon}"]`);
    pin?.scrollIntoView({ block: "center", inline: "center", behavior: "smooth" });
  }, [balloon, page]);
  const turn = print.turn ?? 0;
  const isOnSide = turn % 2 === 1;
  const aspect = isOnSide ? 1 / picture.aspect : picture.aspect;
  const turned: CSSProperties = {
    width: isOnSide ? `${100 * aspect}%` : "100%",
    aspectRatio: `1 / ${picture.aspect}`,
    transform: `translate(-50%, -50%) rotate(${turn * 90}deg)`,
  };
  const take = ({ nativeEvent: { offsetX, offsetY }, currentTarget: { offsetWidth } }: MouseEvent<HTMLElement>) => {
    if (aiming) spot({ x: offsetX / offsetWidth, y: offsetY / offsetWidth });
  };
  return (
    <div ref={sheet} className={css.sheet} {...dragging}>
      <div
        className={`${css.picture} ${aiming ? css.aim : css.grab}`}
        style={{ width: `${zoom * 100}%`, aspectRatio: `1 / ${aspect}` }}
        data-testid="print-picture"
      >
        <div className={css.page} style={turned}>
          <img src={picture.url} alt={`print: ${print.name}`} draggable={false} onClick={take} />
          {pinsOn(job, print, page).map((b) => (
            <Pin key={b.number} balloon={b} {...{ picture, turn, aiming, find }} />
          ))}
          <Views print={print} page={page} picture={picture} />
          {marks.map((p, i) => (
            <span key={i} className={css.cross} style={placed(p, picture)}>
              {"abcd"[i]}
            </span>
          ))}
        </div>
      </div>
    </div>
  );
}

const placed = (p: Spot, picture: PagePicture): CSSProperties => ({
  left: `${p.x * 100}%`,
  top: `${(p.y / picture.aspect) * 100}%`,
});

const pinsOn = (job: Job, print: Print, page: number) =>
  job.balloons.filter((b) => b.place?.print === print.id && (b.place.page ?? 1) === page);

interface PinProps extends Pick<Props, "picture" | "aiming" | "find"> {
  balloon: Balloon;
  turn: number;
}

/** A balloon where it was pinned, upright however the page is turned. */
function Pin({ balloon, picture, turn, aiming, find }: PinProps) {
  const isChosen = useBench((s) => s.balloon === balloon.number);
  return (
    <Bare
      className={css.pin}
      data-pin={balloon.number}
      aria-pressed={isChosen}
      style={{
        ...placed(balloon.place!, picture),
        transform: `translate(-50%, -50%) rotate(${-turn * 90}deg)`,
        pointerEvents: aiming ? "none" : undefined,
      }}
      title={writeBalloonText(balloon)}
      onClick={() => find(balloon.number)}
    >
      {balloon.number}
    </Bare>
  );
}

/** The stretches of the page that are calibrated as views of the part. */
const Views = ({ print, page, picture }: Pick<Props, "print" | "page" | "picture">) =>
  print.regions.map(({ page: on, box, view }, i) => {
    if (on !== page || !box) return null;
    const corner = { x: Math.min(box.x0, box.x1), y: Math.min(box.y0, box.y1) };
    const width = `${Math.abs(box.x1 - box.x0) * 100}%`;
    const height = `${(Math.abs(box.y1 - box.y0) / picture.aspect) * 100}%`;
    return (
      <span key={i} className={css.stretch} style={{ ...placed(corner, picture), width, height }}>
        {view}
      </span>
    );
  });
