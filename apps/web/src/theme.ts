import { createTheme, type Theme } from '@mui/material/styles';
import type {} from '@mui/x-data-grid/themeAugmentation';
import type { ThemeName } from './state/view.js';

/** The colours of one theme. Blue is only for data, timber tones only for material, orange only for what needs the person, moss only for proved or done. */
export interface Colours {
  readonly ground: string;
  readonly paper: string;
  readonly ink: string;
  readonly soft: string;
  readonly rule: string;
  readonly data: string;
  readonly needs: string;
  readonly done: string;
  readonly birch: string;
  readonly pine: string;
  readonly dark: string;
  readonly foam: string;
  readonly wool: string;
  readonly grey: string;
  readonly strong: string;
  readonly onStrong: string;
}

export const COLOURS: Readonly<Record<ThemeName, Colours>> = {
  light: {
    ground: '#E9ECEA',
    paper: '#F7F8F5',
    ink: '#1E2629',
    soft: '#4F5B5F',
    rule: '#B9C1BE',
    data: '#1B57A6',
    needs: '#B93F06',
    done: '#3D6B45',
    birch: '#E3CDA4',
    pine: '#D2B07B',
    dark: '#A9794B',
    foam: '#E4E8DC',
    wool: '#EBE3D3',
    grey: '#CBD1CF',
    strong: '#1E2629',
    onStrong: '#F7F8F5',
  },
  dark: {
    ground: '#171C1E',
    paper: '#1F2629',
    ink: '#E6EAE7',
    soft: '#A7B1AE',
    rule: '#475054',
    data: '#83B4F2',
    needs: '#FF9A62',
    done: '#8CC797',
    birch: '#6B5A3A',
    pine: '#5E4A2C',
    dark: '#4F3A25',
    foam: '#3A4238',
    wool: '#46413A',
    grey: '#3B4346',
    strong: '#E6EAE7',
    onStrong: '#171C1E',
  },
  sun: {
    ground: '#FFFFFF',
    paper: '#FFFFFF',
    ink: '#000000',
    soft: '#1A1A1A',
    rule: '#6B6B6B',
    data: '#003A8C',
    needs: '#9C2A00',
    done: '#1D4A26',
    birch: '#F3E3BF',
    pine: '#E7CB98',
    dark: '#C79B6B',
    foam: '#EEF1E8',
    wool: '#F4EEE2',
    grey: '#DDDDDD',
    strong: '#000000',
    onStrong: '#FFFFFF',
  },
};

export const WORDS_FONT = "'Atkinson Hyperlegible Next Variable', 'Atkinson Hyperlegible Next', sans-serif";
export const FIGURES_FONT = "'Barlow Semi Condensed', 'Atkinson Hyperlegible Next Variable', sans-serif";

/** The MUI theme of this product: flat, ink outlines, 2 px corners, large hit areas. */
export function muiTheme(name: ThemeName): Theme {
  const c = COLOURS[name];
  const line = name === 'sun' ? 2 : 1.25;
  return createTheme({
    palette: {
      mode: name === 'dark' ? 'dark' : 'light',
      primary: { main: c.ink, contrastText: c.onStrong },
      secondary: { main: c.data },
      error: { main: c.needs },
      success: { main: c.done },
      background: { default: c.ground, paper: c.paper },
      text: { primary: c.ink, secondary: c.soft },
      divider: c.rule,
    },
    shape: { borderRadius: 2 },
    shadows: Array.from({ length: 25 }, () => 'none') as Theme['shadows'],
    transitions: { create: () => 'none' },
    typography: {
      fontFamily: WORDS_FONT,
      fontSize: 14,
      button: { textTransform: 'none', fontWeight: 650, letterSpacing: 0 },
    },
    components: {
      MuiButtonBase: { defaultProps: { disableRipple: true } },
      MuiButton: {
        defaultProps: { variant: 'outlined', color: 'primary', disableElevation: true },
        styleOverrides: {
          root: {
            minHeight: 44,
            padding: '6px 14px',
            borderWidth: line,
            lineHeight: 1.2,
            '&.Mui-focusVisible': { outline: `3px solid ${c.data}`, outlineOffset: 2 },
          },
          outlined: {
            borderColor: c.ink,
            backgroundColor: c.paper,
            '&:hover': { borderColor: c.ink, backgroundColor: c.ground },
          },
          contained: { backgroundColor: c.strong, color: c.onStrong, '&:hover': { backgroundColor: c.strong } },
          text: { padding: '6px 8px', textDecoration: 'underline', textUnderlineOffset: 4, textDecorationThickness: 1 },
          sizeSmall: { minHeight: 36, padding: '3px 10px' },
        },
      },
      MuiIconButton: {
        styleOverrides: {
          root: {
            minWidth: 44,
            minHeight: 44,
            borderRadius: 2,
            color: c.ink,
            '&.Mui-focusVisible': { outline: `3px solid ${c.data}` },
          },
        },
      },
      MuiTextField: { defaultProps: { variant: 'standard', fullWidth: true } },
      MuiInput: {
        styleOverrides: {
          root: {
            fontFamily: FIGURES_FONT,
            fontVariantNumeric: 'tabular-nums',
            fontSize: 18,
            '&::before': { borderBottom: `${line}px solid ${c.ink} !important` },
            '&::after': { borderBottom: `3px solid ${c.data}` },
          },
          input: { padding: '6px 0 5px', minHeight: 24 },
        },
      },
      MuiInputLabel: {
        defaultProps: { shrink: true },
        styleOverrides: {
          root: { color: c.soft, fontSize: 15, whiteSpace: 'nowrap', '&.Mui-focused': { color: c.data } },
        },
      },
      MuiFormHelperText: {
        styleOverrides: { root: { fontSize: 13, lineHeight: 1.3, '&.Mui-error': { color: c.needs } } },
      },
      MuiSelect: {
        defaultProps: { variant: 'standard' },
        styleOverrides: { select: { fontFamily: WORDS_FONT, fontSize: 15 } },
      },
      MuiDialog: { styleOverrides: { paper: { border: `${line}px solid ${c.ink}`, backgroundImage: 'none' } } },
      MuiMenu: { styleOverrides: { paper: { border: `${line}px solid ${c.ink}`, backgroundImage: 'none' } } },
      MuiMenuItem: { styleOverrides: { root: { minHeight: 44 } } },
      MuiTableCell: {
        styleOverrides: {
          root: { borderColor: c.rule, padding: '7px 10px', fontSize: 15 },
          head: { fontWeight: 650, color: c.soft, backgroundColor: c.paper },
        },
      },
      MuiCheckbox: {
        styleOverrides: {
          root: {
            color: c.ink,
            '&.Mui-checked': { color: c.ink },
            '&.Mui-focusVisible': { outline: `3px solid ${c.data}` },
          },
        },
      },
      MuiFormControlLabel: { styleOverrides: { root: { marginRight: 0 }, label: { fontSize: 15, lineHeight: 1.25 } } },
      MuiTabs: {
        styleOverrides: { root: { minHeight: 44 }, indicator: { backgroundColor: c.ink, height: 3 } },
      },
      MuiTab: {
        styleOverrides: {
          root: {
            minHeight: 44,
            minWidth: 0,
            padding: '6px 11px',
            color: c.soft,
            fontSize: 15,
            fontWeight: 600,
            '&.Mui-selected': { color: c.ink },
            '&.Mui-focusVisible': { outline: `3px solid ${c.data}`, outlineOffset: -3 },
          },
        },
      },
      MuiAlert: {
        styleOverrides: {
          root: {
            borderWidth: 2,
            borderColor: c.needs,
            backgroundColor: c.paper,
            color: c.ink,
            padding: '2px 12px',
            fontSize: 15,
          },
        },
      },
      MuiDataGrid: {
        styleOverrides: {
          root: {
            border: 0,
            backgroundColor: 'transparent',
            fontSize: 15,
            '--DataGrid-rowBorderColor': c.rule,
            '--DataGrid-containerBackground': c.paper,
          },
          columnHeaderTitle: { fontWeight: 650, fontSize: 13, color: c.soft },
          columnSeparator: { display: 'none' },
          columnHeader: { padding: '0 6px 0 0' },
          cell: {
            padding: '5px 6px 5px 0',
            whiteSpace: 'normal',
            lineHeight: 1.3,
            display: 'flex',
            alignItems: 'center',
          },
        },
      },
      MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
      MuiToggleButton: {
        styleOverrides: {
          root: {
            minHeight: 40,
            padding: '4px 12px',
            border: `${line}px solid ${c.ink}`,
            color: c.ink,
            textTransform: 'none',
            fontWeight: 600,
            '&.Mui-selected, &.Mui-selected:hover': { backgroundColor: c.strong, color: c.onStrong },
            '&.Mui-focusVisible': { outline: `3px solid ${c.data}` },
          },
        },
      },
      MuiTooltip: { styleOverrides: { tooltip: { backgroundColor: c.strong, color: c.onStrong, fontSize: 13 } } },
      MuiLinearProgress: {
        styleOverrides: { root: { height: 8, backgroundColor: c.rule }, bar: { backgroundColor: c.data } },
      },
    },
  });
}

/** The same colours for drawings and style sheets. */
export function colourVariables(name: ThemeName): Record<string, string> {
  const variables: Record<string, string> = { '--line': name === 'sun' ? '2px' : '1.25px' };
  for (const [key, value] of Object.entries(COLOURS[name])) variables[`--${key}`] = value;
  return variables;
}
