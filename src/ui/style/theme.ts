import { theme, type ThemeConfig } from "antd";
import type { Light } from "../common/light";

/** Paper by day, the same table by lamp light: what the controls are made of. The rest of the look stands in tokens.css. */
const inks = {
  paper: {
    ink: "#22262b",
    faint: "#66655e",
    field: "#ffffff",
    sheet: "#fffdf7",
    rule: "#a99c80",
    dye: "#22389c",
    wash: "#e4e8f6",
    red: "#bd2f18",
  },
  dark: {
    ink: "#ece6d6",
    faint: "#a8a69b",
    field: "#1c2024",
    sheet: "#24292e",
    rule: "#6d6a5c",
    dye: "#8fa2ff",
    wash: "#2c3558",
    red: "#ff8468",
  },
};

type Inks = (typeof inks)["paper"];

/** What every control is drawn with: ruled and square, ink on paper, dye where something is chosen. */
const tokensOf = (c: Inks, dark: boolean): ThemeConfig["token"] => ({
  fontFamily: "'Barlow', 'Sgorbia Symbols', sans-serif",
  fontSize: 14,
  borderRadius: 0,
  borderRadiusSM: 0,
  borderRadiusLG: 0,
  controlHeight: 28,
  controlHeightSM: 24,
  colorPrimary: dark ? "#5d78e8" : c.dye,
  colorError: c.red,
  colorWarning: "#a9812f",
  colorBgContainer: c.sheet,
  colorBgElevated: c.sheet,
  colorText: c.ink,
  colorTextPlaceholder: c.faint,
  colorTextDisabled: c.faint,
  colorBorder: c.rule,
  boxShadow: "none",
  boxShadowSecondary: "4px 4px 0 rgba(34,38,43,.18)",
  colorWarningBg: dark ? "#4a3d20" : "#f1e6c9",
  colorErrorBg: dark ? "#4a2a22" : "#f8e2da",
  colorWarningBorder: "#a9812f",
  colorErrorBorder: c.red,
  controlOutlineWidth: 0,
  motion: false,
});

/** A button is a ruled box; the one that matters is inked. */
const buttonOf = (c: Inks): NonNullable<ThemeConfig["components"]>["Button"] => ({
  fontWeight: 500,
  defaultBg: "transparent",
  defaultBorderColor: c.ink,
  defaultColor: c.ink,
  defaultHoverBg: c.wash,
  defaultHoverBorderColor: c.ink,
  defaultHoverColor: c.ink,
  defaultActiveBg: c.wash,
  defaultActiveBorderColor: c.dye,
  defaultActiveColor: c.dye,
  defaultShadow: "none",
  primaryShadow: "none",
  colorPrimary: c.ink,
  primaryColor: c.sheet,
  colorPrimaryHover: c.dye,
  colorPrimaryActive: c.dye,
  textHoverBg: "transparent",
  colorBgTextActive: "transparent",
  borderColorDisabled: c.rule,
  colorBgContainerDisabled: "transparent",
  contentFontSize: 13,
  contentFontSizeSM: 12,
  paddingInline: 11,
  paddingInlineSM: 7,
  controlHeight: 28,
  controlHeightSM: 24,
});

/** Where one control differs from the others. */
const componentsOf = (c: Inks): ThemeConfig["components"] => ({
  Button: buttonOf(c),
  // Notices are remarks in a margin, not billboards.
  Alert: {
    defaultPadding: "5px 12px",
    withDescriptionPadding: "7px 12px",
    withDescriptionIconSize: 16,
    fontSizeLG: 14,
  },
  Input: { colorBgContainer: c.field, paddingInlineSM: 6, activeShadow: "none", inputFontSizeSM: 13 },
  Select: {
    colorBgContainer: c.field,
    selectorBg: c.field,
    fontSize: 13,
    optionSelectedBg: c.wash,
    optionActiveBg: c.wash,
  },
  Checkbox: { controlInteractiveSize: 14 },
  Table: {
    headerBg: "transparent",
    headerColor: c.faint,
    headerSplitColor: "transparent",
    borderColor: c.rule,
    rowHoverBg: c.wash,
    cellPaddingBlockSM: 3,
    cellPaddingInlineSM: 5,
    cellFontSizeSM: 13,
    colorBgContainer: "transparent",
  },
  Slider: { controlSize: 8, railSize: 2, handleSize: 8, handleSizeHover: 8 },
});

/** The controls' own look. */
export function controlsFor(light: Light): ThemeConfig {
  const dark = light === "dark";
  const c = inks[dark ? "dark" : "paper"];
  return {
    algorithm: dark ? theme.darkAlgorithm : theme.defaultAlgorithm,
    token: tokensOf(c, dark),
    components: componentsOf(c),
  };
}
