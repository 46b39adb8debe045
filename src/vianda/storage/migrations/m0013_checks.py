"""What is measured in an evening, and what was done about it, stands among what was said.

A run knows its service's name and hour: its record stays true when the service is changed or deleted later.
"""

STATEMENTS = (
    """ALTER TABLE run_event
        ADD COLUMN IF NOT EXISTS check_key VARCHAR(140) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS temp_c DOUBLE NULL,
        ADD COLUMN IF NOT EXISTS who VARCHAR(40) NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS remark VARCHAR(200) NOT NULL DEFAULT ''
    """,
    """ALTER TABLE run
        ADD COLUMN IF NOT EXISTS name VARCHAR(200) NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS ready_min INT NULL
    """,
)
