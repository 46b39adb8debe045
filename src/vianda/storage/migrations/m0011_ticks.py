"""Ticks of every list in one table, each with how much it was; those of shopping lists move there."""

STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS tick (
        id INT AUTO_INCREMENT PRIMARY KEY,
        kitchen_id INT NOT NULL,
        sheet VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        line VARCHAR(200) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        amount DOUBLE NULL,
        UNIQUE KEY one_each (kitchen_id, sheet, line)
    )""",
    # Empty where an earlier run of this migration was cut off after the table went.
    """CREATE TABLE IF NOT EXISTS shopping_tick (
        kitchen_id INT NOT NULL,
        from_day VARCHAR(10) NOT NULL,
        to_day VARCHAR(10) NOT NULL,
        kind VARCHAR(10) NOT NULL,
        item_key VARCHAR(64) NOT NULL
    )""",
    """INSERT IGNORE INTO tick (kitchen_id, sheet, line, amount)
        SELECT kitchen_id, CONCAT('shopping/', from_day, '/', to_day), CONCAT(kind, '/', item_key), NULL
        FROM shopping_tick""",
    "DROP TABLE shopping_tick",
)
