import '@mantine/core/styles.css';
import '@mantine/notifications/styles.css';
import '@mantine/spotlight/styles.css';
import '@fontsource-variable/bricolage-grotesque';
import '@fontsource-variable/hanken-grotesk';
import '@/ui/theme/global.css';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { ThemeProvider } from '@/ui/theme/theme-provider';

export const metadata: Metadata = {
  title: 'Sundew',
  description: 'Turns a daytime photo into a night picture and switches on the lights in it',
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  await headers(); // A page is made for each request, since its scripts carry that request's nonce.
  return (
    <html lang="en" data-mantine-color-scheme="dark" suppressHydrationWarning>
      <body>
        <ThemeProvider>{children}</ThemeProvider>
      </body>
    </html>
  );
}
