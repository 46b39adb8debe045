"""Photographs of cooks, as JPEG in the store: one thing to keep and to carry."""

STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS photograph (
        id INT AUTO_INCREMENT PRIMARY KEY,
        kitchen_id INT NOT NULL,
        cook_id INT NOT NULL,
        caption VARCHAR(120) NOT NULL,
        width INT NOT NULL,
        height INT NOT NULL,
        at DATETIME(3) NOT NULL,
        jpeg MEDIUMBLOB NOT NULL,
        small MEDIUMBLOB NOT NULL,
        KEY by_cook (kitchen_id, cook_id)
    )""",
)
