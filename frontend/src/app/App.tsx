import { Box } from "@chakra-ui/react";
import { lazy, Suspense, useMemo } from "react";
import { Navigate, Route, Routes } from "react-router";
import { AccountPage } from "../account/AccountPage";
import { SignIn } from "../account/SignIn";
import { Bench } from "../bench/Bench";
import { makeUnits, UnitsProvider } from "../fields/units";
import { VehicleScreen } from "../stations/VehicleScreen";
import { Members } from "../workshop/Members";
import { Notice } from "./Notice";
import { usePreferences } from "./preferences";
import { useSession, useVocabulary } from "./session";
import { TopBar, TopBarContext } from "./TopBar";

const PartsScreen = lazy(() => import("../parts/PartsScreen"));

export function App() {
  const session = useSession();
  const vocabulary = useVocabulary();
  const [preferences, change] = usePreferences();
  const units = useMemo(
    () => vocabulary.data && makeUnits(vocabulary.data, preferences.system, preferences.reducing),
    [vocabulary.data, preferences.system, preferences.reducing],
  );
  if (session.isError || vocabulary.isError) {
    return <Notice title="The server does not answer">Check that it runs, then load the page again.</Notice>;
  }
  if (!session.data || !units) return <Box role="status" aria-label="Loading" />;
  if (session.data.username === null) return <SignIn demo={session.data.demo} />;
  const bar = { preferences, change, username: session.data.username };
  return (
    <UnitsProvider value={units}>
      <TopBarContext value={bar}>
        <Routes>
          <Route path="/" element={<Bench />} />
          <Route
            path="/parts"
            element={
              <Suspense fallback={<TopBar />}>
                <PartsScreen />
              </Suspense>
            }
          />
          <Route path="/account" element={<AccountPage />} />
          <Route path="/workshops/:workshop" element={<Members />} />
          <Route path="/vehicles/:vehicle" element={<Navigate to="line" replace />} />
          <Route path="/vehicles/:vehicle/:station" element={<VehicleScreen />} />
          <Route
            path="*"
            element={<Notice title="There is nothing at this address">The bench is at the start.</Notice>}
          />
        </Routes>
      </TopBarContext>
    </UnitsProvider>
  );
}
