import 'vuetify/styles/core';
import 'vuetify/lib/components/VOverlay/VOverlay.css';
import 'vuetify/lib/components/VDialog/VDialog.css';
import { createVuetify, type ThemeDefinition } from 'vuetify';
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg';
import { DARK, LIGHT } from './tokens.ts';

const theme = (palette: Record<keyof typeof LIGHT, string>, dark: boolean): ThemeDefinition => ({
  dark,
  colors: {
    background: palette.linen,
    surface: palette.paper,
    'on-background': palette.ink,
    'on-surface': palette.ink,
    primary: palette.indigo,
    'on-primary': dark ? palette.linen : palette.paper,
    error: palette.madder,
    warning: palette.weld,
    success: palette.woad,
    info: palette.indigo,
  },
  variables: { 'border-color': palette.strongSeam, 'high-emphasis-opacity': 1, 'medium-emphasis-opacity': 0.86 },
});

export const vuetify = createVuetify({
  theme: { defaultTheme: 'linen', themes: { linen: theme(LIGHT, false), indigo: theme(DARK, true) } },
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  defaults: {
    VBtn: { rounded: 'sm', variant: 'flat', elevation: 0, size: 'small' },
    VTextField: { density: 'compact', variant: 'outlined', hideDetails: 'auto' },
    VSelect: { density: 'compact', variant: 'outlined', hideDetails: 'auto' },
    VCombobox: { density: 'compact', variant: 'outlined', hideDetails: 'auto' },
    VMenu: { offset: 4 },
  },
});
