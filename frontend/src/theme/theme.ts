import { createTheme, type MantineColorsTuple } from "@mantine/core";

const slate: MantineColorsTuple = [
  "#eef1ec",
  "#dde3de",
  "#c6cfc8",
  "#a9b4ad",
  "#8b968f",
  "#68756e",
  "#4b5952",
  "#33403b",
  "#222e29",
  "#17211d",
];

const rust: MantineColorsTuple = [
  "#fbeee9",
  "#f2d6cc",
  "#e6b3a2",
  "#d98f77",
  "#cc6d50",
  "#bb5337",
  "#a63c22",
  "#8e331d",
  "#752a18",
  "#5c2112",
];

/** The variable letters come once somebody is signed in; those of paper stand in for them. */
const LETTERS = "'Archivo Variable', 'Archivo Paper', sans-serif";

/** Chalk and slate, one working accent, square-ish corners, hairlines. */
export const theme = createTheme({
  fontFamily: LETTERS,
  fontFamilyMonospace: LETTERS,
  headings: { fontFamily: LETTERS, fontWeight: "650" },
  colors: { slate, rust },
  primaryColor: "slate",
  primaryShade: { light: 9, dark: 1 },
  black: "#17211d",
  white: "#f8faf6",
  defaultRadius: "xs",
  radius: { xs: "2px", sm: "2px", md: "2px", lg: "2px", xl: "2px" },
  shadows: { xs: "none", sm: "none", md: "none", lg: "none", xl: "none" },
  autoContrast: true,
  cursorType: "pointer",
  respectReducedMotion: true,
  components: {
    Button: { defaultProps: { size: "sm" }, styles: { root: { fontWeight: 600, flexShrink: 0 } } },
    Input: {
      styles: {
        input: {
          backgroundColor: "var(--paper)",
          borderColor: "var(--line)",
          color: "var(--ink)",
          fontVariantNumeric: "tabular-nums",
        },
      },
    },
    InputWrapper: {
      styles: {
        label: { display: "block", color: "var(--ink-2)", fontWeight: 500, fontSize: "12.5px", fontStretch: "88%" },
        description: { color: "var(--ink-2)" },
        error: { color: "var(--rust)", fontSize: "12.5px", fontWeight: 600 },
      },
    },
    SegmentedControl: {
      defaultProps: { size: "sm", withItemsBorders: false },
      styles: {
        root: { backgroundColor: "transparent", border: "1px solid var(--line)", padding: 0, fontStretch: "88%" },
        label: { color: "var(--ink-2)", padding: "7.5px 12px" },
        innerLabel: { color: "inherit" },
      },
    },
    Modal: {
      // the header of a dialog is no landmark of the page
      defaultProps: { closeButtonProps: { "aria-label": "Close" }, attributes: { header: { role: "presentation" } } },
      styles: {
        content: { backgroundColor: "var(--raised)", border: "1px solid var(--ink)" },
        header: { backgroundColor: "var(--raised)" },
      },
    },
    Menu: { styles: { dropdown: { backgroundColor: "var(--raised)", borderColor: "var(--ink)" } } },
    Table: { styles: { td: { borderColor: "var(--line)" }, th: { borderColor: "var(--line)" } } },
  },
});
