"use client";
import { AntdRegistry } from "@ant-design/nextjs-registry";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { App, ConfigProvider, theme } from "antd";
import { useState, type ReactNode } from "react";
import { useLight } from "./light";

/** Everything stands in here: data fetching, dialogs, and their look on paper or in the dark. */
export function Frame({ children }: { children: ReactNode }) {
  const [client] = useState(
    () => new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } }),
  );
  const light = useLight((s) => s.light);
  const dark = light === "dark";
  return (
    <AntdRegistry>
      <ConfigProvider
        theme={{
          algorithm: dark ? theme.darkAlgorithm : theme.defaultAlgorithm,
          token: {
            fontFamily: "'Barlow', 'Sgorbia Symbols', sans-serif",
            fontSize: 14,
            borderRadius: 0,
            colorPrimary: dark ? "#5d78e8" : "#22389c",
            colorError: dark ? "#ff8468" : "#bd2f18",
            colorWarning: "#a9812f",
            colorBgContainer: dark ? "#24292e" : "#fffdf7",
            colorBgElevated: dark ? "#24292e" : "#fffdf7",
            colorText: dark ? "#ece6d6" : "#22262b",
            colorBorder: dark ? "#6d6a5c" : "#a99c80",
            boxShadow: "none",
            colorWarningBg: dark ? "#4a3d20" : "#f1e6c9",
            colorErrorBg: dark ? "#4a2a22" : "#f8e2da",
            colorWarningBorder: "#a9812f",
            colorErrorBorder: dark ? "#ff8468" : "#bd2f18",
            boxShadowSecondary: "4px 4px 0 rgba(34,38,43,.18)",
            motion: false,
          },
          // Notices are remarks in a margin, not billboards.
          components: {
            Alert: {
              defaultPadding: "5px 12px",
              withDescriptionPadding: "7px 12px",
              withDescriptionIconSize: 16,
              fontSizeLG: 14,
            },
          },
        }}
      >
        <App notification={{ placement: "bottomLeft" }} message={{ maxCount: 3 }}>
          <QueryClientProvider client={client}>{children}</QueryClientProvider>
        </App>
      </ConfigProvider>
    </AntdRegistry>
  );
}
