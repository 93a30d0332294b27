"""The invented people of the demo, and the password they share. Imports nothing: ./bead reads it too."""

PASSWORD = "footbridge-27"  # noqa: S105 - printed on the demo's sign-in page
PEOPLE = [
    ("demo-engineer", "Imra", "Vance", "engineer"),
    ("demo-inspector", "Tobiah", "Lind", "inspector"),
    ("demo-welder", "Rell", "Okafor", "welder"),
    ("demo-viewer", "Sunniva", "Marsh", "viewer"),
    ("demo-admin", "Odile", "Brandt", "administrator"),
]
