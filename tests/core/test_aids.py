import unittest
from typing import Any

from ydrometer.base.errors import DocumentError
from ydrometer.questions.aids import AIDS, find


class Aids(unittest.TestCase):
    def test_each_by_hand(self) -> None:
        for name, given, value, typed in (
            ("rolled_distance", {"x": "1178 mm", "n": "3"}, 0.12499, "124.99 mm"),
            ("weighed_axles", {"m_f": "49.5 kg", "m_r": "68.5 kg", "L": "1050 mm"}, 0.440466, "440.47 mm"),
            ("towed_pull", {"F": "4.2 N", "m": "14.2 kg"}, 0.030161, "0.030161"),
            ("slid_pull", {"F": "12.7 kg", "m": "14.2 kg"}, 0.894366, "0.89437"),
            ("counted_turns", {"n_m": 42, "n_w": 10}, 4.2, "4.2"),
            ("counted_turns", {"n_m": 42, "n_w": 10, "k": True}, 8.4, "8.4"),
            ("rim_and_depth", {"d_o": "160 mm", "y": "2.5 mm"}, 0.155, "155 mm"),
            ("swapped_wheel", {"v_1": "7 m/s", "z_1": 14, "z_2": 16, "y_1": 56, "y_2": 56}, 8.0, "8 m/s"),
            ("scale_speed", {"v_m": "4.1 m/s", "N": 10}, 41.0, "41 m/s"),
        ):
            with self.subTest(name):
                sheet = find(name, given)
                self.assertAlmostEqual(sheet.value, value, places=5)
                self.assertEqual(sheet.typed, typed)
                self.assertEqual(sheet.steps[-1].value, sheet.value)

    def test_the_note_says_what_was_measured(self) -> None:
        self.assertEqual(find("rolled_distance", {"x": "1178 mm", "n": "3"}).note, "rolled 3 turns, 1178 mm")
        self.assertIn("one wheel held", find("counted_turns", {"n_m": 4, "n_w": 1, "k": True}).note)

    def faults(self, name: str, given: dict[str, Any]) -> list[str]:
        with self.assertRaises(DocumentError) as caught:
            find(name, given)
        return [fault.path for fault in caught.exception.faults]

    def test_every_wrong_value_is_named(self) -> None:
        self.assertEqual(self.faults("rolled_distance", {"x": "3 kg", "n": "0"}), ["x", "n"])
        self.assertEqual(self.faults("rolled_distance", {}), ["x", "n"])
        self.assertEqual(self.faults("rim_and_depth", {"d_o": "10 mm", "y": "8 mm"}), ["y"])
        self.assertEqual(self.faults("magic", {}), ["aid"])

    def test_their_examples_work(self) -> None:
        for aid in AIDS:
            self.assertGreater(find(aid.name, {a.symbol: a.example for a in aid.inputs if not a.flag}).value, 0.0)
