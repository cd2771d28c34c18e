'use client';
/** MUI underneath, with Knot Path's own type, spacing and density; colours come from tokens.css. */
import { createTheme } from '@mui/material/styles';
import type {} from '@mui/x-data-grid/themeAugmentation';

export const FONT = '"Atkinson Hyperlegible Next Variable", sans-serif';
export const MONO = '"Atkinson Hyperlegible Mono Variable", monospace';

const palette = (
  primary: string,
  text: string,
  soft: string,
  paper: string,
  base: string,
  rule: string,
  warn: string,
) => ({
  primary: { main: primary },
  error: { main: warn },
  text: { primary: text, secondary: soft },
  background: { paper, default: base },
  divider: rule,
});

export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'class' },
  colorSchemes: {
    light: { palette: palette('#0d6b84', '#1d2530', '#5b6470', '#ffffff', '#fdfcf8', '#ddd7ca', '#a8420f') },
    dark: { palette: palette('#63bfd6', '#ece8de', '#a3abb5', '#262d36', '#1d232a', '#333b45', '#f0a070') },
  },
  spacing: 4,
  shape: { borderRadius: 4 },
  typography: {
    fontFamily: FONT,
    fontSize: 13,
    h1: { fontSize: 22, fontWeight: 700, letterSpacing: '-0.01em' },
    h2: { fontSize: 16, fontWeight: 700 },
    h3: { fontSize: 13, fontWeight: 700, color: 'var(--ink-soft)' },
    body1: { fontSize: 14 },
    body2: { fontSize: 13 },
    button: { textTransform: 'none', fontWeight: 600, fontSize: 13 },
  },
  components: {
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { size: 'small', disableElevation: true },
      styleOverrides: { root: { minWidth: 0, padding: '3px 10px' } },
    },
    MuiOutlinedInput: {
      styleOverrides: {
        root: { background: 'var(--raised)', fontFamily: MONO, fontSize: 13 },
        input: { padding: '5px 8px', height: '1.35em' },
        notchedOutline: { borderColor: 'var(--rule-strong)' },
      },
    },
    MuiTooltip: { defaultProps: { enterDelay: 400, disableInteractive: true } },
    MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiDataGrid: {
      styleOverrides: {
        root: {
          border: 0,
          fontSize: 13,
          '--DataGrid-containerBackground': 'var(--surface)',
          '--DataGrid-rowBorderColor': 'var(--rule)',
          background: 'var(--surface)',
          '& .MuiDataGrid-columnHeaderTitle': { fontWeight: 600, color: 'var(--ink-soft)' },
          '& .MuiDataGrid-columnSeparator': { opacity: 0 },
          '& .MuiDataGrid-cell:focus, & .MuiDataGrid-columnHeader:focus': { outlineOffset: -2 },
        },
      },
    },
  },
});
