"use client";
import { Button } from "antd";
import type { Side } from "@/core/geometry/vec";
import { Section } from "../common/Section";
import { useBench } from "../store/benchStore";
import { useJob } from "../store/jobStore";
import css from "./Proof.module.css";

/** Where a section is laid for a view that the stage does not have, as a share of the part. */
const JUST_INSIDE = 0.02;

/** The stretches of the prints that are laid over a view. */
export function PrintOver() {
  const prints = useJob((s) => s.job!.prints);
  const set = useBench((s) => s.set);
  const laid = prints.flatMap((p) => p.regions.map((region) => ({ p, region })));
  const look = (side: Side) =>
    set(
      ["front", "top", "right"].includes(side)
        ? { view: side as "top" }
        : { view: "section", section: { side, at: JUST_INSIDE } },
    );
  return (
    <Section title="Print over the part">
      {laid.length ? (
        <>
          <p className="soft" style={{ margin: "0 0 6px" }}>
            Hold b to blink it over the view; over the stage it is made stronger, or wiped across.
          </p>
          <div className={css.lay}>
            {laid.map(({ p, region }, i) => (
              <Button key={i} size="small" onClick={() => look(region.view)}>
                {p.name}: {region.view} view
              </Button>
            ))}
          </div>
        </>
      ) : (
        <p className="soft" style={{ margin: 0 }}>
          No print is calibrated yet: on the Print step, pick two points and give their distance.
        </p>
      )}
    </Section>
  );
}
