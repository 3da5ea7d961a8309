import { useState } from 'react';
import { Navigator } from 'expo-router';
import { TabRouter } from 'expo-router/react-navigation';
import { useFonts } from 'expo-font';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { SafeAreaProvider } from 'react-native-safe-area-context';
import { BarProvider } from '../client/bar-context';
import { ThemeProvider } from '../ui/use-theme';
import { BarMark, HandsStrip } from '../places/hands-strip';
import { PageTitle } from '../places/page-title';
import { AppFrame } from '../places/frame';
import { KeptPlaces } from '../places/kept-places';

export default function Layout() {
  // Text shows in a fallback face until these have come; nothing waits for them.
  useFonts({
    B612: require('@fontsource/b612/files/b612-latin-400-normal.woff2'),
    'B612-Bold': require('@fontsource/b612/files/b612-latin-700-normal.woff2'),
  });
  const [queries] = useState(
    () =>
      // A bar's server may be on this network though the device has no way out of it: everything is asked for all the same.
      new QueryClient({
        defaultOptions: {
          queries: { retry: 1, networkMode: 'always' },
          mutations: { networkMode: 'always' },
        },
      }),
  );
  return (
    <SafeAreaProvider>
      <QueryClientProvider client={queries}>
        {/* What lies over the page is drawn by the theme's provider, and needs the bar too. */}
        <BarProvider>
          <ThemeProvider>
            <Navigator router={TabRouter} routerOptions={{ backBehavior: 'fullHistory' }}>
              <AppFrame strip={<HandsStrip />} mark={<BarMark />} title={<PageTitle />}>
                <KeptPlaces />
              </AppFrame>
            </Navigator>
          </ThemeProvider>
        </BarProvider>
      </QueryClientProvider>
    </SafeAreaProvider>
  );
}
