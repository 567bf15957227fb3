import { Box } from "@chakra-ui/react";
import { lazy, type ReactNode, Suspense, useMemo } from "react";
import { Navigate, Route, Routes } from "react-router";
import { useConnection } from "../api/connection";
import { useSession, useVocabulary } from "../api/session";
import { AccountPage } from "../screens/account/AccountPage";
import { SignIn } from "../screens/account/SignIn";
import { SignInAgain } from "../screens/account/SignInAgain";
import { Bench } from "../screens/bench/Bench";
import { Join } from "../screens/workshop/Join";
import { Members } from "../screens/workshop/Members";
import { makeUnits, UnitsProvider } from "../ui/fields/units";
import { Notice } from "../ui/frame/Notice";
import { usePreferences } from "../ui/frame/preferences";
import { TopBar, TopBarContext } from "../ui/frame/TopBar";
import { Commands } from "./Commands";

/** Within which the bench has been painted. */
const BENCH_FIRST_MS = 1500;

const vehicleScreen = () => import("../screens/vehicle/VehicleScreen");
// Where it is what was asked for, it is loaded at once; from the bench once the bench is there.
if (window.location.pathname.startsWith("/vehicles/")) void vehicleScreen();
else window.setTimeout(() => void vehicleScreen(), BENCH_FIRST_MS);

const VehicleScreen = lazy(() => vehicleScreen().then((m) => ({ default: m.VehicleScreen })));
const PartsScreen = lazy(() => import("../screens/parts/PartsScreen"));
const Begin = lazy(() => import("../screens/begin/Begin"));
const PracticeScreen = lazy(() => import("../screens/practice/PracticeScreen"));
const SharedScreen = lazy(() => import("../screens/shared/SharedScreen"));
const NewPassword = lazy(() => import("../screens/account/NewPassword"));
const ClassScreen = lazy(() => import("../screens/class/ClassScreen"));
const SetsScreen = lazy(() => import("../screens/class/SetsScreen"));
const SetScreen = lazy(() => import("../screens/class/SetScreen"));
const WallScreen = lazy(() => import("../screens/class/WallScreen"));
const RacesScreen = lazy(() => import("../screens/race/RacesScreen"));
const RaceScreen = lazy(() => import("../screens/race/RaceScreen"));
const OrdersScreen = lazy(() => import("../screens/orders/OrdersScreen"));

/** A screen that comes when it is first gone to; the bar is there at once. */
const later = (screen: ReactNode) => <Suspense fallback={<TopBar />}>{screen}</Suspense>;

/** Screens for those who are not signed in as well. */
const OPEN_TO_ALL = [
  <Route key="practice" path="/practice" element={later(<PracticeScreen />)} />,
  <Route key="class" path="/class" element={later(<ClassScreen />)} />,
  <Route key="reset" path="/reset" element={later(<NewPassword />)} />,
  <Route key="shared" path="/shared" element={later(<SharedScreen />)} />,
];

export function App() {
  const session = useSession();
  const vocabulary = useVocabulary();
  const connection = useConnection();
  const [preferences, change] = usePreferences();
  const units = useMemo(
    () => vocabulary.data && makeUnits(vocabulary.data, preferences.system, preferences.reducing),
    [vocabulary.data, preferences.system, preferences.reducing],
  );
  if (session.isError || vocabulary.isError) {
    return <Notice title="The server does not answer">Check that it runs, then load the page again.</Notice>;
  }
  if (!session.data || !units) return <Box role="status" aria-label="Loading" />;
  if (session.data.username === null)
    return (
      <UnitsProvider value={units}>
        <TopBarContext value={{ preferences, change, username: "" }}>
          <Routes>
            {OPEN_TO_ALL}
            <Route path="*" element={<SignIn demo={session.data.demo} mail={session.data.mail} />} />
          </Routes>
        </TopBarContext>
      </UnitsProvider>
    );
  const { username, visitor } = session.data;
  const bar = { preferences, change, username };
  return (
    <UnitsProvider value={units}>
      <TopBarContext value={bar}>
        <Commands>
          <Routes>
            <Route path="/" element={<Bench />} />
            {OPEN_TO_ALL}
            <Route path="/parts" element={later(<PartsScreen />)} />
            <Route path="/workshops/:workshop/new" element={later(<Begin />)} />
            <Route path="/workshops/:workshop/orders" element={later(<OrdersScreen />)} />
            <Route path="/workshops/:workshop/sets" element={later(<SetsScreen />)} />
            <Route path="/workshops/:workshop/races" element={later(<RacesScreen />)} />
            <Route path="/races/:race" element={later(<RaceScreen />)} />
            <Route path="/sets/:set" element={later(<SetScreen />)} />
            <Route path="/sets/:set/wall/:place" element={later(<WallScreen />)} />
            <Route path="/join" element={<Join />} />
            <Route path="/account" element={<AccountPage />} />
            <Route path="/workshops/:workshop" element={<Members />} />
            <Route path="/vehicles/:vehicle" element={<Navigate to="line" replace />} />
            <Route path="/vehicles/:vehicle/:station" element={later(<VehicleScreen />)} />
            <Route
              path="*"
              element={<Notice title="There is nothing at this address">The bench is at the start.</Notice>}
            />
          </Routes>
        </Commands>
        {connection === "signed out" && <SignInAgain username={username} demo={visitor} />}
      </TopBarContext>
    </UnitsProvider>
  );
}
