import { Box, Button, Flex } from "@chakra-ui/react";
import { createContext, memo, type ReactNode, useContext, useState } from "react";
import { Link, NavLink } from "react-router";
import { useSignOut } from "../../api/session";
import { useAllCommands } from "../commands/commands";
import { draftCount, dropAll } from "../drafts";
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

/** Name and way home on the left, what belongs to the screen beside it, switches and account on the right. */
export function TopBar({ workshop, children }: { workshop?: string; children?: ReactNode }) {
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
      gap="3"
      wrap="wrap"
      _print={{ "& button, & a": { display: "none" } }}
    >
      <Home workshop={workshop} />
      {children}
      <Switches />
    </Flex>
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
        aria-label={`Ratios are read as ${preferences.reducing ? "motor turns per wheel turn" : "wheel turns per motor turn"}. Switch`}
      >
        {preferences.reducing ? "motor turns per wheel turn" : "wheel turns per motor turn"}
      </Button>
      <Button
        size="xs"
        onClick={() => change({ dark: !preferences.dark })}
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

/** Drafts go with the account: where something is not saved, that is said first. */
function SignOut() {
  const { username } = useBar();
  const signOut = useSignOut(() => dropAll(username));
  const [asked, setAsked] = useState(false);
  const leave = () => {
    if (draftCount(username) > 0 && !asked) setAsked(true);
    else signOut.mutate();
  };
  return (
    <>
      {asked && (
        <Box role="alert" fontSize="sm" color="brick">
          What is not saved yet will go.
          <Button size="xs" ml="2" onClick={() => setAsked(false)}>
            Stay
          </Button>
        </Box>
      )}
      <Button size="xs" variant="ghost" onClick={leave}>
        {asked ? "Sign out all the same" : "Sign out"}
      </Button>
    </>
  );
}
