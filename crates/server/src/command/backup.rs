//! `upper-lobe backup`, `restore`, `export`, `import`: everything out of the store and back.

use super::database::{DatabaseOptions, open_store};
use crate::api::parts::{kept_part, shelf};
use crate::archive::{Everything, pack, unpack};
use anyhow::Context;
use clap::Args;
use std::path::PathBuf;
use std::process::ExitCode;
use upper_lobe_store::{KeptPart, Store};

/// A file, and the database it is about.
#[derive(Debug, Args)]
pub struct Options {
    /// The file to write or read.
    file: PathBuf,
    #[command(flatten)]
    database: DatabaseOptions,
}

/// A copy of the whole database.
pub fn backup(options: &Options) -> anyhow::Result<ExitCode> {
    run(async {
        let store = existing(options).await?;
        store.backup(&options.file).await?;
        // A copy nobody has read is no backup.
        let copy = Store::open_for_reading(&options.file).await.context("reading the copy back")?;
        say_damage(&copy).await?;
        let builds = copy.list(false).await?.len() + copy.list(true).await?.len();
        println!("{builds} builds and the shelf are in {}", options.file.display());
        Ok(())
    })
}

/// Everything of a backup in the place of what is there, which is kept beside it.
pub fn restore(options: &Options) -> anyhow::Result<ExitCode> {
    run(async {
        let from = Store::open_for_reading(&options.file)
            .await
            .with_context(|| format!("opening {}", options.file.display()))?;
        let damage = from.check().await?;
        if let Some(first) = damage.first() {
            anyhow::bail!("the backup is damaged and nothing was changed: {first}");
        }
        let (builds, parts) = (from.everything().await?, from.parts().await?);
        let store = open_store(&options.database, false).await?;
        let aside = free_name(&options.database.database);
        store.backup(&aside).await.context("keeping what is there now")?;
        store.replace_all(&builds, &parts).await?;
        println!(
            "{} builds and {} parts are back; what was there before is in {}",
            builds.len(),
            parts.len(),
            aside.display()
        );
        Ok(())
    })
}

/// Everything as one open archive.
pub fn export(options: &Options) -> anyhow::Result<ExitCode> {
    run(async {
        let store = existing(options).await?;
        say_damage(&store).await?;
        let parts = shelf(&store).await.map_err(|problem| anyhow::anyhow!("{problem}"))?;
        let everything = Everything { builds: store.everything().await?, parts };
        let mut file =
            std::fs::File::create_new(&options.file).with_context(|| format!("making {}", options.file.display()))?;
        std::io::Write::write_all(&mut file, &pack(&everything)?)?;
        println!(
            "{} builds and {} parts are in {}",
            everything.builds.len(),
            everything.parts.len(),
            options.file.display()
        );
        Ok(())
    })
}

/// The builds of an archive beside those that are there, its parts on the shelf.
pub fn import(options: &Options) -> anyhow::Result<ExitCode> {
    run(async {
        let bytes = std::fs::read(&options.file).with_context(|| format!("reading {}", options.file.display()))?;
        let everything = unpack(&bytes)?;
        let parts = everything.parts.iter().map(kept_part).collect::<Result<Vec<KeptPart>, _>>()?;
        let store = open_store(&options.database, false).await?;
        let put = store.add_all(&everything.builds, &parts).await?;
        println!(
            "{} builds added; parts: {} new, {} changed, {} as they were",
            everything.builds.len(),
            put.added,
            put.changed,
            put.unchanged
        );
        Ok(())
    })
}

/// The store of a database that is there already: a copy of nothing helps nobody.
async fn existing(options: &Options) -> anyhow::Result<Store> {
    let path = &options.database.database;
    anyhow::ensure!(path.exists(), "there is no database at {}", path.display());
    open_store(&options.database, false).await
}

/// Says what of the store is damaged: it is copied as it is, and left out of an archive.
async fn say_damage(store: &Store) -> anyhow::Result<()> {
    for damage in store.check().await? {
        eprintln!("upper-lobe: {damage}");
    }
    Ok(())
}

/// A name beside `path` that is free.
fn free_name(path: &std::path::Path) -> PathBuf {
    let named = |count: u32| path.with_extension(format!("before-restore-{count}.db"));
    (1..).map(named).find(|name| !name.exists()).unwrap_or_else(|| named(0))
}

fn run(work: impl Future<Output = anyhow::Result<()>>) -> anyhow::Result<ExitCode> {
    actix_web::rt::System::new().block_on(work)?;
    Ok(ExitCode::SUCCESS)
}
