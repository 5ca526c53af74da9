"use client";
import { useState } from "react";
import { writeBalloonText } from "@/core/callout";
import { Choice } from "../fields/Choice";
import { useBench } from "../store/benchStore";
import { Calibration } from "./Calibration";
import { usePage } from "./pagePicture";
import { PrintBar } from "./PrintBar";
import { PrintSheet } from "./PrintSheet";
import css from "./PrintTable.module.css";
import { usePrints, useUpload, type Prints } from "./usePrints";

const ZOOM = { least: 0.5, most: 8 };
const NO_PRINT =
  "No print yet. Add a picture of it (PNG or JPEG), a PDF or a DXF, or drop one here. The ledger on the left works without it too.";

/**
 * The print on the table: upload, pages, zoom, quarter turns, balloons pinned to their dimension, stretches
 * calibrated to views.
 */
export function PrintTable() {
  const prints = usePrints();
  const { busy, upload } = useUpload(prints.add);
  const [zoom, setZoom] = useState(1);
  const { picture, problem } = usePage(prints.print, prints.page);
  const zoomTo = (to: number) => setZoom(Math.min(ZOOM.most, Math.max(ZOOM.least, to)));
  return (
    <section
      className={css.table}
      aria-label="Print"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        const f = e.dataTransfer.files[0];
        if (f) void upload(f);
      }}
    >
      <PrintBar
        prints={prints}
        pages={picture?.pages ?? 1}
        zoom={zoom}
        setZoom={zoomTo}
        busy={busy}
        upload={(f) => void upload(f)}
      />
      {prints.print && picture ? (
        <Sheet prints={prints} picture={picture} zoom={zoom} zoomTo={zoomTo} />
      ) : (
        <div className={css.sheet}>
          <p className={css.none}>{prints.print ? problem || "opening the page …" : NO_PRINT}</p>
        </div>
      )}
      {/* Under the sheet: what is picked on must not move. */}
      <Pinning prints={prints} />
      <Calibrating prints={prints} />
    </section>
  );
}

function Sheet({
  prints,
  picture,
  zoom,
  zoomTo,
}: {
  prints: Prints;
  picture: NonNullable<ReturnType<typeof usePage>["picture"]>;
  zoom: number;
  zoomTo: (to: number) => void;
}) {
  const setBench = useBench((s) => s.set);
  const { job, print, page, doing } = prints;
  return (
    <PrintSheet
      job={job}
      print={print!}
      page={page}
      picture={picture}
      zoom={zoom}
      zoomBy={(k) => zoomTo(zoom * k)}
      aiming={doing !== null}
      marks={doing && "calibrate" in doing ? doing.calibrate : []}
      spot={prints.spot}
      find={(n) => setBench({ balloon: n })}
    />
  );
}

/** Which balloon the next click pins. */
function Pinning({ prints: { job, doing, setDoing } }: { prints: Prints }) {
  if (!doing || !("place" in doing)) return null;
  return (
    <p className={css.say}>
      click where balloon{" "}
      <Choice
        label="Balloon to pin"
        value={String(doing.place)}
        choose={(n) => setDoing({ place: Number(n) })}
        options={job.balloons.map((b) => ({
          value: String(b.number),
          label: `${b.number}: ${writeBalloonText({ ...b, note: undefined })}`,
        }))}
      />{" "}
      stands on the print
    </p>
  );
}

function Calibrating({ prints: { print, page, doing, setRegion } }: { prints: Prints }) {
  if (!print || !doing || !("calibrate" in doing)) return null;
  const { region, calibrate } = doing;
  const old = print.regions[region];
  return (
    <Calibration
      key={region}
      old={old}
      page={page}
      turn={print.turn ?? 0}
      points={calibrate}
      done={(r) => setRegion(region, r)}
      remove={old ? () => setRegion(region, null) : undefined}
    />
  );
}
