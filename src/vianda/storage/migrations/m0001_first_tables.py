"""Kitchen, larder, formulas with versions, cooks with events."""

STATEMENTS = (
    "CREATE TABLE IF NOT EXISTS revision (name VARCHAR(32) PRIMARY KEY, number INT NOT NULL)",
    "CREATE TABLE IF NOT EXISTS kitchen"
    " (id INT AUTO_INCREMENT PRIMARY KEY, document MEDIUMTEXT NOT NULL, revision INT NOT NULL)",
    """CREATE TABLE IF NOT EXISTS meat (
        `key` VARCHAR(64) PRIMARY KEY,
        position INT NOT NULL,
        name VARCHAR(80) NOT NULL,
        species VARCHAR(16) NOT NULL,
        kind VARCHAR(16) NOT NULL,
        water_g_per_100g DOUBLE NOT NULL,
        protein_g_per_100g DOUBLE NOT NULL,
        fat_g_per_100g DOUBLE NOT NULL,
        carbohydrate_g_per_100g DOUBLE NOT NULL,
        ash_g_per_100g DOUBLE NOT NULL,
        sodium_mg_per_100g DOUBLE NOT NULL,
        composition_note VARCHAR(300) NOT NULL,
        fat_low_frac DOUBLE NOT NULL,
        fat_usual_frac DOUBLE NOT NULL,
        fat_high_frac DOUBLE NOT NULL,
        price_per_kg DECIMAL(12, 4) NOT NULL,
        range_source VARCHAR(200) NOT NULL,
        remark VARCHAR(500) NOT NULL
    )""",
    """CREATE TABLE IF NOT EXISTS formula (
        id INT AUTO_INCREMENT PRIMARY KEY,
        name VARCHAR(80) NOT NULL,
        document MEDIUMTEXT NOT NULL,
        revision INT NOT NULL,
        created_at DATETIME(3) NOT NULL,
        updated_at DATETIME(3) NOT NULL,
        deleted TINYINT(1) NOT NULL DEFAULT 0
    )""",
    """CREATE TABLE IF NOT EXISTS formula_version (
        id INT AUTO_INCREMENT PRIMARY KEY,
        formula_id INT NOT NULL,
        number INT NOT NULL,
        name VARCHAR(80) NOT NULL,
        document MEDIUMTEXT NOT NULL,
        created_at DATETIME(3) NOT NULL,
        UNIQUE KEY one_number (formula_id, number),
        FOREIGN KEY (formula_id) REFERENCES formula (id) ON DELETE RESTRICT
    )""",
    """CREATE TABLE IF NOT EXISTS cook (
        id INT AUTO_INCREMENT PRIMARY KEY,
        formula_id INT NOT NULL,
        formula_name VARCHAR(80) NOT NULL,
        document MEDIUMTEXT NOT NULL,
        plan MEDIUMTEXT NOT NULL,
        started_at DATETIME(3) NOT NULL,
        finished_at DATETIME(3) NULL,
        outcome MEDIUMTEXT NULL,
        revision INT NOT NULL,
        KEY by_start (started_at),
        FOREIGN KEY (formula_id) REFERENCES formula (id) ON DELETE RESTRICT
    )""",
    """CREATE TABLE IF NOT EXISTS cook_event (
        id INT AUTO_INCREMENT PRIMARY KEY,
        cook_id INT NOT NULL,
        token VARCHAR(40) NOT NULL,
        kind VARCHAR(16) NOT NULL,
        place INT NOT NULL,
        value DOUBLE NULL,
        at DATETIME(3) NOT NULL,
        UNIQUE KEY once (cook_id, token),
        FOREIGN KEY (cook_id) REFERENCES cook (id) ON DELETE CASCADE
    )""",
)
