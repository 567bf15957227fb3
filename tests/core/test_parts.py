"""The bin: every kind of part as a table, in bulk and as files, there and back, and what is refused."""

from __future__ import annotations

import copy
import dataclasses
import io
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st
from openpyxl import load_workbook

from ydrometer.base import units
from ydrometer.base.errors import DocumentError
from ydrometer.parts import bulk, files, names, sheet
from ydrometer.parts.cells import cell_text, cell_value, put, value_at
from ydrometer.parts.columns import TABLE
from ydrometer.parts.kinds import KINDS
from ydrometer.parts.read import read_part

MOTOR: dict[str, Any] = {
    "kind": "motor",
    "id": "m1",
    "name": "outrunner, 420 rpm/V",
    "owned": 2,
    "price": 31.5,
    "mass": "0.31 kg",
    "source": {"kind": "motor", "constants": {"kv": "420 rpm/V", "resistance": "38 mohm", "no_load_current": "1.4 A"}},
    "controller": {"current_limit": "60 A"},
}
ENGINE: dict[str, Any] = {
    "kind": "engine",
    "id": "e1",
    "source": {"kind": "engine", "torque_curve": [["1800 rpm", "6.1 N*m"], ["3600 rpm", "5.2 N*m"]]},
    "clutch": {"engagement_speed": "2200 rpm"},
}
BATTERY: dict[str, Any] = {
    "kind": "battery",
    "id": "b1",
    "supply": {"kind": "battery", "cells": {"series": 6, "cell_voltage": "4.2 V"}},
}
GEAR: dict[str, Any] = {"kind": "gear", "id": "g14", "teeth": 14, "module": "1 mm", "bore": "1/4 in", "owned": 3}
BOX: dict[str, Any] = {"kind": "gearbox", "id": "x", "reductions": [4, 3.5], "efficiency": 0.9}
SEVERAL: dict[str, Any] = {"kind": "gearbox", "id": "s", "ratios": [3.2, 1.9, 1.2]}
SAMPLES = [MOTOR, ENGINE, BATTERY, GEAR, BOX, SEVERAL]


def in_si(part: dict[str, Any]) -> dict[str, Any]:
    """A part's values by path, quantities as numbers."""
    found = {}
    for column in TABLE[part["kind"]].columns:
        value = value_at(part, column.path)
        if value is not None and column.type == "quantity":
            value = float(f"{units.parse(value, column.dimension):.9g}")
        found[column.path] = value
    return found


class Columns(TestCase):
    def test_every_kind_has_a_column_for_every_value_that_its_type_has(self) -> None:
        self.assertEqual(list(TABLE), list(KINDS))
        for kind, declared in KINDS.items():
            shown = {column.path.split(".")[0] for column in TABLE[kind].columns}
            self.assertEqual(shown, {f.name for f in dataclasses.fields(declared)} - {"id"}, kind)

    def test_heads_are_told_apart_and_mean_one_kind_of_quantity_everywhere(self) -> None:
        seen: dict[str, str] = {}
        for kind in TABLE.values():
            heads = [column.head for column in kind.columns]
            self.assertEqual(len(heads), len(set(heads)), kind.kind)
            for column in kind.columns:
                self.assertEqual(seen.setdefault(column.head, column.dimension), column.dimension, column.head)

    def test_cells_read_as_they_were_written(self) -> None:
        for part in SAMPLES:
            document: dict[str, Any] = {
                "kind": part["kind"],
                "id": part["id"],
                **copy.deepcopy(TABLE[part["kind"]].fixed),
            }
            for column in TABLE[part["kind"]].columns:
                put(document, column.path, cell_value(column, cell_text(column, part)))
            self.assertEqual(document, part)
            read_part(document)

    def test_a_bare_number_is_in_the_unit_of_the_column(self) -> None:
        bore = next(column for column in TABLE["gear"].columns if column.path == "bore")
        self.assertEqual(cell_value(bore, "5"), "5 mm")
        self.assertEqual(cell_value(bore, "3 1/4", "in"), "3 1/4 in")
        self.assertEqual(cell_value(bore, "0.2 in"), "0.2 in")
        self.assertIsNone(cell_value(bore, "  "))

    def test_taking_a_value_away_leaves_nothing_empty(self) -> None:
        part = copy.deepcopy(MOTOR)
        put(part, "controller.current_limit", None)
        self.assertNotIn("controller", part)


class Reading(TestCase):
    def refused(self, part: dict[str, Any]) -> list[str]:
        with self.assertRaises(DocumentError) as caught:
            read_part(part)
        return [fault.path for fault in caught.exception.faults]

    def test_a_fault_is_told_where_it_is(self) -> None:
        self.assertEqual(self.refused({**GEAR, "teeth": 3}), ["teeth"])
        self.assertEqual(self.refused({**GEAR, "diametral_pitch": "24 1/in"}), ["module"])
        self.assertEqual(self.refused({**SEVERAL, "ratios": [1.2, 3.2]}), ["ratios"])
        self.assertEqual(self.refused({**GEAR, "kind": "bolt"}), ["kind"])
        self.assertEqual(self.refused({**MOTOR, "source": {"kind": "motor"}}), ["source.constants"])
        self.assertEqual(self.refused([]), ["$"])  # type: ignore[arg-type]


class Names(TestCase):
    def test_parts_are_called_by_what_tells_them_apart(self) -> None:
        self.assertEqual(names.called(GEAR), "gear 14, module 1 mm")
        self.assertEqual(names.called(MOTOR), "outrunner, 420 rpm/V")
        self.assertEqual(names.called(BOX), "gearbox 4 × 3.5")
        self.assertEqual(names.called({"kind": "gear", "teeth": 20, "diametral_pitch": "32 1/in"}), "gear 20, DP 32")

    def test_a_new_id_is_nobody_elses(self) -> None:
        first = names.Ids(()).new(GEAR)
        self.assertEqual(first, "gear-14-module-1-mm")
        self.assertEqual(names.Ids({first}).new(GEAR), f"{first}-2")
        self.assertEqual(names.Ids(()).new({"kind": "gear", "name": "—"}), "part")


class Bulk(TestCase):
    def test_a_line_makes_a_part_for_each_number(self) -> None:
        parts, faults = bulk.read_lines("gear", "module 1, width 10: 12 13 14x2\n\nDP 32: 20, 24")
        self.assertEqual(faults, [])
        self.assertEqual([(p["teeth"], p["owned"]) for p in parts], [(12, 1), (13, 1), (14, 2), (20, 1), (24, 1)])
        self.assertEqual((parts[2]["module"], parts[2]["width"]), ("1 mm", "10 mm"))
        self.assertEqual(parts[4]["diametral_pitch"], "32 1/in")

    def test_lists_of_sizes_take_units_and_fractions(self) -> None:
        parts, faults = bulk.read_lines("wheel", "3 1/4 4x4 in\n100 125 mm\nwidth 1 in: 90")
        self.assertEqual(faults, [])
        self.assertEqual([p["diameter"] for p in parts], ["3 1/4 in", "4 in", "100 mm", "125 mm", "90 mm"])

    def test_every_faulty_line_is_told(self) -> None:
        _, faults = bulk.read_lines("gear", "module 1: 12 fish\nhole 5: 12\nmodule 1: 3\n12 13\nmodule 1:")
        self.assertEqual([fault.line for fault in faults], [1, 2, 3, 4, 5])
        self.assertIn("fish", faults[0].problem)

    @given(st.sampled_from(sorted(bulk.LISTED)), st.text(max_size=80))
    def test_no_text_breaks_it(self, kind: str, text: str) -> None:
        parts, faults = bulk.read_lines(kind, text)
        if not faults:
            for part in parts:
                read_part({"id": "x", **part})


class Files(TestCase):
    def test_there_and_back_in_both_formats(self) -> None:
        document = {
            "a.csv": files.csv_of([("", sheet.rows_of(SAMPLES))]),
            "a.xlsx": files.xlsx_of(sheet.sheets_of(SAMPLES)),
        }
        for name, data in document.items():
            parts, faults = sheet.parts_of(files.tables_in(name, data))
            self.assertEqual(faults, [], name)
            self.assertEqual({p["id"]: in_si(p) for p in parts}, {p["id"]: in_si(p) for p in SAMPLES}, name)

    def test_every_faulty_cell_is_told_with_row_column_and_remedy(self) -> None:
        data = b"kind;teeth;module;colour\ngear;14;1,5;\ngear;3;1 kg;\nbolt;3\nwheel;12\n"
        _, faults = sheet.parts_of(files.tables_in("x.csv", data), "gear")
        lines = [(fault.row, fault.column) for fault in faults]
        self.assertEqual(
            lines, [(1, "colour"), (3, "teeth"), (3, "module"), (4, "kind"), (5, "teeth"), (5, "rolling diameter")]
        )
        self.assertTrue(all(fault.problem and fault.remedy for fault in faults))

    def test_ids_are_kept_made_or_refused_where_they_stand_twice(self) -> None:
        rows = [["id", "teeth", "module [in]"], ["a", "14", "0.04"], ["", "15", "0.04"], ["a", "16", "0.04"]]
        parts, faults = sheet.parts_in(rows, "gear", {"gear-15-module-0.04-in"})
        self.assertEqual([p["id"] for p in parts], ["a", "gear-15-module-0.04-in-2", "a"])
        self.assertEqual([(f.row, f.column) for f in faults], [(4, "id")])

    def test_a_text_never_becomes_a_formula(self) -> None:
        for text in ("=1+1", "+1", "-1", "@x", "\tx"):
            part = {**GEAR, "note": text}
            self.assertIn(f"'{text}", files.csv_of([("", sheet.rows_of([part]))]).decode("utf-8-sig"))
            book = load_workbook(io.BytesIO(files.xlsx_of(sheet.sheets_of([part]))))
            held = [cell for row in book.active.iter_rows() for cell in row if text in str(cell.value)]
            self.assertEqual([cell.data_type for cell in held], ["s"])
        parts, _ = sheet.parts_in(sheet.rows_of([{**GEAR, "note": "=1+1"}]))
        self.assertEqual(parts[0]["note"], "=1+1")

    def test_what_is_no_table_is_refused_plainly(self) -> None:
        for data in (b"\xff\xfe\x00x", b"PK\x03\x04 not really", b"x" * (files.LARGEST + 1)):
            with self.assertRaises(DocumentError):
                files.tables_in("odd", data)
        self.assertEqual(sheet.parts_in([])[1][0].row, 1)
        rows = [["teeth", "teeth", "module [kg]"]]
        self.assertEqual(len(sheet.parts_in(rows, "gear")[1]), 2)

    @given(st.lists(st.lists(st.text(max_size=12), max_size=5), max_size=5))
    def test_no_table_breaks_it(self, rows: list[list[str]]) -> None:
        sheet.parts_in(rows, "gear")
