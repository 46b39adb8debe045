"""A service as it was cooked, and what was said of its tasks."""

STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS run (
        id INT AUTO_INCREMENT PRIMARY KEY,
        kitchen_id INT NOT NULL,
        service_id INT NOT NULL,
        day VARCHAR(10) NOT NULL,
        started_at DATETIME(3) NOT NULL,
        UNIQUE KEY one_a_day (kitchen_id, service_id, day)
    )""",
    """CREATE TABLE IF NOT EXISTS run_event (
        id INT AUTO_INCREMENT PRIMARY KEY,
        run_id INT NOT NULL,
        token VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        kind VARCHAR(16) NOT NULL,
        task VARCHAR(120) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
        minute INT NOT NULL,
        value INT NULL,
        of_token VARCHAR(40) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        at DATETIME(3) NOT NULL,
        UNIQUE KEY once (run_id, token),
        CONSTRAINT event_of_run FOREIGN KEY (run_id) REFERENCES run (id) ON DELETE CASCADE
    )""",
)
