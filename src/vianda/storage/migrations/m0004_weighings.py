"""Runs of check-weighing, and flat breads for kitchens from before there were any."""

_TORTILLA = (
    '{"key": "tortilla-150", "name": "Small wheat tortilla, 150 mm", "diameter_mm": 150, "mass_g": 26, '
    '"price_each": "0.22", "allergens": ["gluten (wheat)"], "kind": "tortilla", "depth_mm": 0}'
)
_FLATBREAD = (
    '{"key": "flatbread-200", "name": "Flatbread, 200 mm", "diameter_mm": 200, "mass_g": 85, '
    '"price_each": "0.60", "allergens": ["gluten (wheat)"], "kind": "flatbread", "depth_mm": 0}'
)


def _with_bread(key: str, bread: str) -> str:
    return (
        "UPDATE kitchen SET document = JSON_ARRAY_APPEND(document, '$.buns', "
        f"JSON_EXTRACT('{bread}', '$')), revision = revision + 1 "
        f"WHERE JSON_SEARCH(document, 'one', '{key}', NULL, '$.buns[*].key') IS NULL"
    )


STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS weighing (
        id INT AUTO_INCREMENT PRIMARY KEY,
        formula_id INT NOT NULL,
        formula_name VARCHAR(80) NOT NULL,
        plan MEDIUMTEXT NOT NULL,
        seed INT NOT NULL,
        started_at DATETIME(3) NOT NULL,
        finished_at DATETIME(3) NULL,
        CONSTRAINT weighing_formula FOREIGN KEY (formula_id) REFERENCES formula (id)
    )""",
    """CREATE TABLE IF NOT EXISTS weighing_event (
        id INT AUTO_INCREMENT PRIMARY KEY,
        weighing_id INT NOT NULL,
        token VARCHAR(40) NOT NULL,
        kind VARCHAR(16) NOT NULL,
        value DOUBLE NULL,
        about INT NULL,
        at_s DOUBLE NOT NULL,
        UNIQUE KEY weighing_event_once (weighing_id, token),
        CONSTRAINT weighing_event_weighing FOREIGN KEY (weighing_id) REFERENCES weighing (id) ON DELETE CASCADE
    )""",
    _with_bread("tortilla-150", _TORTILLA),
    _with_bread("flatbread-200", _FLATBREAD),
)
