"""Who works here: people with their role, where they are signed in, invitations, and who changed what."""

STATEMENTS = (
    """CREATE TABLE IF NOT EXISTS person (
        id INT AUTO_INCREMENT PRIMARY KEY,
        name VARCHAR(40) NOT NULL,
        folded VARCHAR(120) NOT NULL,
        role VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        password_hash VARCHAR(200) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
        pin_hash VARCHAR(200) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
        disabled TINYINT(1) NOT NULL DEFAULT 0,
        created_at DATETIME(3) NOT NULL,
        UNIQUE KEY one_name (folded)
    )""",
    """CREATE TABLE IF NOT EXISTS signed_in (
        token_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
        person_id INT NULL,
        kind VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        device VARCHAR(80) NOT NULL,
        by_device CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT '',
        wrong INT NOT NULL DEFAULT 0,
        created_at DATETIME(3) NOT NULL,
        seen_at DATETIME(3) NOT NULL,
        ends_at DATETIME(3) NOT NULL,
        INDEX of_person (person_id)
    )""",
    """CREATE TABLE IF NOT EXISTS invitation (
        token_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin PRIMARY KEY,
        name VARCHAR(40) NOT NULL,
        role VARCHAR(8) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        person_id INT NULL,
        created_at DATETIME(3) NOT NULL,
        ends_at DATETIME(3) NOT NULL,
        used_at DATETIME(3) NULL
    )""",
    """CREATE TABLE IF NOT EXISTS audit (
        id BIGINT AUTO_INCREMENT PRIMARY KEY,
        at DATETIME(3) NOT NULL,
        person_id INT NULL,
        person VARCHAR(40) NOT NULL,
        kitchen_id INT NULL,
        action VARCHAR(60) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
        about VARCHAR(120) NOT NULL,
        INDEX by_time (at)
    )""",
    "ALTER TABLE formula ADD COLUMN IF NOT EXISTS changed_by VARCHAR(40) NOT NULL DEFAULT ''",
    "ALTER TABLE formula_version ADD COLUMN IF NOT EXISTS kept_by VARCHAR(40) NOT NULL DEFAULT ''",
    "ALTER TABLE cook ADD COLUMN IF NOT EXISTS begun_by VARCHAR(40) NOT NULL DEFAULT ''",
    "ALTER TABLE cook ADD COLUMN IF NOT EXISTS noted_by VARCHAR(40) NOT NULL DEFAULT ''",
    "ALTER TABLE service ADD COLUMN IF NOT EXISTS changed_by VARCHAR(40) NOT NULL DEFAULT ''",
    "ALTER TABLE weighing ADD COLUMN IF NOT EXISTS begun_by VARCHAR(40) NOT NULL DEFAULT ''",
)
