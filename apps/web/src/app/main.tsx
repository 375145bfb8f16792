import '@fontsource/atkinson-hyperlegible-next/latin-400.css';
import '@fontsource/atkinson-hyperlegible-next/latin-600.css';
import '@fontsource/atkinson-hyperlegible-next/latin-700.css';
import '@fontsource/atkinson-hyperlegible-mono/latin-400.css';
import '@fontsource/atkinson-hyperlegible-mono/latin-700.css';
import '@mantine/core/styles.css';
import './tokens.css';
import './page.css';
import '../ui/parts.css';
import { MantineProvider } from '@mantine/core';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { ServicesProvider, startServices } from '../api/services.tsx';
import { BuildStation } from '../stations/build/BuildStation.tsx';
import { GearStation } from '../stations/gear/GearStation.tsx';
import { OverviewStation } from '../stations/overview/OverviewStation.tsx';
import { PowerStation } from '../stations/power/PowerStation.tsx';
import { ProgramStation } from '../stations/program/ProgramStation.tsx';
import { ProofStation } from '../stations/proof/ProofStation.tsx';
import { RoutingStation } from '../stations/routing/RoutingStation.tsx';
import { SetStation } from '../stations/set/SetStation.tsx';
import { SoundsStation } from '../stations/sounds/SoundsStation.tsx';
import { Home } from './Home.tsx';
import { RigPage } from './RigPage.tsx';
import { theme } from './theme.ts';

const services = startServices();
const queries = new QueryClient({ defaultOptions: { queries: { retry: 1, staleTime: 5_000 } } });

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <MantineProvider theme={theme} defaultColorScheme="auto">
      <QueryClientProvider client={queries}>
        <ServicesProvider value={services}>
          <BrowserRouter>
            <Routes>
              <Route path="/" element={<Home />} />
              <Route path="/rig/:id" element={<RigPage />}>
                <Route index element={<Navigate to="overview" replace />} />
                <Route path="overview" element={<OverviewStation />} />
                <Route path="gear" element={<GearStation />} />
                <Route path="routing" element={<RoutingStation />} />
                <Route path="power" element={<PowerStation />} />
                <Route path="build" element={<BuildStation />} />
                <Route path="sounds" element={<SoundsStation />} />
                <Route path="set" element={<SetStation />} />
                <Route path="program" element={<ProgramStation />} />
                <Route path="proof" element={<ProofStation />} />
              </Route>
              <Route path="*" element={<Navigate to="/" replace />} />
            </Routes>
          </BrowserRouter>
        </ServicesProvider>
      </QueryClientProvider>
    </MantineProvider>
  </StrictMode>,
);

// The built application opens while the server is away.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  void navigator.serviceWorker.register('/service-worker.js').catch(() => undefined);
