"use client";
import { AutoComplete, Button, Input } from "antd";
import { useState } from "react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { findMaterial, materials, type ShopMaterial } from "@/core/tables";
import { densityText, toNumberText, type NumberText } from "@/core/number";
import { MaterialHint } from "../common/MaterialHint";
import { NumberBox } from "../common/NumberBox";
import { Section, fieldsClass } from "../common/Section";
import { api, Refused } from "../store/api";
import { useTypedEnter } from "../fields/useTypedEnter";
import { useJob } from "../store/jobStore";
import css from "./StockCard.module.css";
import { Bare } from "../fields/Bare";
import { TextField } from "../fields/TextField";
import { useDraft } from "../fields/useDraft";

/** The shop's own materials, kept by the server, and what went wrong when they were. */
function useShopMaterials() {
  const own = useQuery({ queryKey: ["shop materials"], queryFn: api.shopMaterials });
  const client = useQueryClient();
  const [problem, setProblem] = useState("");
  const keep = async (next: ShopMaterial[]) => {
    setProblem("");
    try {
      await api.keepShopMaterials(next);
      await client.invalidateQueries({ queryKey: ["shop materials"] });
    } catch (e) {
      setProblem(e instanceof Refused ? e.message : "the server does not answer; the list is as it was");
    }
  };
  return { list: own.data ?? [], keep: (next: ShopMaterial[]) => void keep(next), problem };
}

/** The job's material and its density, as one edit each. */
function useMaterial(list: ShopMaterial[]) {
  const material = useJob((s) => s.job!.material);
  const edit = useJob((s) => s.edit);
  const put = (name: string, density: NumberText | undefined, what: string) =>
    edit([{ edit: "setHead", head: { material: { name, ...(density === undefined ? {} : { density }) } } }], what);
  const named = (name: string) => list.find((m) => m.name.toLowerCase() === name.trim().toLowerCase());
  return {
    material,
    mine: named(material.name),
    choose(name: string) {
      const shop = named(name);
      // A material of the shop's own brings its density along, so that the job stands without the shop's list.
      const kept = findMaterial(name) ? undefined : material.density;
      put(name.trim(), shop ? toNumberText(`${shop.density}!`) : kept, "material");
    },
    weigh: (density: NumberText | undefined) => put(material.name, density, "density"),
  };
}

/** What the part is made of: the table's materials with their density, and the shop's own. */
export function MaterialSection() {
  const job = useJob((s) => s.job)!;
  const { list, keep, problem } = useShopMaterials();
  const { material, mine, choose, weigh } = useMaterial(list);
  const [open, setOpen] = useState(false);
  const table = (
    <Button size="small" aria-expanded={open} onClick={() => setOpen(!open)}>
      {open ? "close the table" : "table of materials"}
    </Button>
  );
  return (
    <Section title="Material" aside={table}>
      <div className={fieldsClass}>
        <label style={{ gridColumn: "span 2" }}>
          <span className="lab">Material</span>
          <MaterialField
            value={material.name}
            choose={choose}
            known={[...list, ...materials.rows].map((m) => ({ name: m.name, density: String(m.density) }))}
          />
        </label>
        <NumberBox
          own
          job={job}
          label="Density, g/cm³"
          value={material.density}
          quantity="plain"
          optional
          commit={weigh}
        />
      </div>
      <Density mine={mine} list={list} choose={choose} keep={keep} />
      {problem && (
        <p className="red" style={{ margin: 0 }}>
          {problem}
        </p>
      )}
      {open && <MaterialTable list={list} choose={choose} keep={keep} />}
    </Section>
  );
}

interface Listed {
  list: ShopMaterial[];
  choose: (name: string) => void;
  keep: (next: ShopMaterial[]) => void;
}

/** Where the density comes from; one that is typed can be kept for the shop. */
function Density({ mine, list, choose, keep }: Listed & { mine: ShopMaterial | undefined }) {
  const { name, density } = useJob((s) => s.job!.material);
  const unit = useJob((s) => s.job!.unit);
  const typed = density === undefined ? null : Number(density.replace("!", ""));
  const isNew = !findMaterial(name) && !mine && name.trim() !== "";
  return (
    <p className="soft" style={{ margin: "4px 0 0" }}>
      {density === undefined ? (
        <MaterialHint {...{ name, unit, choose }} />
      ) : mine ? (
        `the shop's own: ${mine.source || "no source given"}`
      ) : (
        `density typed for this job${typed ? `: ${densityText(typed, unit)}` : ""}`
      )}
      {isNew && typed !== null && typed > 0 && (
        <>
          {" "}
          <Button size="small" onClick={() => keep([...list, { name: name.trim(), density: typed, source: "" }])}>
            keep it for the shop
          </Button>
        </>
      )}
    </p>
  );
}

/** All materials that are known, the shop's own first: those can be taken off again. */
function MaterialTable({ list, choose, keep }: Listed) {
  return (
    <table className={css.materials}>
      <thead>
        <tr>
          <th>material</th>
          <th>g/cm³</th>
          <th>source</th>
          <th />
        </tr>
      </thead>
      <tbody>
        {list.map((m, i) => (
          <tr key={m.name}>
            <td>
              <Bare onClick={() => choose(m.name)}>{m.name}</Bare>
            </td>
            <td className="num">{m.density}</td>
            <td>
              <TextField
                aria-label={`source of ${m.name}`}
                value={m.source}
                maxLength={200}
                placeholder="where the figure comes from"
                commit={(source) => keep(list.map((x, k) => (k === i ? { ...x, source } : x)))}
              />
            </td>
            <td>
              <Bare
                className="faint"
                aria-label={`take ${m.name} off the shop's list`}
                onClick={() => keep(list.filter((_, k) => k !== i))}
              >
                ×
              </Bare>
            </td>
          </tr>
        ))}
        {materials.rows.map((m) => (
          <tr key={m.name}>
            <td>
              <Bare onClick={() => choose(m.name)}>{m.name}</Bare>
            </td>
            <td className="num">{m.density.toFixed(2)}</td>
            <td className="soft">{materials.source}</td>
            <td />
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** The material by name, completed from the tables as it is typed. */
function MaterialField({
  value,
  choose,
  known,
}: {
  value: string;
  choose: (name: string) => void;
  known: { name: string; density: string }[];
}) {
  const { shown, drafting, drop, bind } = useDraft(value, choose);
  const enter = useTypedEnter(() => bind.onBlur());
  const unit = useJob((s) => s.job!.unit);
  const like = shown.trim().toLowerCase();
  return (
    <span {...enter}>
      <AutoComplete
        size="small"
        style={{ width: "100%" }}
        value={shown}
        options={(drafting && like ? known.filter((m) => m.name.toLowerCase().includes(like)) : known).map((m) => ({
          value: m.name,
          label: `${m.name}, ${densityText(Number(m.density), unit)}`,
        }))}
        popupMatchSelectWidth={false}
        onSelect={(name: string) => {
          // What was typed to find it is not the name: leaving the field must not put it back.
          drop();
          choose(name);
        }}
      >
        <Input size="small" aria-label="Material" maxLength={120} {...bind} />
      </AutoComplete>
    </span>
  );
}
