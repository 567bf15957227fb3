/**
 * What we take of the component library's own theme: all but the palettes that nothing of ours is painted in, and the
 * colours made of them. Every one of them would be worked out while the page starts.
 */
import { defaultBaseConfig, mergeConfigs } from "@chakra-ui/react";
import { defaultThemeConfig } from "@chakra-ui/react/theme";

const PALETTES = ["red", "orange", "yellow", "green", "teal", "blue", "cyan", "purple", "pink"];
const MADE_OF_THEM = ["error", "warning", "success", "info"];

// biome-ignore lint/suspicious/noExplicitAny: shades nest as deep as they like
type Colours = Record<string, any>;

const without = (colours: object | undefined, names: string[]): Colours =>
  Object.fromEntries(Object.entries(colours ?? {}).filter(([name]) => !names.includes(name)));

const { theme } = defaultThemeConfig;
const semantic = Object.entries(without(theme?.semanticTokens?.colors, PALETTES)).map(([name, shades]) => [
  name,
  without(shades, MADE_OF_THEM),
]);

export const chakra = mergeConfigs(defaultBaseConfig, {
  ...defaultThemeConfig,
  theme: {
    ...theme,
    tokens: { ...theme?.tokens, colors: without(theme?.tokens?.colors, PALETTES) },
    semanticTokens: { ...theme?.semanticTokens, colors: Object.fromEntries(semantic) },
  },
});
