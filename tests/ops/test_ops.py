"""What the commands do when something stands in the way, and that backups come back."""

from __future__ import annotations

import shutil
import socket
import tempfile
import unittest
from pathlib import Path
from unittest import mock

from ops import places, safekeeping, serving, setup
from ops.checks import TEST
from ops.cluster import Cluster, port_taken
from ops.say import GiveUp, run
from ops.serving import Service

KEEP = Service("keep", "ydrometer_keep", demo=True)


class Elsewhere(Cluster):
    """A server whose files are in a folder of the test's."""

    folder: Path

    @property
    def home(self) -> Path:
        return self.folder


class InTheWay(unittest.TestCase):
    def setUp(self) -> None:
        self.folder = Path(tempfile.mkdtemp())
        self.addCleanup(shutil.rmtree, self.folder)

    def test_a_database_of_another_version(self) -> None:
        (self.folder / "data").mkdir()
        (self.folder / "data" / "PG_VERSION").write_text("9.6\n")
        (self.folder / "made").touch()
        Elsewhere.folder = self.folder
        with self.assertRaisesRegex(GiveUp, r"was made by PostgreSQL 9\.6, here is .*Nothing was changed"):
            Elsewhere("old").start()
        self.assertEqual((self.folder / "data" / "PG_VERSION").read_text(), "9.6\n")

    def test_a_taken_port(self) -> None:
        with socket.socket() as other:
            other.bind(("127.0.0.1", 0))
            other.listen()
            port = other.getsockname()[1]
            self.assertTrue(port_taken(port))
            with self.assertRaisesRegex(GiveUp, f"port {port} is taken .* --port N"):
                serving.serve(KEEP, port)
        self.assertFalse(port_taken(port))

    def test_no_room_left(self) -> None:
        usage = mock.Mock(free=5_000_000)
        with mock.patch("shutil.disk_usage", return_value=usage), self.assertRaisesRegex(GiveUp, "5 MB free"):
            places.need_space(self.folder)

    def test_a_user_without_rights_gets_the_one_line_to_run(self) -> None:
        nothing = mock.patch("ops.setup.shutil.which", return_value=None)
        with nothing, mock.patch("ops.setup.IS_ROOT", False), self.assertRaises(GiveUp) as caught:
            setup.debian(testing=True)
        self.assertIn("sudo apt-get install -y --no-install-recommends ", str(caught.exception))
        self.assertIn("chromium chromium-driver", str(caught.exception))

    def test_a_command_that_fails_is_quoted(self) -> None:
        with self.assertRaisesRegex(GiveUp, "ls failed: .*nowhere"):
            run(["ls", "/nowhere"])
        with self.assertRaisesRegex(GiveUp, "no-such-tool is not installed"):
            run(["no-such-tool"])

    def test_backups_are_not_written_over_or_made_up(self) -> None:
        file = self.folder / "kept.backup"
        with self.assertRaisesRegex(GiveUp, "there is no file"):
            safekeeping.restore(file)
        file.write_text("precious")
        with self.assertRaisesRegex(GiveUp, "exists already"):
            safekeeping.backup(file)
        with self.assertRaisesRegex(GiveUp, "no folder"):
            safekeeping.backup(self.folder / "not" / "there")

    def test_fingerprints_see_every_change(self) -> None:
        file = places.ROOT / ".run" / "fingerprint-test"
        self.addCleanup(file.unlink)
        file.write_text("a")
        before = places.fingerprint(file)
        file.write_text("b")
        self.assertNotEqual(places.fingerprint(file), before)


class Safekeeping(unittest.TestCase):
    """On the test server, with a database of its own."""

    def setUp(self) -> None:
        TEST.sql(f'drop database if exists "{KEEP.database}"')
        serving.prepare(KEEP, TEST)
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.file = Path(folder.name) / "demo.backup"

    def names(self) -> str:
        return TEST.client("psql", "-d", KEEP.database, "-Atqc", "select name from designs_vehicle order by name")

    def change(self) -> None:
        TEST.client("psql", "-d", KEEP.database, "-qc", "update designs_vehicle set name = name || ' changed'")

    def test_what_was_backed_up_comes_back_and_what_was_there_is_kept(self) -> None:
        before = self.names()
        safekeeping.dump(TEST, KEEP.database, self.file)
        self.assertEqual(self.file.stat().st_mode & 0o077, 0, "readable by its owner alone")
        self.change()
        kept = safekeeping.bring_back(TEST, KEEP, self.file)
        self.assertEqual(self.names(), before)
        self.assertIn("changed", TEST.client("psql", "-d", str(kept), "-Atqc", "select name from designs_vehicle"))
        TEST.sql(f'drop database "{kept}"')

    def test_a_file_that_is_no_backup_changes_nothing(self) -> None:
        before = self.names()
        self.file.write_text("not a backup")
        with self.assertRaisesRegex(GiveUp, "your data is as it was"):
            safekeeping.bring_back(TEST, KEEP, self.file)
        self.assertEqual(self.names(), before)
        self.assertNotIn(safekeeping.INCOMING, TEST.databases())

    def test_a_database_from_a_newer_version_is_left_alone(self) -> None:
        later = "insert into django_migrations (app, name, applied) values ('designs', '9999_later', now())"
        TEST.client("psql", "-d", KEEP.database, "-qc", later)
        with self.assertRaisesRegex(GiveUp, r"newer Ydrometer \(designs\.9999_later\)"):
            serving.prepare(KEEP, TEST)
