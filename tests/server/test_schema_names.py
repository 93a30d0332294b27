"""Two shapes of one name would take each other's place in the API's description, and so in the screen's types."""

import re
from collections import Counter
from pathlib import Path

SERVER = Path(__file__).resolve().parents[2] / "server"


def test_no_two_shapes_of_the_api_share_a_name():
    names = Counter(
        name
        for path in SERVER.rglob("*.py")
        for name in re.findall(r"^class (\w+)\(Schema\b", path.read_text(), re.MULTILINE)
    )
    assert len(names) > 100
    assert [name for name, times in names.items() if times > 1] == []
