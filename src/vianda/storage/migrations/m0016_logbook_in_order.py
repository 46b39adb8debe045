"""The logbook's lines lie in the order in which they are listed: a search runs along them and sorts nothing."""

STATEMENTS = (
    """ALTER TABLE cook_line
        DROP PRIMARY KEY,
        ADD PRIMARY KEY (kitchen_id, started_at, cook_id),
        ADD UNIQUE INDEX IF NOT EXISTS by_cook (cook_id),
        DROP INDEX IF EXISTS by_start
    """,
)
