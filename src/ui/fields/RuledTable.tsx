"use client";
import { Table, type TableProps } from "antd";

/** Rows beyond which only those in sight are drawn, and the height they are seen through, pixels. */
const MANY = 100;
const IN_SIGHT = 420;

type Ruled<T> = Pick<TableProps<T>, "columns" | "dataSource" | "rowKey" | "onRow" | "rowClassName" | "locale"> & {
  label: string;
};

/** A ruled table; of a long one only what is in sight is drawn. */
export function RuledTable<T extends object>({ label, ...table }: Ruled<T>) {
  const isLong = (table.dataSource?.length ?? 0) > MANY;
  return (
    <Table<T>
      aria-label={label}
      size="small"
      pagination={false}
      tableLayout="fixed"
      {...(isLong ? { virtual: true, scroll: { y: IN_SIGHT, x: 0 } } : {})}
      {...table}
    />
  );
}
