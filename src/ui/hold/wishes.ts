import { numberScope } from "@/core/engine/numbers";
import type { Job, JobDocument } from "@/core/job";
import { evaluateNumber, type NumberText } from "@/core/number";
import type { FixtureKind, FixtureWishes, Shoulders } from "@/core/setups";

export type Asked = "grip" | "clearance" | "relief" | "spacer" | "pitchX" | "pitchY";
export type Placement = NonNullable<FixtureWishes["placement"]>;

/** What an assistant's form holds; an empty text is left to the assistant. */
export interface AssistantForm {
  numbers: Partial<Record<Asked, NumberText>>;
  /** Empty: as the shop has it. */
  placement: Placement | "";
  blank: string;
  stations: { x: string; y: string };
  /** One station after the other serves the setups of one piece. */
  serial: boolean;
  clamps: string;
  shoulders: Shoulders;
}

export const emptyForm: AssistantForm = {
  numbers: {},
  placement: "",
  blank: "",
  stations: { x: "1", y: "1" },
  serial: false,
  clamps: "",
  shoulders: "both",
};

/** What is chosen besides figures. */
export type Chosen = "placement" | "blank" | "stations" | "clamps" | "shoulders";

interface Fixture {
  title: string;
  /** What the button says that asks for one. */
  button: string;
  asks: Asked[];
  chooses: Chosen[];
}

/** What is asked of each sort of fixture. */
export const fixtures: Readonly<Record<FixtureKind, Fixture>> = {
  jaws: {
    title: "Soft jaws",
    button: "soft jaws …",
    asks: ["grip", "clearance", "spacer", "relief"],
    chooses: ["placement", "blank", "shoulders"],
  },
  plate: {
    title: "Fixture plate",
    button: "fixture plate …",
    asks: ["grip", "clearance", "relief", "pitchX", "pitchY"],
    chooses: ["placement", "stations", "clamps"],
  },
  chuck: {
    title: "Bored chuck jaws",
    button: "bored jaws …",
    asks: ["grip", "clearance", "spacer"],
    chooses: [],
  },
};

/** The form's wishes as the assistant takes them: what is empty or no number is not said. */
export function wishesOf(form: AssistantForm, kind: FixtureKind, document: JobDocument, job: Job): FixtureWishes {
  const scope = numberScope(job);
  const figure = (key: Asked): number | undefined => {
    const text = form.numbers[key];
    const r = text === undefined ? null : evaluateNumber(text, "length", scope);
    return r?.ok ? r.value.value : undefined;
  };
  const { asks, chooses } = fixtures[kind];
  const said = (["grip", "clearance", "relief", "spacer"] as const).flatMap((key) => {
    const value = asks.includes(key) ? figure(key) : undefined;
    return value === undefined ? [] : [[key, value] as const];
  });
  const has = (chosen: Chosen) => chooses.includes(chosen);
  return {
    ...Object.fromEntries(said),
    ...(has("placement") && form.placement && { placement: form.placement }),
    ...(has("blank") && form.blank && { blank: form.blank }),
    ...(has("shoulders") && form.shoulders !== "both" && { shoulders: form.shoulders }),
    ...(has("clamps") && form.clamps && { clamps: form.clamps }),
    ...(has("stations") && {
      pitch: { x: figure("pitchX") ?? 0, y: figure("pitchY") ?? 0 },
      ...(form.serial
        ? { serves: document.setups.map((s) => s.op) }
        : { stations: { x: Number(form.stations.x), y: Number(form.stations.y) } }),
    }),
  };
}
