"""Services: what is served together, and when."""

STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS service (
        id INT AUTO_INCREMENT PRIMARY KEY,
        kitchen_id INT NOT NULL,
        document MEDIUMTEXT NOT NULL,
        revision INT NOT NULL,
        updated_at DATETIME(3) NOT NULL,
        KEY by_kitchen (kitchen_id)
    )""",
)
