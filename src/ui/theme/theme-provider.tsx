'use client';

import { createTheme, MantineProvider } from '@mantine/core';
import { Notifications } from '@mantine/notifications';
import type { ReactNode } from 'react';

const theme = createTheme({
  fontFamily: "'Hanken Grotesk Variable', sans-serif",
  headings: { fontFamily: "'Bricolage Grotesque Variable', sans-serif", fontWeight: '600' },
  primaryColor: 'rose',
  primaryShade: 7,
  defaultRadius: 6,
  fontSizes: { xs: '11px', sm: '12.5px', md: '14px', lg: '16px', xl: '20px' },
  colors: {
    dark: [
      '#d6d6d6',
      '#b4b4b4',
      '#989898',
      '#6c6c6c',
      '#3a3a3a',
      '#2c2c2c',
      '#1e1e1e',
      '#161616',
      '#121212',
      '#0c0c0c',
    ],
    rose: [
      '#fdeef1',
      '#f7d3da',
      '#efacb9',
      '#ea8a9d',
      '#e66f87',
      '#e35f7a',
      '#e0526f',
      '#c23f5b',
      '#a5344d',
      '#87283e',
    ],
  },
  components: {
    Modal: { defaultProps: { closeButtonProps: { 'aria-label': 'Close' } } },
    Tooltip: { defaultProps: { openDelay: 500, color: 'dark.5', c: 'dark.0', fz: 'xs' } },
  },
});

/** The look of the application: dark neutral chrome, one accent for what is chosen, amber for what is lit. */
export function ThemeProvider({ children }: { children: ReactNode }) {
  return (
    <MantineProvider theme={theme} forceColorScheme="dark">
      <Notifications position="bottom-right" />
      {children}
    </MantineProvider>
  );
}
