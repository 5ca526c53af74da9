"use client";
import { useQuery } from "@tanstack/react-query";
import type { ListedJob } from "@/core/job";
import { api } from "../store/api";
import css from "./Shelf.module.css";

/** Picture of the part and the state of its checks. A summary that is not there yet is asked for. */
export function JobPicture({ job }: { job: ListedJob }) {
  const known = job.summary;
  const asked = useQuery({
    queryKey: ["summary", job.id, job.stored],
    queryFn: () => api.summary(job.id),
    enabled: known === null,
    staleTime: Infinity,
  });
  const s = known ?? asked.data;
  if (!s) return <span className={css.waiting}>{asked.isError ? "no picture" : "drawing …"}</span>;
  const words = [
    s.failed ? `${s.failed} row${s.failed > 1 ? "s" : ""} failed` : "",
    s.stops ? `■ ${s.stops} stop` : "",
    s.cautions ? `▲ ${s.cautions}` : "",
    s.checksOff ? `${s.checksOff} check off` : "",
    s.off ? `${s.off} balloon${s.off > 1 ? "s" : ""} off` : "",
  ].filter(Boolean);
  return (
    <>
      {/* Nothing but lines and curves: isDrawingSvg is asked before it is kept. */}
      {s.picture ? (
        <span className={css.svg} dangerouslySetInnerHTML={{ __html: s.picture }} />
      ) : (
        <span className={css.waiting}>no part yet</span>
      )}
      <span className={css.state}>
        {s.balloons > 0 && (
          <span>
            {s.proved} / {s.balloons} proved
          </span>
        )}
        {words.length ? <span className="red">{words.join(" · ")}</span> : s.picture && <span>no remarks</span>}
      </span>
    </>
  );
}
