"""What is kept of a thing, and what of a shopping list is in the basket."""

STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS stocked (
        id INT AUTO_INCREMENT PRIMARY KEY,
        kitchen_id INT NOT NULL,
        kind VARCHAR(10) NOT NULL,
        item_key VARCHAR(64) NOT NULL,
        document TEXT NOT NULL,
        UNIQUE KEY one_each (kitchen_id, kind, item_key)
    )""",
    """CREATE TABLE IF NOT EXISTS shopping_tick (
        id INT AUTO_INCREMENT PRIMARY KEY,
        kitchen_id INT NOT NULL,
        from_day VARCHAR(10) NOT NULL,
        to_day VARCHAR(10) NOT NULL,
        kind VARCHAR(10) NOT NULL,
        item_key VARCHAR(64) NOT NULL,
        UNIQUE KEY one_each (kitchen_id, from_day, to_day, kind, item_key)
    )""",
)
