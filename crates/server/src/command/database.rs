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

/// Opens the database, making its folder.
pub async fn open_store(options: &DatabaseOptions) -> anyhow::Result<Store> {
    let path = &options.database;
    if let Some(folder) = path.parent().filter(|f| !f.as_os_str().is_empty()) {
        std::fs::create_dir_all(folder).with_context(|| format!("making {}", folder.display()))?;
    }
    Store::open(path).await.with_context(|| format!("opening {}", path.display()))
}
