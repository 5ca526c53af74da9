"use client";
import { Table, type TableProps } from "antd";
import type { TableRef } from "antd/es/table";
import type { Ref } from "react";

/** Rows beyond which only those in sight are drawn, and the height they are seen through, pixels. */
const MANY = 100;
const IN_SIGHT = 420;

type Ruled<T> = Pick<
  TableProps<T>,
  "columns" | "dataSource" | "rowKey" | "onRow" | "rowClassName" | "locale" | "expandable"
> & {
  label: string;
  /** The table itself, for whoever brings a line of it into sight. */
  table?: Ref<TableRef>;
};

/** A ruled table; of a long one only what is in sight is drawn. */
export function RuledTable<T extends object>({ label, table, ...rest }: Ruled<T>) {
  const isLong = (rest.dataSource?.length ?? 0) > MANY;
  return (
    <Table<T>
      ref={table}
      aria-label={label}
      size="small"
      pagination={false}
      tableLayout="fixed"
      {...(isLong ? { virtual: true, scroll: { y: IN_SIGHT, x: 0 } } : {})}
      {...rest}
    />
  );
}
