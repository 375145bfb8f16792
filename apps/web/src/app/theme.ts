import { createTheme } from '@mantine/core';

/** Square corners, hairlines, no shadows; the colours themselves are in tokens.css, light and dark. */
export const theme = createTheme({
  fontFamily: "'Atkinson Hyperlegible Next', sans-serif",
  fontFamilyMonospace: "'Atkinson Hyperlegible Mono', monospace",
  defaultRadius: 0,
  primaryColor: 'run',
  autoContrast: true,
  primaryShade: { light: 7, dark: 3 },
  colors: {
    run: ['#e6f0f3', '#cfe0e6', '#a6c7d2', '#7dadbd', '#5f9bae', '#4a8499', '#2f6579', '#1f4e5f', '#173f4e', '#0f303c'],
  },
  components: {
    Modal: { defaultProps: { transitionProps: { duration: 0 } } },
    Popover: { defaultProps: { transitionProps: { duration: 0 } } },
    Menu: { defaultProps: { transitionProps: { duration: 0 } } },
    Select: { defaultProps: { size: 'xs' } },
    TextInput: { defaultProps: { size: 'xs' } },
    NumberInput: { defaultProps: { size: 'xs' } },
    Autocomplete: { defaultProps: { size: 'xs' } },
    TagsInput: { defaultProps: { size: 'xs' } },
    Checkbox: { defaultProps: { size: 'sm' } },
    Button: { defaultProps: { size: 'xs' } },
  },
});
