//! `upper-lobe dyno FILE`: its pulls compared, and the test it plans, as the screen has them.

use super::REFUSED;
use super::analyze::{print, read};
use clap::Args;
use std::path::PathBuf;
use std::process::ExitCode;
use upper_lobe_core::analysis::{Build, DynoReport, Faults, dyno_of};

/// Whose pulls, and in which air.
#[derive(Debug, Args)]
pub struct Options {
    /// The build document; `-` reads standard input.
    file: PathBuf,
    /// The air figures are wanted in: as_planned, sae_j1349, sae_j607 or iso_1585.
    #[arg(long)]
    air: Option<String>,
}

/// Prints both, or the faults with status 2.
pub fn run(options: &Options) -> anyhow::Result<ExitCode> {
    let bytes = read(&options.file)?;
    match answer(&String::from_utf8_lossy(&bytes), options.air.as_deref()) {
        Ok(report) => print(&report).map(|()| ExitCode::SUCCESS),
        Err(faults) => print(&faults).map(|()| ExitCode::from(REFUSED)),
    }
}

fn answer(text: &str, air: Option<&str>) -> Result<DynoReport, Faults> {
    Ok(dyno_of(&Build::read(text)?, air)?)
}
