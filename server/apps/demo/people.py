"""The invented people of the demo, and the password they share. Imports nothing: ./bead reads it too."""

PASSWORD = "footbridge-27"  # noqa: S105 - printed on the demo's sign-in page
PEOPLE = [
    ("demo-engineer", "Imra", "Vance", "engineer"),
    ("demo-inspector", "Tobiah", "Lind", "inspector"),
    ("demo-welder", "Rell", "Okafor", "welder"),
    ("demo-viewer", "Sunniva", "Marsh", "viewer"),
    ("demo-examiner", "Bertil", "Quill", "examiner"),
    ("demo-admin", "Odile", "Brandt", "administrator"),
]

# The stand-in recorder of the demo and its token; a token of a real recorder is random and told once.
RECORDER = ("Booth 2 stand-in", "tarn-hollow-booth-2")
