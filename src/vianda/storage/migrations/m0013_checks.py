"""What is measured in an evening, and what was done about it, stands among what was said."""

STATEMENTS = (
    """ALTER TABLE run_event
        ADD COLUMN IF NOT EXISTS check_key VARCHAR(140) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS temp_c DOUBLE NULL,
        ADD COLUMN IF NOT EXISTS who VARCHAR(40) NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS remark VARCHAR(200) NOT NULL DEFAULT ''
    """,
)
