import { Button } from "antd";
import { setMeasure } from "../bench/actions";
import { useBench } from "../store/benchStore";
import css from "./Stage.module.css";

/** What is asked of the hand on the stage: faces for a balloon, places to measure between. */
export function Hints() {
  const picking = useBench((s) => s.picking);
  const measuring = useBench((s) => s.measuring);
  const set = useBench((s) => s.set);
  return (
    <>
      {picking && (
        <p className={css.hint}>
          balloon {picking.balloon}:{" "}
          {picking.first === null ? "pick the face it is measured on" : "pick the second face or "}
          {picking.first !== null && (
            <Button size="small" onClick={() => setMeasure(picking.balloon, { a: picking.first! })}>
              measure this face alone
            </Button>
          )}{" "}
          <Button size="small" onClick={() => set({ picking: null })}>
            cancel
          </Button>
        </p>
      )}
      {measuring && <p className={css.hint}>measuring: pick two places; corners are caught. Press m to stop.</p>}
    </>
  );
}

/** What an empty stage says. */
export function EmptyStage({ hasRows }: { hasRows: boolean }) {
  const busy = useBench((s) => s.busy);
  const nothing = "Nothing stands here yet. Type what the print says: LEAVE BLOCK 4 X 2.5 X .75";
  return (
    <p className={css.empty}>{!hasRows ? nothing : busy ? "working out the part …" : "no row makes material yet"}</p>
  );
}
