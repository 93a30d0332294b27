"""Processes by what people call them: ISO 4063 numbers and AWS A3.0 letters (from memory), common practice."""

import json

import pytest

from welding.cli import main
from welding.codebook.table import load_table
from welding.documents.fields import Process
from welding.errors import AmbiguousError, UnreadableError
from welding.setup.process_names import aws_letters, processes_called, read_process

ONE = {
    "SMAW": "111", "stick": "111", "MMA": "111", "111": "111",
    "MIG": "131", "mag": "135", "hard wire": "135", "metal-cored": "138",
    "FCAW-G": "136", "fcaw-s": "114", "dual shield": "136", "Dual-Shield": "136", "gasless": "114",
    "TIG": "141", "autogenous TIG": "142", "PAW": "15", "plasma": "15", "sub arc": "121", "OAW": "311",
}  # fmt: skip


@pytest.mark.parametrize(("text", "number"), ONE.items())
def test_a_name_is_its_number(text, number):
    assert read_process(text) == number


@pytest.mark.parametrize(
    ("text", "numbers"),
    [("GMAW", ("135", "131", "138")), ("GMAW-S", ("135", "131", "138")), ("FCAW", ("136", "114")),
     ("GTAW", ("141", "142", "143")), ("SAW", ("121", "122", "124", "125"))],
)  # fmt: skip
def test_letters_that_take_in_several_are_asked_about(text, numbers):
    assert processes_called(text) == numbers
    with pytest.raises(AmbiguousError) as caught:
        read_process(text)
    assert caught.value.candidates == numbers


@pytest.mark.parametrize("text", ["", "laser", "1", "13", "GMAWX"])
def test_what_nobody_calls_a_process_is_refused(text):
    with pytest.raises(UnreadableError, match="ISO 4063"):
        read_process(text)


def test_no_name_stands_for_two_rows():
    rows = load_table("welding.setup", "process_names").rows
    called = [name.upper() for row in rows for name in row["called"]]
    assert len(called) == len(set(called))
    assert {row["number"] for row in rows} <= set(Process.__args__)
    assert [aws_letters(n) for n in ("111", "136", "114", "311", "126")] == [
        "SMAW",
        "FCAW-G",
        "FCAW-S",
        "OAW",
        "",
    ]


@pytest.mark.parametrize(
    ("name", "k"), [("GMAW", 0.8), ("stick", 0.8), ("GTAW", 0.6), ("SAW", 1.0), ("fcaw", 0.8), ("135", 0.8)]
)
def test_the_command_line_takes_them(capsys, name, k):
    assert main(["heat", "--volts", "24", "--amps", "200", "--travel", "300", "--process", name]) == 0
    assert json.loads(capsys.readouterr().out)["k"] == k
