"""Blind tastings of a formula's versions."""

STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS tasting (
        id INT AUTO_INCREMENT PRIMARY KEY,
        kitchen_id INT NOT NULL,
        formula_id INT NOT NULL,
        document MEDIUMTEXT CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
        revision INT NOT NULL,
        created_at DATETIME(3) NOT NULL,
        KEY by_formula (kitchen_id, formula_id)
    )""",
)
