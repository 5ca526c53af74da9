"use client";
import type { ReactNode } from "react";
import { type LengthUnit, byFigures, unitOf } from "@/core/number";
import type { FixtureKind, Shoulders } from "@/core/setups";
import { clampThreads } from "@/core/tables";
import { useShop } from "../store/shopStore";
import { ChoiceBox } from "../fields/ChoiceBox";
import { fixtures, type AssistantForm, type Chosen, type Placement } from "./wishes";

interface Props {
  form: AssistantForm;
  change: (changes: Partial<AssistantForm>) => void;
  unit: LengthUnit;
  op: number;
}

const placements: { value: Placement | ""; label: string }[] = [
  { value: "", label: "as the shop has it" },
  { value: "corner", label: "on the corner" },
  { value: "wall", label: "along a wall" },
  { value: "bisector", label: "on the bisector" },
];

const ReliefChoice = ({ form, change }: Props) => (
  <ChoiceBox
    label="Relief stands"
    value={form.placement}
    options={placements}
    choose={(o) => change({ placement: o.value })}
  />
);

const itself = (name: string) => ({ value: name, label: name });

function BlankChoice({ form, change, unit }: Props) {
  const own = useShop((s) => s.shop.jawBlanks);
  const blanks = own.filter((b) => b.unit === unitOf[unit].figures).map((b) => itself(b.name));
  return (
    <ChoiceBox
      label="Jaw blank"
      value={form.blank}
      options={[{ value: "", label: "smallest that fits" }, ...blanks]}
      choose={(o) => change({ blank: o.value })}
    />
  );
}

const counts = ["1", "2", "3", "4", "5", "6"].map(itself);

const StationChoices = ({ form, change, op }: Props) => (
  <>
    {(["x", "y"] as const).map((axis) => (
      <ChoiceBox
        key={axis}
        label={`Stations along ${axis}`}
        value={form.stations[axis]}
        options={counts}
        choose={(o) => change({ stations: { ...form.stations, [axis]: o.value } })}
      />
    ))}
    <ChoiceBox
      label="Stations serve"
      value={form.serial ? "all" : "one"}
      options={[
        { value: "one", label: `setup ${op}` },
        { value: "all", label: "one setup after the other" },
      ]}
      choose={(o) => change({ serial: o.value === "all" })}
    />
  </>
);

const ClampChoice = ({ form, change, unit }: Props) => (
  <ChoiceBox
    label="Clamp screws"
    value={form.clamps}
    options={[{ value: "", label: "none" }, ...byFigures(unit, clampThreads).map(itself)]}
    choose={(o) => change({ clamps: o.value })}
  />
);

const shoulders: { value: Shoulders; label: string }[] = [
  { value: "both", label: "at both ends" },
  { value: "left", label: "on the left" },
  { value: "right", label: "on the right" },
  { value: "none", label: "none: the nest is open" },
];

const ShoulderChoice = ({ form, change }: Props) => (
  <ChoiceBox
    label="Stop shoulder"
    value={form.shoulders}
    options={shoulders}
    choose={(o) => change({ shoulders: o.value })}
  />
);

const drawn: Record<Chosen, (props: Props) => ReactNode> = {
  placement: ReliefChoice,
  blank: BlankChoice,
  stations: StationChoices,
  clamps: ClampChoice,
  shoulders: ShoulderChoice,
};

/** What is chosen besides figures, by the sort of fixture. */
export const AssistantChoices = ({ kind, ...props }: Props & { kind: FixtureKind }) =>
  fixtures[kind].chooses.map((chosen) => {
    const Choices = drawn[chosen];
    return <Choices key={chosen} {...props} />;
  });
