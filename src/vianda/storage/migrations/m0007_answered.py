"""Answers to writes by their token, so that a write whose answer was lost is not done twice."""

STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS answered (
        token VARCHAR(80) NOT NULL PRIMARY KEY,
        request CHAR(64) NOT NULL,
        status INT NOT NULL,
        body MEDIUMTEXT NOT NULL,
        at DATETIME(3) NOT NULL,
        KEY by_age (at)
    )""",
)
