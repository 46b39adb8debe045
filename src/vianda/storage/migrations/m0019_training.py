"""Rounds of the trainer that were answered."""

STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS training_answer (
        id INT AUTO_INCREMENT PRIMARY KEY,
        kitchen_id INT NOT NULL,
        token VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        kind VARCHAR(16) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        correct BOOLEAN NOT NULL,
        confidence DOUBLE NOT NULL,
        at DATETIME(3) NOT NULL,
        UNIQUE KEY once (kitchen_id, token)
    )""",
)
