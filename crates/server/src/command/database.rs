//! Where the builds are kept.

use anyhow::Context;
use clap::Args;
use std::path::PathBuf;
use upper_lobe_store::Store;

/// Where the database is.
#[derive(Debug, Clone, Args)]
pub struct DatabaseOptions {
    /// SQLite file that keeps the builds; made when it is not there.
    #[arg(long, env = "UPPER_LOBE_DATABASE", default_value = "data/upper-lobe.db")]
    pub database: PathBuf,
}

/// Opens the database, making its folder; for reading alone when `reading` says so.
pub async fn open_store(options: &DatabaseOptions, reading: bool) -> anyhow::Result<Store> {
    let path = &options.database;
    if reading {
        return Store::open_for_reading(path).await.with_context(|| format!("opening {} to read", path.display()));
    }
    if let Some(folder) = path.parent().filter(|f| !f.as_os_str().is_empty()) {
        std::fs::create_dir_all(folder).with_context(|| format!("making {}", folder.display()))?;
    }
    Store::open(path).await.with_context(|| format!("opening {}", path.display()))
}
