"use client";
import { App, Button } from "antd";
import { useState } from "react";
import type { Print, Region } from "@/core/job";
import { writeBalloonText } from "@/core/callout";
import { api, Refused } from "../store/api";
import { freshId } from "../bench/actions";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import { Calibration } from "./Calibration";
import { PrintSheet, type Spot } from "./PrintSheet";
import { usePage } from "./pagePicture";
import css from "./PrintTable.module.css";
import { Bare } from "../fields/Bare";
import { Choice } from "../fields/Choice";
import { FilePick } from "../fields/FilePick";

const MAX = 20_000_000;
type Doing = { place: number } | { calibrate: Spot[]; region: number } | null;

/**
 * The print on the table: upload, pages, zoom, quarter turns, balloons pinned to their dimension, stretches
 * calibrated to views.
 */
export function PrintTable() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const setBench = useBench((s) => s.set);
  const [chosen, setChosen] = useState<string | null>(null);
  const [page, setPage] = useState(1);
  const [zoom, setZoom] = useState(1);
  const [doing, setDoing] = useState<Doing>(null);
  const [busy, setBusy] = useState(false);
  const { message } = App.useApp();
  const print = job.prints.find((p) => p.id === chosen) ?? job.prints[0];
  const { picture, problem } = usePage(print, page);
  const pages = picture?.pages ?? 1;
  const put = (prints: Print[]) => edit([{ edit: "setPrints", prints }], "print");
  const change = (next: Print) => put(job.prints.map((x) => (x.id === next.id ? next : x)));

  const upload = async (f: File) => {
    if (f.size > MAX)
      return void message.error(`${f.name} has ${(f.size / 1e6).toFixed(1)} MB; at most ${MAX / 1e6} MB are kept`, 6);
    setBusy(true);
    try {
      const kept = await api.attach(f);
      const p: Print = {
        id: freshId(),
        name: f.name.slice(0, 120) || "print",
        attachment: kept.hash,
        mediaType: kept.mediaType,
        regions: [],
      };
      put([...useJob.getState().job!.prints, p]);
      setChosen(p.id);
      setPage(1);
    } catch (e) {
      void message.error(
        e instanceof Refused ? `${f.name}: ${e.message}` : "the server does not answer; the print was not kept",
        6,
      );
    } finally {
      setBusy(false);
    }
  };
  const spot = (p: Spot) => {
    if (!print || !doing) return;
    if ("place" in doing) {
      const b = job.balloons.find((x) => x.number === doing.place);
      if (b)
        edit(
          [
            {
              edit: "setBalloon",
              number: b.number,
              balloon: { ...b, place: { print: print.id, ...(page > 1 ? { page } : {}), ...p } },
            },
          ],
          "pin balloon",
        );
      const next = job.balloons.find((x) => !x.place && x.number !== doing.place);
      setDoing(next ? { place: next.number } : null);
    } else setDoing({ ...doing, calibrate: doing.calibrate.length >= 4 ? [p] : [...doing.calibrate, p] });
  };
  const unpinned = job.balloons.filter((b) => !b.place);
  const here = print?.regions.map((r, i) => ({ r, i })).filter(({ r }) => r.page === page) ?? [];
  const turned = () => {
    const turn = (((print!.turn ?? 0) + 1) % 4) as 0 | 1 | 2 | 3;
    const { turn: _, ...rest } = print!;
    change(turn ? { ...rest, turn } : rest);
  };
  const setRegion = (i: number, r: Region | null) => {
    change({
      ...print!,
      regions:
        r === null
          ? print!.regions.filter((_, k) => k !== i)
          : i < print!.regions.length
            ? print!.regions.map((x, k) => (k === i ? r : x))
            : [...print!.regions, r],
    });
    setDoing(null);
  };
  const calibrating = doing && "calibrate" in doing ? doing : null;
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
      <div className={css.bar}>
        {job.prints.map((p) => (
          <Bare
            key={p.id}
            className={css.tab}
            aria-pressed={p.id === print?.id}
            onClick={() => {
              setChosen(p.id);
              setPage(1);
              setDoing(null);
            }}
          >
            {p.name}
          </Bare>
        ))}
        <FilePick
          size="small"
          label="Picture of a print"
          accept="image/png,image/jpeg,application/pdf,.dxf"
          disabled={busy}
          pick={(f) => void upload(f)}
        >
          {busy ? "keeping …" : "add a print"}
        </FilePick>
        {print && (
          <span className={css.tail}>
            {pages > 1 && (
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
            )}
            <Button size="small" onClick={() => setZoom(Math.max(0.5, zoom / 1.25))} aria-label="Smaller">
              −
            </Button>
            <span className="num">{Math.round(zoom * 100)} %</span>
            <Button size="small" onClick={() => setZoom(Math.min(8, zoom * 1.25))} aria-label="Larger">
              +
            </Button>
            <Button size="small" onClick={turned} title="turn the page a quarter to the right">
              turn
            </Button>
            <Button
              size="small"
              aria-pressed={Boolean(doing && "place" in doing)}
              disabled={!job.balloons.length}
              onClick={() =>
                setDoing(doing && "place" in doing ? null : { place: (unpinned[0] ?? job.balloons[0]).number })
              }
            >
              pin balloons
            </Button>
            {here.map(({ r, i }) => (
              <Button
                key={i}
                size="small"
                aria-pressed={calibrating?.region === i}
                onClick={() => setDoing(calibrating?.region === i ? null : { calibrate: [], region: i })}
              >
                calibrated: {r.view}
              </Button>
            ))}
            <Button
              size="small"
              aria-pressed={calibrating?.region === print.regions.length}
              onClick={() =>
                setDoing(
                  calibrating?.region === print.regions.length ? null : { calibrate: [], region: print.regions.length },
                )
              }
            >
              {here.length ? "one more view" : "calibrate"}
            </Button>
            <Button size="small" onClick={() => put(job.prints.filter((p) => p.id !== print.id))}>
              take off
            </Button>
          </span>
        )}
      </div>
      {doing && "place" in doing && (
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
      )}
      {calibrating && print && (
        <Calibration
          key={calibrating.region}
          old={print.regions[calibrating.region]}
          page={page}
          turn={print.turn ?? 0}
          points={calibrating.calibrate}
          done={(r) => setRegion(calibrating.region, r)}
          remove={print.regions[calibrating.region] ? () => setRegion(calibrating.region, null) : undefined}
        />
      )}
      {print ? (
        picture ? (
          <PrintSheet
            job={job}
            print={print}
            page={page}
            picture={picture}
            zoom={zoom}
            zoomBy={(k) => setZoom((z) => Math.min(8, Math.max(0.5, z * k)))}
            aiming={doing !== null}
            marks={calibrating?.calibrate ?? []}
            spot={spot}
            find={(n) => setBench({ balloon: n })}
          />
        ) : (
          <div className={css.sheet}>
            <p className={css.none}>{problem || "opening the page …"}</p>
          </div>
        )
      ) : (
        <div className={css.sheet}>
          <p className={css.none}>
            No print yet. Add a picture of it (PNG or JPEG), a PDF or a DXF, or drop one here. The ledger on the left
            works without it too.
          </p>
        </div>
      )}
    </section>
  );
}
