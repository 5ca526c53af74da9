"use client";
import { AntdRegistry } from "@ant-design/nextjs-registry";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { App, ConfigProvider } from "antd";
import { useState, type ReactNode } from "react";
import { controlsFor } from "../style/theme";
import { useLight } from "./light";

/** Short news comes below the ruler of steps, which is lowest where a window is narrow, px. */
const BELOW_STEPS = 80;

/** Everything stands in here: data fetching, dialogs, and their look on paper or in the dark. */
export function Frame({ children }: { children: ReactNode }) {
  const [client] = useState(
    () => new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } }),
  );
  const light = useLight((s) => s.light);
  return (
    <AntdRegistry layer>
      <ConfigProvider theme={controlsFor(light)}>
        <App notification={{ placement: "bottomLeft" }} message={{ maxCount: 3, top: BELOW_STEPS }}>
          <QueryClientProvider client={client}>{children}</QueryClientProvider>
        </App>
      </ConfigProvider>
    </AntdRegistry>
  );
}
