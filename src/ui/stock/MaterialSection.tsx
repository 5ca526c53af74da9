"use client";
import { AutoComplete, Button, Input } from "antd";
import { useState } from "react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { findMaterial, materials, type ShopMaterial } from "@/core/tables";
import { toNumberText } from "@/core/number";
import { MaterialHint } from "../common/MaterialHint";
import { NumberBox } from "../common/NumberBox";
import { Section, fieldsClass } from "../common/Section";
import { api, Refused } from "../store/api";
import { useJob } from "../store/jobStore";
import css from "./StockCard.module.css";
import { Bare } from "../fields/Bare";
import { TextField } from "../fields/TextField";
import { useDraft } from "../fields/useDraft";

/** What the part is made of: the table's materials with their density, and the shop's own. */
export function MaterialSection() {
  const job = useJob((s) => s.job)!;
  const edit = useJob((s) => s.edit);
  const own = useQuery({ queryKey: ["shop materials"], queryFn: api.shopMaterials });
  const [problem, setProblem] = useState("");
  const [open, setOpen] = useState(false);
  const client = useQueryClient();
  const list = own.data ?? [];
  const known = findMaterial(job.material.name);
  const mine = list.find((m) => m.name.toLowerCase() === job.material.name.trim().toLowerCase());
  const choose = (name: string) => {
    const shop = list.find((m) => m.name.toLowerCase() === name.trim().toLowerCase());
    // A material of the shop's own brings its density along, so that the job stands without the shop's list.
    edit(
      [
        {
          edit: "setHead",
          head: {
            material: {
              name: name.trim(),
              ...(shop
                ? { density: toNumberText(`${shop.density}!`) }
                : findMaterial(name) || job.material.density === undefined
                  ? {}
                  : { density: job.material.density }),
            },
          },
        },
      ],
      "material",
    );
  };
  const keep = async (next: ShopMaterial[]) => {
    setProblem("");
    try {
      await api.keepShopMaterials(next);
      await client.invalidateQueries({ queryKey: ["shop materials"] });
    } catch (e) {
      setProblem(e instanceof Refused ? e.message : "the server does not answer; the list is as it was");
    }
  };
  const typed = job.material.density === undefined ? null : Number(job.material.density.replace("!", ""));
  const canKeep = !known && !mine && job.material.name.trim() !== "" && typed !== null && typed > 0;
  return (
    <Section
      title="Material"
      aside={
        <Button size="small" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "close the table" : "table of materials"}
        </Button>
      }
    >
      <div className={fieldsClass}>
        <label style={{ gridColumn: "span 2" }}>
          <span className="lab">Material</span>
          <MaterialField
            value={job.material.name}
            choose={choose}
            known={[...list, ...materials.rows].map((m) => ({ name: m.name, density: String(m.density) }))}
          />
        </label>
        <NumberBox
          own
          job={job}
          label="Density, g/cm³"
          value={job.material.density}
          quantity="plain"
          optional
          commit={(t) =>
            edit(
              [
                {
                  edit: "setHead",
                  head: { material: { name: job.material.name, ...(t === undefined ? {} : { density: t }) } },
                },
              ],
              "density",
            )
          }
        />
      </div>
      <p className="soft" style={{ margin: "4px 0 0" }}>
        {job.material.density !== undefined
          ? mine
            ? `the shop's own: ${mine.source || "no source given"}`
            : "density typed for this job"
          : null}
        {job.material.density === undefined && <MaterialHint name={job.material.name} choose={choose} />}
        {canKeep && (
          <>
            {" "}
            <Button
              size="small"
              onClick={() => void keep([...list, { name: job.material.name.trim(), density: typed!, source: "" }])}
            >
              keep it for the shop
            </Button>
          </>
        )}
      </p>
      {problem && (
        <p className="red" style={{ margin: 0 }}>
          {problem}
        </p>
      )}
      {open && (
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
                    commit={(source) => void keep(list.map((x, k) => (k === i ? { ...x, source } : x)))}
                  />
                </td>
                <td>
                  <Bare
                    className="faint"
                    aria-label={`take ${m.name} off the shop's list`}
                    onClick={() => void keep(list.filter((_, k) => k !== i))}
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
      )}
    </Section>
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
  const like = shown.trim().toLowerCase();
  return (
    <AutoComplete
      size="small"
      style={{ width: "100%" }}
      value={shown}
      options={(drafting && like ? known.filter((m) => m.name.toLowerCase().includes(like)) : known).map((m) => ({
        value: m.name,
        label: `${m.name}, ${m.density} g/cm³`,
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
  );
}
