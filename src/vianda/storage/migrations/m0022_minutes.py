"""Minutes of tasks are learnt from services under way; how far each run was taken down is kept with it."""

STATEMENTS = (
    """ALTER TABLE observation ADD COLUMN IF NOT EXISTS
        task VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT ''""",
    "ALTER TABLE run ADD COLUMN IF NOT EXISTS learnt INT NOT NULL DEFAULT 0",
)
