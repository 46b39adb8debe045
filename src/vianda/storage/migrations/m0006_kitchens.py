"""Several kitchens beside one another: every record belongs to one, and a demo never mixes with real ones."""

_KEYED = ("meat", "lot", "ingredient")
_NUMBERED = ("formula", "cook", "weighing")

STATEMENTS = (
    "ALTER TABLE kitchen ADD COLUMN IF NOT EXISTS demo TINYINT(1) NOT NULL DEFAULT 0,"
    " ADD COLUMN IF NOT EXISTS chosen INT NOT NULL DEFAULT 0",
    *(f"ALTER TABLE `{t}` ADD COLUMN IF NOT EXISTS kitchen_id INT NOT NULL DEFAULT 1" for t in (*_KEYED, *_NUMBERED)),
    # What there is belongs to the one kitchen there is.
    *(f"UPDATE `{t}` SET kitchen_id = COALESCE((SELECT MIN(id) FROM kitchen), 1)" for t in (*_KEYED, *_NUMBERED)),
    # A lot names a meat of its own kitchen.
    "ALTER TABLE lot DROP FOREIGN KEY IF EXISTS lot_ibfk_1",
    *(f"ALTER TABLE `{t}` DROP PRIMARY KEY, ADD PRIMARY KEY (kitchen_id, `key`)" for t in _KEYED),
    "ALTER TABLE lot ADD FOREIGN KEY (kitchen_id, meat) REFERENCES meat (kitchen_id, `key`)",
    *(f"ALTER TABLE `{t}` ADD KEY IF NOT EXISTS by_kitchen (kitchen_id)" for t in _NUMBERED),
)
