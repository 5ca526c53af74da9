import { Spin } from "antd";

export default function Loading() {
  return (
    <p style={{ padding: 40 }}>
      <Spin size="small" /> opening …
    </p>
  );
}
