"use client";
import { useState } from "react";
import type { Claim } from "@/core/print/claims";
import { Bare } from "../fields/Bare";
import { useBench } from "../store/benchStore";
import css from "./Proof.module.css";

const signs: Record<Claim["state"], { sign: string; word: string }> = {
  true: { sign: "✓", word: "true" },
  false: { sign: "✗", word: "false" },
  unexamined: { sign: "–", word: "not examined" },
};

/** What a balloon claims of the solid; pressed, the faces a claim was read from stand in dye on the stage. */
export function Claims({ claims }: { claims: Claim[] }) {
  const set = useBench((s) => s.set);
  const [shown, setShown] = useState<number | null>(null);
  const show = (i: number | null) => {
    setShown(i);
    set({ claimed: i === null ? null : claims[i].on });
  };
  return (
    <ul className={css.claims}>
      {claims.map((c, i) => {
        const { sign, word } = signs[c.state];
        const isShown = shown === i;
        return (
          <li key={i}>
            <Bare
              className={`${css.claim} ${c.state === "false" ? css.bad : ""}`}
              aria-pressed={isShown}
              disabled={c.on.length === 0}
              onClick={() => show(isShown ? null : i)}
              title={c.on.length ? "show its faces on the stage" : "no face was read for it"}
            >
              <span aria-hidden="true">{sign}</span>
              <span>
                {c.says}: {word}
                <small>{c.by}</small>
              </span>
            </Bare>
          </li>
        );
      })}
    </ul>
  );
}
