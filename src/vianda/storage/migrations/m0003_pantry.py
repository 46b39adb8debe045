"""The pantry, and the sugars of a meat."""

STATEMENTS = (
    "ALTER TABLE meat ADD COLUMN IF NOT EXISTS sugars_g_per_100g DOUBLE NOT NULL DEFAULT 0",
    """CREATE TABLE IF NOT EXISTS ingredient (
        `key` VARCHAR(64) PRIMARY KEY,
        position INT NOT NULL,
        document MEDIUMTEXT NOT NULL,
        revision INT NOT NULL
    )""",
)
