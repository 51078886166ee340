//! The schema's steps, in their order. Named one by one: SQLx's macro that reads the folder compiles SQLite a second time,
//! for the compiler's own use.

use sqlx::SqlStr;
use sqlx::migrate::{Migration, MigrationType, Migrator};

/// A step's number, its name and its SQL, which must never change once a database somewhere has run it.
type Step = (i64, &'static str, &'static str);

const STEPS: [Step; 7] = [
    (1, "builds", include_str!("../migrations/0001_builds.sql")),
    (2, "parts", include_str!("../migrations/0002_parts.sql")),
    (3, "digests", include_str!("../migrations/0003_digests.sql")),
    (4, "points", include_str!("../migrations/0004_points.sql")),
    (5, "instruments", include_str!("../migrations/0005_instruments.sql")),
    (6, "devices", include_str!("../migrations/0006_devices.sql")),
    (7, "pull mappings", include_str!("../migrations/0007_pull_mappings.sql")),
];

/// Brings a database up to date, and refuses one whose steps read otherwise than these.
pub(crate) fn migrator() -> Migrator {
    let step = |(version, name, sql): Step| {
        Migration::new(version, name.into(), MigrationType::Simple, SqlStr::from_static(sql), false)
    };
    Migrator::with_migrations(STEPS.map(step).into())
}
