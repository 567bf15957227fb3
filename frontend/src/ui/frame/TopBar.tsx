import { Box, Button, Flex } from "@chakra-ui/react";
import { createContext, memo, type ReactNode, useContext, useState } from "react";
import { Link, NavLink } from "react-router";
import { troubleText } from "../../api/client";
import { useConnection } from "../../api/connection";
import { useSignOut } from "../../api/session";
import { useOtherVersion } from "../../api/version";
import { useAllCommands } from "../commands/commands";
import { dropKept } from "../kept";
import { lostWords } from "../unsent";
import type { Preferences } from "./preferences";

interface Bar {
  preferences: Preferences;
  change: (part: Partial<Preferences>) => void;
  /** Empty of somebody who is not signed in. */
  username: string;
}

const Context = createContext<Bar | null>(null);
export const TopBarContext = Context.Provider;

export function useBar(): Bar {
  const bar = useContext(Context);
  if (bar === null) throw new Error("useBar is wanted inside TopBarContext");
  return bar;
}

/** Whether what is typed is saved. */
export interface Saved {
  kind: string;
  words: string;
  /** Whether loading the page again is what helps. */
  reload?: boolean;
}

interface Props {
  workshop?: string;
  saved?: Saved;
  /** Said under it: who else is here. */
  others?: ReactNode;
  children?: ReactNode;
}

/** Name and way home on the left, what belongs to the screen beside it, switches and account on the right. */
export function TopBar({ workshop, saved, others, children }: Props) {
  const told = useTold(saved);
  return (
    <Flex
      as="header"
      bg="panel"
      borderBottomWidth="1px"
      borderColor="line"
      px="4"
      py="1"
      minH="46px"
      align="center"
      gap={{ base: "2", md: "3" }}
      wrap="wrap"
      _print={{ "& button, & a": { display: "none" } }}
    >
      <Home workshop={workshop} />
      {children}
      {(told || others) && (
        <Said>
          {told && <SavedWords {...told} />}
          {others}
        </Said>
      )}
      <Switches />
    </Flex>
  );
}

/** Beside whether it is saved: that the server does not answer, or has a newer page. What keeps from saving stands alone. */
function useTold(saved: Saved | undefined): Saved | undefined {
  const silent = useConnection() === "no answer";
  const newer = useOtherVersion();
  if (saved?.kind === "waiting" || (!silent && !newer)) return saved;
  const words = silent ? "The server does not answer; it is asked again" : "The server has a newer page:";
  return {
    kind: silent ? "no answer" : "newer",
    words: saved ? `${saved.words}. ${words}` : words,
    reload: !silent,
  };
}

/** Its place has one size, whatever it says: it changes by itself, and no button may move under the hand. */
function Said({ children }: { children: ReactNode }) {
  return (
    <Box
      fontSize="xs"
      lineHeight="1.25"
      color="ink.second"
      flex={{ base: "1 0 100%", md: "1 1 11rem" }}
      order={{ base: 1, md: 0 }}
      minW="0"
      maxH={{ md: "2.5em" }}
      overflow="hidden"
    >
      {children}
    </Box>
  );
}

function SavedWords({ kind, words, reload }: Saved) {
  return (
    <Box role="status" data-save={kind} title={words}>
      {words}
      {reload && (
        <>
          {" "}
          <button type="button" className="link" onClick={() => window.location.reload()}>
            load it
          </button>
        </>
      )}
    </Box>
  );
}

/** What is the same while a design changes is not painted anew with it. */
const Home = memo(function Home({ workshop }: { workshop?: string }) {
  const { username } = useBar();
  const name = (
    <Box asChild fontWeight="700" fontSize="lg">
      <Link to="/">Ydrometer</Link>
    </Box>
  );
  if (!username) return name;
  return (
    <>
      {name}
      <Box asChild color="ink.second" _hover={{ color: "ink" }}>
        <NavLink to="/">Bench</NavLink>
      </Box>
      <Box asChild color="ink.second" _hover={{ color: "ink" }}>
        <NavLink to={workshop ? `/parts?workshop=${workshop}` : "/parts"}>Parts</NavLink>
      </Box>
      <Box asChild color="ink.second" _hover={{ color: "ink" }}>
        <NavLink to="/practice">Practice</NavLink>
      </Box>
    </>
  );
});

const Switches = memo(function Switches() {
  const { preferences, change, username } = useBar();
  const { find } = useAllCommands();
  const turns = preferences.reducing ? "motor per wheel" : "wheel per motor";
  return (
    <Flex ml="auto" gap="2" align="center" wrap="wrap">
      {username && (
        <Button size="xs" onClick={find} title="Ctrl K" aria-label="Find anything">
          Find
        </Button>
      )}
      <Button
        size="xs"
        onClick={() => change({ system: preferences.system === "metric" ? "inch" : "metric" })}
        aria-label={`Units: ${preferences.system}. Switch to ${preferences.system === "metric" ? "inch" : "metric"}`}
      >
        {preferences.system}
      </Button>
      <Button
        size="xs"
        onClick={() => change({ reducing: !preferences.reducing })}
        hideBelow="md"
        aria-label={`Ratios are turns of ${turns}. Switch`}
      >
        {turns}
      </Button>
      <Button
        size="xs"
        onClick={() => change({ dark: !preferences.dark })}
        hideBelow={username ? "md" : undefined}
        aria-label={preferences.dark ? "Light colours" : "Dark colours"}
      >
        {preferences.dark ? "light" : "dark"}
      </Button>
      {username ? (
        <>
          <Box asChild color="ink.second" fontSize="sm" hideBelow="md">
            <Link to="/account">{username}</Link>
          </Box>
          <SignOut />
        </>
      ) : (
        <Box asChild color="ink.second" fontSize="sm">
          <Link to="/">Sign in</Link>
        </Box>
      )}
    </Flex>
  );
});

/** What is kept on the device goes with the account: where the server does not have it, that is said first. */
function SignOut() {
  const { username } = useBar();
  const signOut = useSignOut(() => dropKept(username));
  const [lost, setLost] = useState("");
  const leave = () => {
    const words = lost ? "" : lostWords(username);
    if (words) setLost(words);
    else signOut.mutate();
  };
  return (
    <>
      {lost && (
        <Box role="alert" fontSize="sm" color="brick">
          Not saved, and lost by it: {lost}.
          <Button size="xs" ml="2" onClick={() => setLost("")}>
            Stay
          </Button>
        </Box>
      )}
      {signOut.error && (
        <Box role="alert" fontSize="sm" color="brick">
          You are still signed in. {troubleText(signOut.error)}
        </Box>
      )}
      <Button size="xs" variant="ghost" onClick={leave}>
        {lost ? "Sign out all the same" : "Sign out"}
      </Button>
    </>
  );
}
