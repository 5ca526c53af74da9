"use client";
import { Button, Segmented } from "antd";
import { useEffect, useState } from "react";
import type { Figures } from "@/core/number";
import {
  fixtureFigures,
  limitGroups,
  shopSettingsSchema,
  type FixturePractice,
  type LimitGroup,
  type Limits,
  type PracticeValue,
  type ReliefPlacement,
  type ShopFigure,
  type ShopSettings,
} from "@/core/tables";
import { useLight } from "../common/light";
import { Mark } from "../common/Mark";
import { Section } from "../common/Section";
import { ChoiceBox } from "../fields/ChoiceBox";
import { FigureTable, type FigureLine } from "./FigureTable";
import { JawBlankTable } from "./JawBlankTable";
import { useSettings, type Keeping } from "./useSettings";
import css from "./ShopPage.module.css";

const groups: Record<LimitGroup, string> = {
  milling: "Limits: milling",
  holes: "Limits: holes and threads",
  turning: "Limits: turning",
  holding: "Limits: holding",
};
const kept: Record<Keeping, string> = {
  kept: "kept",
  keeping: "keeping …",
  away: "not kept: the server is away",
  refused: "not kept",
};
const schools: { value: ReliefPlacement; label: string }[] = [
  { value: "corner", label: "centred on the corner" },
  { value: "wall", label: "shifted along a wall" },
  { value: "bisector", label: "shifted along the bisector" },
];

type Sheet = "limits" | "fixtures";
type Group<T> = Partial<Record<keyof T, ShopFigure>>;
/** A group of figures with one of them set, or as it usually is. */
function withFigure<T>(group: Group<T>, key: string, figure: ShopFigure | undefined): Group<T> {
  const { [key as keyof T]: _gone, ...rest } = group;
  return (figure ? { ...rest, [key]: figure } : rest) as Group<T>;
}

const limitLines = (group: LimitGroup, set: Group<Limits>): FigureLine[] =>
  Object.entries<PracticeValue>(limitGroups[group]).map(([key, { value, ...limit }]) => ({
    key,
    ...limit,
    usual: value,
    set: set[key as keyof Limits],
  }));
const fixtureLines = (figures: Figures, set: Group<FixturePractice>): FigureLine[] =>
  Object.entries(fixtureFigures).map(([key, { title, is, [figures]: usual, ...f }]) => ({
    key,
    title,
    is,
    ...("orNone" in f ? { orNone: f.orNone } : {}),
    unit: "",
    source: "",
    usual,
    set: set[key as keyof FixturePractice],
  }));

/** The shop's own figures: what the rules hold to, and what fixtures are proposed with. Every job is judged by them. */
export function ShopPage({ kept: first }: { kept: ShopSettings }) {
  const start = useLight((s) => s.start);
  useEffect(start, [start]);
  const [figures, setFigures] = useState<Figures>("mm");
  const [sheet, setSheet] = useState<Sheet>("limits");
  const shop = useSettings(first);
  return (
    <div className={css.page}>
      <Head shop={shop} figures={figures} setFigures={setFigures} />
      <main className={css.main}>
        <h1 className={css.title}>The shop’s own figures</h1>
        <Segmented<Sheet>
          className={css.sheets}
          aria-label="What is set"
          value={sheet}
          onChange={setSheet}
          options={[
            { value: "limits", label: "what the rules hold to" },
            { value: "fixtures", label: "what fixtures are proposed with" },
          ]}
        />
        <p className={css.say}>
          Every job here is judged by these limits, and its jaws, plates and chuck jaws are proposed with these sizes.
          They plan: the machine’s manual, the tool maker’s ratings and a qualified person at the machine come first.
        </p>
        {shop.problem && <p className="red">{shop.problem}</p>}
        {sheet === "limits" ? <LimitSheet {...{ shop, figures }} /> : <FixtureSheet {...{ shop, figures }} />}
      </main>
    </div>
  );
}

type Shop = ReturnType<typeof useSettings>;

interface HeadProps {
  shop: Shop;
  figures: Figures;
  setFigures: (figures: Figures) => void;
}

function Head({ shop, figures, setFigures }: HeadProps) {
  return (
    <header className={css.head}>
      <Mark leadsBack />
      <span role="status" className={css.state}>
        {kept[shop.keeping]}
      </span>
      {shop.keeping !== "kept" && shop.keeping !== "keeping" && (
        <Button size="small" onClick={shop.again}>
          Try now
        </Button>
      )}
      <Segmented<Figures>
        size="small"
        aria-label="Figures in"
        value={figures}
        onChange={setFigures}
        options={[
          { value: "mm", label: "millimetres" },
          { value: "in", label: "inches" },
        ]}
      />
      <Button size="small" disabled={!shop.undo} onClick={() => shop.undo?.()}>
        undo
      </Button>
      <Button size="small" disabled={!shop.redo} onClick={() => shop.redo?.()}>
        redo
      </Button>
    </header>
  );
}

interface Shown {
  shop: Shop;
  figures: Figures;
}

/** What the rules hold to. */
function LimitSheet({ shop: { settings, put }, figures }: Shown) {
  const { limits } = settings;
  const setLimit = (key: string, figure: ShopFigure | undefined) =>
    put({ ...settings, limits: withFigure<Limits>(limits, key, figure) });
  const refused = (key: string, figure: ShopFigure) => {
    const read = shopSettingsSchema.safeParse({ ...settings, limits: withFigure<Limits>(limits, key, figure) });
    return read.success ? null : read.error.issues[0].message;
  };
  const table = (group: LimitGroup) => (
    <Section key={group} title={groups[group]}>
      <FigureTable
        label={groups[group]}
        lines={limitLines(group, limits)}
        figures={figures}
        put={setLimit}
        refused={refused}
      />
    </Section>
  );
  return (
    <div className={css.columns}>
      <div>{(["milling", "holes"] as const).map(table)}</div>
      <div>{(["turning", "holding"] as const).map(table)}</div>
    </div>
  );
}

/** What fixtures are proposed with. */
function FixtureSheet({ shop: { settings, put }, figures }: Shown) {
  const { fixtures } = settings;
  const setFixture = (key: string, figure: ShopFigure | undefined) => {
    const own = withFigure<FixturePractice>(fixtures[figures], key, figure);
    put({ ...settings, fixtures: { ...fixtures, [figures]: own } });
  };
  return (
    <div className={css.columns}>
      <div>
        <Section title="Reliefs of square corners">
          <ChoiceBox
            label="Reliefs stand, where nothing else is said"
            value={settings.relief}
            options={schools}
            choose={(o) => put({ ...settings, relief: o.value })}
          />
        </Section>
        <Section title={`Jaw blanks, ${figures === "in" ? "inch" : "metric"} jobs`}>
          <JawBlankTable
            own={settings.jawBlanks}
            figures={figures}
            put={(blanks) => put({ ...settings, jawBlanks: blanks })}
          />
        </Section>
      </div>
      <div>
        <Section
          title={`Fixtures are proposed with, ${figures === "in" ? "inch" : "metric"} jobs`}
          aside={<span className="soft">common practice, no source</span>}
        >
          <FigureTable
            label="Fixtures"
            lines={fixtureLines(figures, fixtures[figures])}
            figures={figures}
            put={setFixture}
          />
        </Section>
      </div>
    </div>
  );
}
