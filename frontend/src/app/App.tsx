import { Box } from "@chakra-ui/react";
import { type ReactNode, Suspense, useEffect, useMemo } from "react";
import { Navigate, Route, Routes } from "react-router";
import { api, troubleText } from "../api/client";
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
import { fetchParts, part } from "../ui/frame/part";
import { usePreferences } from "../ui/frame/preferences";
import { TopBar, TopBarContext } from "../ui/frame/TopBar";
import { Unavailable } from "../ui/frame/Unavailable";
import { Commands } from "./Commands";

/** Within which the first screen has been painted. */
const FIRST_MS = 1500;
const ASK_AGAIN_MS = 4000;

const vehicleScreen = () => import("../screens/vehicle/VehicleScreen").then((m) => m.VehicleScreen);
// Where it is what was asked for, it is loaded at once.
if (window.location.pathname.startsWith("/vehicles/")) void vehicleScreen();

const VehicleScreen = part(vehicleScreen);
const PartsScreen = part(() => import("../screens/parts/PartsScreen").then((m) => m.default));
const Begin = part(() => import("../screens/begin/Begin").then((m) => m.default));
const PracticeScreen = part(() => import("../screens/practice/PracticeScreen").then((m) => m.default));
const SharedScreen = part(() => import("../screens/shared/SharedScreen").then((m) => m.default));
const NewPassword = part(() => import("../screens/account/NewPassword").then((m) => m.default));
const ClassScreen = part(() => import("../screens/class/ClassScreen").then((m) => m.default));
const SetsScreen = part(() => import("../screens/class/SetsScreen").then((m) => m.default));
const SetScreen = part(() => import("../screens/class/SetScreen").then((m) => m.default));
const WallScreen = part(() => import("../screens/class/WallScreen").then((m) => m.default));
const RacesScreen = part(() => import("../screens/race/RacesScreen").then((m) => m.default));
const RaceScreen = part(() => import("../screens/race/RaceScreen").then((m) => m.default));
const OrdersScreen = part(() => import("../screens/orders/OrdersScreen").then((m) => m.default));

/** A screen that comes when it is first gone to; the bar is there at once. */
const later = (screen: ReactNode) => <Suspense fallback={<TopBar />}>{screen}</Suspense>;

/** Screens for those who are not signed in as well. */
const OPEN_TO_ALL = [
  <Route key="practice" path="/practice" element={later(<PracticeScreen />)} />,
  <Route key="class" path="/class" element={later(<ClassScreen />)} />,
  <Route key="reset" path="/reset" element={later(<NewPassword />)} />,
  <Route key="shared" path="/shared" element={later(<SharedScreen />)} />,
];

/** While there is no answer, ask for one: nothing else may be on its way. */
function useAskedAgain(silent: boolean): void {
  useEffect(() => {
    if (!silent) return;
    const timer = window.setInterval(
      () => void api.GET("/api/session/").catch(() => undefined),
      ASK_AGAIN_MS,
    );
    return () => window.clearInterval(timer);
  }, [silent]);
}

/** Whoever works here has all parts of the page once the first screen stands; a stranger with a link needs none. */
function useAllParts(wanted: boolean): void {
  useEffect(() => {
    if (!wanted) return;
    const timer = window.setTimeout(() => void fetchParts(), FIRST_MS);
    return () => window.clearTimeout(timer);
  }, [wanted]);
}

export function App() {
  const session = useSession();
  const vocabulary = useVocabulary();
  const connection = useConnection();
  useAskedAgain(connection === "no answer");
  useAllParts(Boolean(session.data?.username));
  const [preferences, change] = usePreferences();
  const units = useMemo(
    () => vocabulary.data && makeUnits(vocabulary.data, preferences.system, preferences.reducing),
    [vocabulary.data, preferences.system, preferences.reducing],
  );
  if (!session.data || !units) {
    const trouble = session.failureReason ?? vocabulary.failureReason;
    return trouble ? (
      <Unavailable error={trouble} title="The page cannot be shown">
        {troubleText(trouble)}
      </Unavailable>
    ) : (
      <Box role="status" aria-label="Loading" />
    );
  }
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
