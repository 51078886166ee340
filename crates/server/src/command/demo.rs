//! `upper-lobe demo`: the invented builds and parts, loaded the way a person's own would be.

use super::analyze::print_text;
use super::database::{DatabaseOptions, open_store};
use crate::api::parts::kept_part;
use anyhow::Context;
use clap::Args;
use std::process::ExitCode;
use upper_lobe_core::analysis::Build;
use upper_lobe_core::analysis::UnitSystem;
use upper_lobe_core::analysis::read_sheet;
use upper_lobe_store::Store;

/// The demo documents, in the order they are loaded: a first visit opens the one loaded last.
const DEMO_BUILDS: &[&str] = &[
    include_str!("../../../../demo/quarry-lane-427-strip.json"),
    include_str!("../../../../demo/harbour-six-7-2-diesel.json"),
    include_str!("../../../../demo/tollgate-388-hauler.json"),
];

/// The demo's parts shelf.
const DEMO_PARTS: &str = include_str!("../../../../demo/parts.csv");

/// Where to put them.
#[derive(Debug, Args)]
pub struct Options {
    #[command(flatten)]
    database: DatabaseOptions,
    /// Print the towing V8 instead of storing any.
    #[arg(long)]
    print: bool,
}

/// Loads or prints the demo.
pub fn run(options: &Options) -> anyhow::Result<ExitCode> {
    if options.print {
        print_text(DEMO_BUILDS[DEMO_BUILDS.len() - 1])?;
        return Ok(ExitCode::SUCCESS);
    }
    actix_web::rt::System::new().block_on(async {
        let store = open_store(&options.database, false).await?;
        let loaded = load(&store).await?;
        store.close().await;
        println!("{loaded} demo builds loaded into {}", options.database.database.display());
        Ok(ExitCode::SUCCESS)
    })
}

/// Stores every demo build whose name no stored build has, and the demo's parts, all or nothing; says how many builds.
pub async fn load(store: &Store) -> anyhow::Result<usize> {
    let known: Vec<String> = store.list(false).await?.into_iter().map(|listed| listed.entry.name).collect();
    let demo: Vec<Build> = DEMO_BUILDS
        .iter()
        .map(|text| Build::read(text))
        .collect::<Result<_, _>>()
        .context("a demo build is not valid")?;
    let named = demo.iter().map(Build::name).zip(DEMO_BUILDS.iter().copied());
    let builds: Vec<(&str, &str)> = named.filter(|(name, _)| !known.iter().any(|other| other == name)).collect();
    // A part of the user's own by the same name stays.
    let known: Vec<(String, String)> = store.parts().await?.into_iter().map(|part| (part.kind, part.name)).collect();
    let read = read_sheet(DEMO_PARTS, UnitSystem::Inch).context("the demo's parts are not valid")?;
    let mut parts = read.iter().map(kept_part).collect::<Result<Vec<_>, _>>()?;
    parts.retain(|part| !known.contains(&(part.kind.clone(), part.name.clone())));
    store.create_all(&builds, &parts).await?;
    Ok(builds.len())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_demo_build_is_a_valid_document() {
        for text in DEMO_BUILDS {
            Build::read(text).unwrap_or_else(|faults| panic!("{:?}", faults.faults));
        }
    }
}
