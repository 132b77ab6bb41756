import { definePreset } from '@primeuix/themes';
import Aura from '@primeuix/themes/aura';

/** Paper and ink for the component library: the same names as in `styles.scss`. */
export const paperAndInk = definePreset(Aura, {
  primitive: { borderRadius: { md: '10px', lg: '12px', xl: '14px' } },
  semantic: {
    primary: {
      50: '#eef4e8',
      100: '#dfe8d2',
      200: '#c3d6ae',
      300: '#a8d186',
      400: '#84ad62',
      500: '#3f6428',
      600: '#385a23',
      700: '#2f4c1d',
      800: '#263d18',
      900: '#1d2f12',
      950: '#14210c',
    },
    focusRing: { width: '3px', style: 'solid', color: 'var(--focus)', offset: '2px' },
    colorScheme: {
      light: {
        primary: {
          color: '#3f6428',
          contrastColor: '#ffffff',
          hoverColor: '#385a23',
          activeColor: '#2f4c1d',
        },
        surface: {
          0: '#fffdf8',
          50: '#f8f4ea',
          100: '#efe8db',
          200: '#d9cfbc',
          300: '#c3b79f',
          400: '#8d8673',
          500: '#4b5675',
          600: '#3d4663',
          700: '#1d2b4f',
          800: '#182440',
          900: '#121b31',
          950: '#0c1222',
        },
      },
      dark: {
        primary: {
          color: '#a8d186',
          contrastColor: '#14190f',
          hoverColor: '#bcdca1',
          activeColor: '#c9e4b3',
        },
        surface: {
          0: '#ffffff',
          50: '#ece7da',
          100: '#d6d4cd',
          200: '#b4b9c9',
          300: '#979eb2',
          400: '#8f97ad',
          500: '#5a6480',
          600: '#4a5470',
          700: '#3d4760',
          800: '#293248',
          900: '#1f2636',
          950: '#171c29',
        },
      },
    },
  },
  components: {
    tree: {
      root: { background: 'transparent', padding: '0', indent: '18px', gap: '0' },
      node: {
        padding: '0 8px 0 0',
        hoverBackground: 'var(--panel)',
        selectedBackground: 'var(--raised)',
        selectedColor: 'var(--ink)',
        color: 'var(--ink)',
        hoverColor: 'var(--ink)',
      },
    },
  },
});
