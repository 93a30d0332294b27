"""Welds and certificates by chance, for what is asked of very many people."""

from __future__ import annotations

from datetime import date

from welding.documents.welder_weld import WelderWeld
from welding.welders.catalogue import read_designation, welder_edition
from welding.welders.validity import Employment, Held, validity
from welding.welders.who import HeldTest

TODAY = date(2026, 12, 1)
PIPE = "ISO 9606-1 {} T BW FM1 {} s{} D{} {} {}{}"
PLATE = "ISO 9606-1 {} P BW {} {} s{} {} {}{}"
D1_1 = "AWS D1.1 {} {} {} {} {}"
OPERATOR = "ISO 14732 {} 135 {}unit={} {}functional-test"
ALUMINIUM = "ISO 9606-2 {} P BW {} S t{} {} {}"


def iso(chance):
    """A designation of ISO 9606-1, of one process or of two."""
    process, kind = chance.choice([("135", "S"), ("111", "B"), ("141", "S"), ("136", "P"), ("138", "M")])
    backing = chance.choice(["ss nb", "ss mb"])
    dip = chance.choice(["", ", dip transfer"]) if process in ("135", "138") else ""
    if chance.random() < 0.3:
        return read_designation(
            f"ISO 9606-1 141/111 T BW FM1 S/B s12(4/8) D{chance.choice([60.3, 168.3])} "
            f"{chance.choice(['PH', 'PC', 'H-L045'])} ss nb"
        )
    if chance.random() < 0.5:
        size, outside = chance.choice([3, 8, 12, 16]), chance.choice([60.3, 168.3, 610])
        position = chance.choice(["PH", "PC", "H-L045"])
        return read_designation(PIPE.format(process, kind, size, outside, position, backing, dip))
    group, size = chance.choice(["FM1", "FM2", "FM5"]), chance.choice([3, 8, 12, 16])
    position = chance.choice(["PA", "PC", "PF", "PE"])
    return read_designation(PLATE.format(process, group, kind, size, position, backing, dip))


def aws(chance):
    """A short form of D1.1."""
    process, f_number = chance.choice([("SMAW", "F4"), ("SMAW", "F3"), ("FCAW-G", "")])
    position, product = chance.choice(
        [("1G", "plate T1in"), ("2G", "plate T3/8in"), ("3G uphill", "plate T1in"), ("4G", "plate T1in"),
         ("2G", "pipe D168.3mm T14.3mm"), ("5G uphill", "pipe D168.3mm T14.3mm"),
         ("6G uphill", "pipe D24in T1in"), ("6G uphill", "pipe D12in T1in")]
    )  # fmt: skip
    backing = chance.choice(["backing", "open-root"])
    return read_designation(" ".join(D1_1.format(process, f_number, position, product, backing).split()))


def operator(chance):
    """A short form for an operator."""
    mode = chance.choice(["mechanized", "automatic"])
    view = chance.choice(["PA direct-view ", "PC camera-view "]) if mode == "mechanized" else ""
    return read_designation(
        OPERATOR.format(mode, view, chance.choice(["cell-1", "cell-2"]), chance.choice(["", "multi-run "]))
    )


def aluminium(chance):
    """A designation of ISO 9606-2."""
    process, backing = chance.choice(["131", "141"]), chance.choice(["ss nb", "ss mb"])
    group, position = chance.choice(["21", "22", "23"]), chance.choice(["PA", "PF"])
    return read_designation(ALUMINIUM.format(process, group, chance.choice([4, 10, 20]), position, backing))


ANY = {"iso-9606-1:2017": iso, "aws-d1.1-welders:2020": aws, "iso-14732:2013": operator,
       "iso-9606-2:2004": aluminium}  # fmt: skip


def held(weld: WelderWeld, *, welded="2026-08-01", option="") -> HeldTest:
    """A test as it stands today."""
    option = option or ("b" if weld.code == "iso-9606-2:2004" else "a")
    one = Held(
        package=welder_edition(weld.code).package,
        processes=tuple(part.process for part in weld.parts),
        welded_on=date.fromisoformat(welded),
        option=option,
        employment=Employment(same_employer=True),
    )
    return HeldTest(weld=weld, validity=validity(one, TODAY))
