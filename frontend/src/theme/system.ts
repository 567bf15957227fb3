/** Our look: a plain daylight workshop, hairlines instead of shadows, 3 px corners, figures in a mono face. */
import { createSystem, defineConfig } from "@chakra-ui/react";
import { chakra } from "./chakra";
import { CONTROLS } from "./controls";
import { PAINTED } from "./painted";
import { SHAPES } from "./shapes";
import { TABLES } from "./tables";

const both = (light: string, dark: string) => ({ value: { base: light, _dark: dark } });
const corner = { value: "3px" };

const config = defineConfig({
  globalCss: {
    ...PAINTED,
    ...TABLES,
    ...CONTROLS,
    ...SHAPES,
    "html, body, #root": { height: "100%", _print: { height: "auto" } },
    "svg text": { fontFamily: "body" },
    // The page may be longer than the window; what is below it is of the same ground.
    html: { bg: "page" },
    body: { bg: "page", color: "ink", fontSize: "15px", lineHeight: "1.4" },
    "*:focus-visible": { outline: "2px solid {colors.spruce}", outlineOffset: "2px" },
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
        border: { DEFAULT: both("#D3DAD4", "#33454A"), error: both("#A0392B", "#E58A7C") },
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
            solid: {
              bg: "spruce",
              color: "panel",
              _hover: { bg: "spruce", textDecoration: "underline" },
              _expanded: { bg: "spruce" },
            },
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

export const system = createSystem(chakra, config);
