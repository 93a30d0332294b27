"""The variables of a person's qualification: what they are called, and in what they are measured."""

from __future__ import annotations

from dataclasses import dataclass

from welding.language import tr, tr_noop, usage


@dataclass(frozen=True, slots=True)
class WelderVariable:
    """Words for one variable: its heading (and that of AWS), and the kind of quantity of its numbers."""

    source: str
    quantity: str = ""
    aws: str = ""

    @property
    def title(self) -> str:
        """Heading, in the language of the context."""
        in_aws = self.aws and usage() == "aws"
        return tr(self.aws) if in_aws else tr(self.source)


VARIABLES: dict[str, WelderVariable] = {
    "welder_process": WelderVariable(tr_noop("Process")),
    "transfer_mode": WelderVariable(tr_noop("Transfer mode")),
    "mechanization": WelderVariable(tr_noop("Degree of mechanization")),
    "product": WelderVariable(tr_noop("Product")),
    "outside_diameter_mm": WelderVariable(tr_noop("Outside diameter"), "diameter"),
    "branch_deg": WelderVariable(tr_noop("Branch angle"), "angle"),
    "weld_type": WelderVariable(tr_noop("Weld type")),
    "filler_group": WelderVariable(tr_noop("Filler group"), aws=tr_noop("F-number")),
    "filler_type": WelderVariable(tr_noop("Filler type")),
    "metal_group": WelderVariable(tr_noop("Base metal group")),
    "deposited_mm": WelderVariable(tr_noop("Deposited thickness"), "thickness"),
    "material_mm": WelderVariable(tr_noop("Material thickness"), "thickness"),
    "fillet_material_mm": WelderVariable(tr_noop("Material thickness, fillet welds"), "thickness"),
    "welder_position": WelderVariable(tr_noop("Welding position")),
    "progression": WelderVariable(tr_noop("Vertical progression")),
    "backing": WelderVariable(tr_noop("Weld details"), aws=tr_noop("Backing")),
    "layers": WelderVariable(tr_noop("Layers of fillet welds")),
    "welding_direction": WelderVariable(tr_noop("Direction of oxy-acetylene welding")),
    "dihedral_deg": WelderVariable(tr_noop("Dihedral angle"), "angle"),
    "operation_mode": WelderVariable(tr_noop("Kind of machine welding")),
    "unit": WelderVariable(tr_noop("Type of unit")),
    "view": WelderVariable(tr_noop("View of the arc")),
    "arc_length_control": WelderVariable(tr_noop("Arc-length control")),
    "joint_tracking": WelderVariable(tr_noop("Joint tracking")),
    "arc_sensor": WelderVariable(tr_noop("Arc sensor")),
    "joint_sensor": WelderVariable(tr_noop("Joint sensor")),
    "runs": WelderVariable(tr_noop("Runs on each side")),
    "functional_test": WelderVariable(tr_noop("Functional test")),
    "person": WelderVariable(tr_noop("Person")),
    "electrodes": WelderVariable(tr_noop("Number of electrodes")),
}
"""By the name that items and findings have."""

_WORDS = {
    "cjp": tr_noop("CJP groove welds"),
    "pjp": tr_noop("PJP groove welds"),
    "tyk": tr_noop("CJP T-, Y- and K-connections"),
    "plug": tr_noop("plug and slot welds"),
    "fillet": tr_noop("fillet welds"),
    "welder": tr_noop("welder"),
    "operator": tr_noop("welding operator"),
    "tack-welder": tr_noop("tack welder"),
    "nm": tr_noop("without filler"),
    "dip": tr_noop("dip transfer"),
    "globular": tr_noop("globular transfer"),
    "spray": tr_noop("spray transfer"),
    "pulsed": tr_noop("pulsed transfer"),
    "mechanized": tr_noop("mechanized"),
    "automatic": tr_noop("automatic"),
    "direct": tr_noop("direct view"),
    "remote": tr_noop("view by camera"),
    "single-run": tr_noop("single run"),
    "multi-run": tr_noop("several runs"),
    "with": tr_noop("with"),
    "without": tr_noop("without"),
}


def value_words(value: str) -> str:
    """A value of a set in words; symbols stay as they are."""
    return tr(_WORDS[value]) if value in _WORDS else value
