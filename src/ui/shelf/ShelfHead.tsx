"use client";
import { Button, Input } from "antd";
import Link from "next/link";
import { useEffect } from "react";
import { Mark } from "../common/Mark";
import { useLight } from "../common/light";
import { FilePick } from "../fields/FilePick";
import css from "./Shelf.module.css";

interface Props {
  search: string;
  setSearch: (text: string) => void;
  importFile: (file: File) => Promise<void>;
  make: () => void;
  copies: () => void;
}

/** Over the shelf: what is looked for, the light, and how jobs come in. */
export function ShelfHead({ search, setSearch, importFile, make, copies }: Props) {
  const { light, start, turn } = useLight();
  useEffect(start, [start]);
  return (
    <header className={css.head}>
      <Mark />
      <span className={css.say}>from a print to checked geometry, before programming</span>
      <Input
        className={css.search}
        type="search"
        allowClear
        placeholder="search name, material, drawing"
        aria-label="Search jobs"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
      />
      <Link href="/shop" className={css.link}>
        The shop’s figures
      </Link>
      <Button onClick={copies}>Copies</Button>
      <Button onClick={turn}>{light === "dark" ? "paper" : "dark"}</Button>
      <FilePick
        label="File to import"
        accept=".json,.card,.txt,application/json,text/plain"
        pick={(f) => void importFile(f)}
      >
        Import
      </FilePick>
      <Button type="primary" onClick={make}>
        New job
      </Button>
    </header>
  );
}
