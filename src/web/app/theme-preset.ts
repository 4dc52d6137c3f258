import { definePreset } from '@primeuix/themes';
import Nora from '@primeuix/themes/nora';

/** The same values in both schemes: the CSS variables themselves change with the theme. */
const scheme = {
  primary: {
    color: 'var(--azurite)',
    contrastColor: 'var(--on-azurite)',
    hoverColor: 'var(--azurite-text)',
    activeColor: 'var(--azurite-text)',
  },
  highlight: {
    background: 'var(--azurite-soft)',
    focusBackground: 'var(--azurite-soft)',
    color: 'var(--ink)',
    focusColor: 'var(--ink)',
  },
  mask: { background: 'rgb(10 14 16 / 45%)', color: 'var(--ink)' },
  formField: {
    background: 'var(--panel)',
    disabledBackground: 'var(--ground)',
    filledBackground: 'var(--panel)',
    filledHoverBackground: 'var(--panel)',
    filledFocusBackground: 'var(--panel)',
    borderColor: 'var(--quiet)',
    hoverBorderColor: 'var(--ink)',
    focusBorderColor: 'var(--azurite)',
    invalidBorderColor: 'var(--cinnabar)',
    color: 'var(--ink)',
    disabledColor: 'var(--quiet)',
    placeholderColor: 'var(--quiet)',
    invalidPlaceholderColor: 'var(--cinnabar-text)',
    iconColor: 'var(--quiet)',
    shadow: 'none',
  },
  text: { color: 'var(--ink)', hoverColor: 'var(--ink)', mutedColor: 'var(--quiet)', hoverMutedColor: 'var(--ink)' },
  content: {
    background: 'var(--panel)',
    hoverBackground: 'var(--hover)',
    borderColor: 'var(--rule)',
    color: 'var(--ink)',
    hoverColor: 'var(--ink)',
  },
  overlay: {
    select: { background: 'var(--panel)', borderColor: 'var(--rule)', color: 'var(--ink)' },
    popover: { background: 'var(--panel)', borderColor: 'var(--rule)', color: 'var(--ink)' },
    modal: { background: 'var(--panel)', borderColor: 'var(--rule)', color: 'var(--ink)' },
  },
  list: {
    option: {
      focusBackground: 'var(--hover)',
      selectedBackground: 'var(--azurite-soft)',
      selectedFocusBackground: 'var(--azurite-soft)',
      color: 'var(--ink)',
      focusColor: 'var(--ink)',
      selectedColor: 'var(--ink)',
      selectedFocusColor: 'var(--ink)',
    },
  },
};

/** Sediment's own PrimeNG preset: the tokens of styles.css, hairlines, 2 px corners, dense rows. */
export const sedimentPreset = definePreset(Nora, {
  primitive: { borderRadius: { none: '0', xs: '2px', sm: '2px', md: '2px', lg: '2px', xl: '2px' } },
  semantic: {
    transitionDuration: '0.12s',
    focusRing: { width: '2px', style: 'solid', color: 'var(--azurite)', offset: '2px', shadow: 'none' },
    formField: { paddingX: '8px', paddingY: '5px', borderRadius: '2px' },
    overlay: {
      select: { shadow: 'var(--float-shadow)' },
      popover: { shadow: 'var(--float-shadow)' },
      modal: { shadow: 'var(--float-shadow)', padding: '16px' },
    },
    list: { padding: '4px 0', option: { padding: '6px 12px' } },
    colorScheme: { light: scheme, dark: scheme },
  },
  components: {
    button: {
      root: { paddingX: '12px', paddingY: '5px', gap: '6px', label: { fontWeight: '560' } },
      colorScheme: {
        light: buttonColours(),
        dark: buttonColours(),
      },
    },
    datatable: {
      headerCell: {
        padding: '6px 12px',
        background: 'var(--ground)',
        hoverBackground: 'var(--hover)',
        selectedBackground: 'var(--ground)',
        selectedColor: 'var(--ink)',
        borderColor: 'var(--rule)',
        color: 'var(--quiet)',
        hoverColor: 'var(--ink)',
      },
      columnTitle: { fontWeight: '560' },
      bodyCell: { padding: '0 12px', borderColor: 'var(--rule)' },
      row: { background: 'var(--panel)', hoverBackground: 'var(--hover)', color: 'var(--ink)' },
      sortIcon: { color: 'var(--quiet)', hoverColor: 'var(--ink)', size: '10px' },
    },
    tooltip: { root: { background: 'var(--ink)', color: 'var(--panel)', padding: '6px 10px', maxWidth: '320px' } },
    progressbar: {
      root: { height: '4px', background: 'var(--rule)', borderRadius: '2px' },
      value: { background: 'var(--azurite)' },
    },
    slider: {
      track: { background: 'var(--rule)', size: '4px' },
      range: { background: 'var(--azurite)' },
      handle: {
        width: '14px',
        height: '14px',
        background: 'var(--azurite)',
        hoverBackground: 'var(--azurite-text)',
        content: { width: '6px', height: '6px', background: 'var(--panel)' },
      },
    },
    dialog: {
      title: { fontSize: '16px', fontWeight: '620' },
      header: { padding: '16px' },
      content: { padding: '0 16px 16px' },
    },
  },
});

function buttonColours() {
  const outlined = {
    hoverBackground: 'var(--hover)',
    activeBackground: 'var(--hover)',
    borderColor: 'var(--quiet)',
    color: 'var(--ink)',
  };
  const text = { hoverBackground: 'var(--hover)', activeBackground: 'var(--hover)', color: 'var(--ink)' };
  return {
    root: {
      primary: {
        background: 'var(--azurite)',
        hoverBackground: 'var(--azurite-text)',
        activeBackground: 'var(--azurite-text)',
        borderColor: 'var(--azurite)',
        hoverBorderColor: 'var(--azurite-text)',
        activeBorderColor: 'var(--azurite-text)',
        color: 'var(--on-azurite)',
        hoverColor: 'var(--on-azurite)',
        activeColor: 'var(--on-azurite)',
      },
      secondary: {
        background: 'var(--panel)',
        hoverBackground: 'var(--hover)',
        activeBackground: 'var(--hover)',
        borderColor: 'var(--quiet)',
        hoverBorderColor: 'var(--ink)',
        activeBorderColor: 'var(--ink)',
        color: 'var(--ink)',
        hoverColor: 'var(--ink)',
        activeColor: 'var(--ink)',
      },
    },
    outlined: { primary: outlined, secondary: outlined },
    text: { primary: text, secondary: text },
  };
}
