"""Of each meat its connective tissue, curing, trim loss and pack; and the lots."""

STATEMENTS = (
    """ALTER TABLE meat
        ADD COLUMN IF NOT EXISTS connective VARCHAR(16) NOT NULL DEFAULT 'medium',
        ADD COLUMN IF NOT EXISTS cured TINYINT(1) NOT NULL DEFAULT 0,
        ADD COLUMN IF NOT EXISTS trim_loss_frac DOUBLE NOT NULL DEFAULT 0,
        ADD COLUMN IF NOT EXISTS pack_mass_g DOUBLE NOT NULL DEFAULT 0,
        ADD COLUMN IF NOT EXISTS retired TINYINT(1) NOT NULL DEFAULT 0""",
    """CREATE TABLE IF NOT EXISTS lot (
        `key` VARCHAR(64) PRIMARY KEY,
        meat VARCHAR(64) NOT NULL,
        document MEDIUMTEXT NOT NULL,
        revision INT NOT NULL,
        KEY by_meat (meat),
        FOREIGN KEY (meat) REFERENCES meat (`key`) ON DELETE RESTRICT
    )""",
)
