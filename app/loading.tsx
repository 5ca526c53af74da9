import { Spin } from "antd";

export default function Loading() {
  return (
    <p style={{ display: "grid", placeContent: "center", gridAutoFlow: "column", gap: 8, height: "100dvh" }}>
      <Spin size="small" /> opening …
    </p>
  );
}
