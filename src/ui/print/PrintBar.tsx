"use client";
import { Button } from "antd";
import { Bare } from "../fields/Bare";
import { FilePick } from "../fields/FilePick";
import css from "./PrintTable.module.css";
import type { Prints } from "./usePrints";

/** The bar over the sheet: which print, which page, how large, and what is done on it. */
export function PrintBar({
  prints,
  pages,
  zoom,
  setZoom,
  busy,
  upload,
}: {
  prints: Prints;
  pages: number;
  zoom: number;
  setZoom: (to: number) => void;
  busy: boolean;
  upload: (f: File) => void;
}) {
  const { job, print } = prints;
  return (
    <div className={css.bar}>
      {job.prints.map((p) => (
        <Bare key={p.id} className={css.tab} aria-pressed={p.id === print?.id} onClick={() => prints.show(p.id)}>
          {p.name}
        </Bare>
      ))}
      <FilePick
        size="small"
        label="Picture of a print"
        accept="image/png,image/jpeg,application/pdf,.dxf"
        disabled={busy}
        pick={upload}
      >
        {busy ? "keeping …" : "add a print"}
      </FilePick>
      {print && (
        <span className={css.tail}>
          {pages > 1 && <Pages prints={prints} pages={pages} />}
          <Button size="small" onClick={() => setZoom(zoom / 1.25)} aria-label="Smaller">
            −
          </Button>
          <span className="num">{Math.round(zoom * 100)} %</span>
          <Button size="small" onClick={() => setZoom(zoom * 1.25)} aria-label="Larger">
            +
          </Button>
          <Button size="small" onClick={prints.turn} title="turn the page a quarter to the right">
            turn
          </Button>
          <Work prints={prints} />
          <Button size="small" onClick={prints.takeOff}>
            take off
          </Button>
        </span>
      )}
    </div>
  );
}

function Pages({ prints: { page, setPage }, pages }: { prints: Prints; pages: number }) {
  return (
    <>
      <Button size="small" disabled={page <= 1} onClick={() => setPage(page - 1)} aria-label="Page before">
        ‹
      </Button>
      <span className="num">
        page {page} of {pages}
      </span>
      <Button size="small" disabled={page >= pages} onClick={() => setPage(page + 1)} aria-label="Page after">
        ›
      </Button>
    </>
  );
}

/** Pinning balloons and calibrating stretches to views; each is begun and given up with the same button. */
function Work({ prints: { job, print, page, doing, setDoing } }: { prints: Prints }) {
  const regions = print!.regions;
  const here = regions.map((r, i) => ({ r, i })).filter(({ r }) => r.page === page);
  const isPinning = Boolean(doing && "place" in doing);
  const calibrating = doing && "calibrate" in doing ? doing.region : null;
  const first = job.balloons.find((b) => !b.place) ?? job.balloons[0];
  const calibrate = (region: number, label: string) => (
    <Button
      key={region}
      size="small"
      aria-pressed={calibrating === region}
      title={
        region < regions.length
          ? "lies over this view: press to lay it anew, or forget it"
          : "lay the print over a view of the part"
      }
      onClick={() => setDoing(calibrating === region ? null : { calibrate: [], region })}
    >
      {label}
    </Button>
  );
  return (
    <>
      <Button
        size="small"
        aria-pressed={isPinning}
        disabled={!job.balloons.length}
        onClick={() => setDoing(isPinning ? null : { place: first.number })}
      >
        pin balloons
      </Button>
      {here.map(({ r, i }) => calibrate(i, `${r.view} view`))}
      {calibrate(regions.length, "calibrate")}
    </>
  );
}
