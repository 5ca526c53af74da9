"use client";
import { Button } from "antd";
import { densityText, type LengthUnit } from "@/core/number";
import { findMaterial, materials, nearestMaterials } from "@/core/tables";

/** What the table says of a material's name as it is typed: its density, or the names nearest to it. */
export function MaterialHint({
  name,
  unit,
  choose,
}: {
  name: string;
  unit: LengthUnit | null;
  choose: (name: string) => void;
}) {
  const known = findMaterial(name);
  if (known)
    return (
      <>
        {densityText(known.density, unit ?? "mm")}: {materials.source}
      </>
    );
  if (!name.trim()) return <>without a material the part has no weight</>;
  const near = nearestMaterials(name);
  return (
    <>
      not in the table
      {near.length > 0 && "; nearest: "}
      {near.map((m) => (
        <Button key={m.name} size="small" className="gap" onClick={() => choose(m.name)}>
          {m.name}
        </Button>
      ))}
      {near.length === 0 && ": its density can be typed on the Stock step"}
    </>
  );
}
