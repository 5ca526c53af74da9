"use client";
import { Button } from "antd";
import { useMemo, useState } from "react";
import { writeBalloonText } from "@/core/callout";
import { link, linkable, type Linkable } from "@/core/print/linking";
import { useJob } from "../store/jobStore";
import css from "./Card.module.css";

const keyOf = (l: Linkable) => `${l.row}/${l.path}/${l.text}`;

/** After rows are typed with bare numbers: one press makes all that match a balloon its own; what is doubtful is asked. */
export function LinkBar() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const found = useMemo(() => linkable(job), [job]);
  const asked = found.asked.filter((l) => !left.has(keyOf(l)));
  if (!found.sure.length && !asked.length) return null;
  const linkAll = () =>
    edit(
      found.sure.map((l) => link(l, l.balloons[0])),
      "link numbers",
    );
  const n = found.sure.length;
  return (
    <div className={css.links} role="group" aria-label="Numbers the print gives">
      {n > 0 ? (
        <>
          {n === 1 ? "a number equals" : `${n} numbers equal`} just one unused balloon{" "}
          <Button size="small" onClick={linkAll}>
            link all that match
          </Button>
        </>
      ) : (
        <Question of={asked[0]} leave={() => setLeft(new Set([...left, keyOf(asked[0])]))} />
      )}
    </div>
  );
}

/** One number that several balloons print: which is it? */
function Question({ of, leave }: { of: Linkable; leave: () => void }) {
  const balloons = useJob((s) => s.job!.balloons);
  const edit = useJob((s) => s.edit);
  return (
    <>
      row {of.number}, {of.label.toLowerCase()} {of.text}: which balloon is it?{" "}
      {of.balloons.map((number) => (
        <Button key={number} size="small" onClick={() => edit([link(of, number)], "link number")}>
          {number}: {writeBalloonText({ ...balloons.find((b) => b.number === number)!, note: undefined })}
        </Button>
      ))}
      <Button size="small" onClick={leave}>
        none of them
      </Button>
    </>
  );
}
