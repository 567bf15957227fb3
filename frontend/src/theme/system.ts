/** Our look: a plain daylight workshop, hairlines instead of shadows, 3 px corners, figures in a mono face. */
import { createSystem, defaultConfig, defineConfig } from "@chakra-ui/react";

const both = (light: string, dark: string) => ({ value: { base: light, _dark: dark } });
const corner = { value: "3px" };

const config = defineConfig({
  globalCss: {
    "html, body, #root": { height: "100%" },
    "svg text": { fontFamily: "body" },
    ".recharts-text": { fontSize: "12px", fontFamily: "mono" },
    ".recharts-label": { paintOrder: "stroke", stroke: "panel", strokeWidth: "3px" },
    body: { bg: "page", color: "ink", fontSize: "15px", lineHeight: "1.4" },
    "*:focus-visible": { outline: "2px solid {colors.spruce}", outlineOffset: "2px" },
    "select.plain": {
      font: "inherit",
      height: "34px",
      px: "2",
      bg: "panel",
      color: "ink",
      borderWidth: "1px",
      borderColor: "line",
      borderRadius: "3px",
    },
    "table.sweep": {
      w: "100%",
      minW: "700px",
      tableLayout: "fixed",
      fontFamily: "mono",
      fontSize: "12px",
      "& th, & td": { textAlign: "center", lineHeight: "1.55", fontWeight: "400", whiteSpace: "nowrap" },
      "& th[scope=row]": {
        w: "142px",
        textAlign: "left",
        fontFamily: "body",
        overflow: "hidden",
        textOverflow: "ellipsis",
      },
      "& button": { fontWeight: "700", cursor: "pointer", w: "100%", minH: "24px" },
      "& .here": { bg: "spruce.wash" },
      "& .quiet": { color: "ink.second" },
      "& .cell": { display: "inline-flex", alignItems: "center", gap: "3px" },
      "& .missed": { color: "brick" },
    },
    "button.plain": {
      borderWidth: "1px",
      borderColor: "line",
      borderRadius: "3px",
      px: "3",
      py: "1",
      cursor: "pointer",
    },
    "button.chip": {
      borderWidth: "1px",
      borderColor: "line",
      borderRadius: "3px",
      px: "2",
      minH: "26px",
      cursor: "grab",
      color: "ink.second",
      "& b": { fontFamily: "mono", color: "ink" },
      "& span": { fontFamily: "mono" },
      "&[aria-pressed=true]": { borderColor: "spruce", bg: "spruce.wash" },
      "&[data-over]": { borderStyle: "dashed", borderColor: "spruce" },
    },
    "select.small": { height: "28px", fontSize: "13px" },
    "button.value": {
      fontFamily: "mono",
      fontSize: "23px",
      fontWeight: "700",
      cursor: "pointer",
      userSelect: "text",
      "&:hover:not(:disabled)": { textDecoration: "underline", textDecorationThickness: "1px" },
      "&:disabled": { cursor: "default" },
    },
    "table.working": {
      w: "100%",
      "& th, & td": { textAlign: "left", fontWeight: "400", py: "3px", pr: "3", verticalAlign: "top" },
      "& tr": { borderTopWidth: "1px", borderColor: "line" },
      "& td": { fontFamily: "mono", whiteSpace: "nowrap" },
      "& td i": { fontFamily: "body" },
      "& tr.last": { fontWeight: "700", bg: "spruce.wash" },
    },
    "table.rows": { fontSize: "12.5px", "& th, & td": { textAlign: "right" } },
    "textarea.plain": {
      font: "inherit",
      w: "100%",
      p: "2",
      bg: "panel",
      color: "ink",
      borderWidth: "1px",
      borderColor: "line",
      borderRadius: "3px",
    },
    ".visually-hidden": {
      position: "absolute",
      w: "1px",
      h: "1px",
      overflow: "hidden",
      clipPath: "inset(50%)",
    },
    "*, *::before, *::after": {
      _motionReduce: { transition: "none !important", animation: "none !important" },
    },
    "[data-screen-only]": { _print: { display: "none !important" } },
  },
  theme: {
    tokens: {
      fonts: {
        body: { value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif" },
        heading: { value: "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif" },
        mono: { value: "'Atkinson Hyperlegible Mono Variable', ui-monospace, monospace" },
      },
      radii: { xs: corner, sm: corner, md: corner, lg: corner, l1: corner, l2: corner, l3: corner },
    },
    semanticTokens: {
      colors: {
        page: both("#F3F5F0", "#12191B"),
        panel: both("#FCFDFA", "#1A2427"),
        ink: { DEFAULT: both("#1B292C", "#E6ECE8"), second: both("#55666A", "#A3B3B5") },
        line: both("#D3DAD4", "#33454A"),
        spruce: { DEFAULT: both("#1F5D5A", "#79BDB5"), wash: both("#E6EFEA", "#20383A") },
        copper: { DEFAULT: both("#A9572A", "#E0976B"), wash: both("#F5E8DD", "#3A2C25") },
        slate: both("#4A5A73", "#9DB0CC"),
        ochre: both("#8A5C0A", "#D9A441"),
        brick: both("#A0392B", "#E58A7C"),
        bg: { DEFAULT: both("#F3F5F0", "#12191B"), panel: both("#FCFDFA", "#1A2427") },
        border: { DEFAULT: both("#D3DAD4", "#33454A") },
      },
    },
    recipes: {
      button: {
        base: { fontWeight: "500", borderRadius: "3px", height: "auto", minH: "34px", px: "3", py: "1" },
        variants: {
          size: {
            xs: { minH: "28px", px: "2", fontSize: "13px" },
            md: { minH: "36px", px: "3" },
          },
          variant: {
            solid: { bg: "spruce", color: "panel", _hover: { bg: "spruce", textDecoration: "underline" } },
            outline: { bg: "panel", color: "ink", borderColor: "line", _hover: { borderColor: "spruce" } },
            ghost: { bg: "transparent", color: "ink", _hover: { bg: "spruce.wash" } },
          },
        },
        defaultVariants: { variant: "outline" },
      },
      input: {
        variants: { size: { md: { px: "2", h: "34px", fontSize: "15px" } } },
        base: {
          fontFamily: "mono",
          bg: "panel",
          borderRadius: "3px",
          height: "34px",
          px: "2",
          fontSize: "15px",
          borderColor: "line",
          color: "ink",
          _placeholder: { color: "ink.second", opacity: 1 },
          _invalid: { borderColor: "brick", borderWidth: "2px" },
          _focusVisible: { outline: "2px solid {colors.spruce}", outlineOffset: "1px" },
        },
      },
    },
  },
});

export const system = createSystem(defaultConfig, config);
