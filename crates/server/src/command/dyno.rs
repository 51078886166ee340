//! `upper-lobe dyno FILE`: its pulls compared, and the test it plans, as the screen has them.

use super::REFUSED;
use super::analyze::{print, read};
use clap::Args;
use serde::Serialize;
use std::path::PathBuf;
use std::process::ExitCode;
use upper_lobe_core::analysis::{Build, Faults, PullsReport, TestPlanReport, pulls_of, test_plan};

/// Whose pulls, and in which air.
#[derive(Debug, Args)]
pub struct Options {
    /// The build document; `-` reads standard input.
    file: PathBuf,
    /// The air figures are wanted in: as_planned, sae_j1349, sae_j607 or iso_1585.
    #[arg(long)]
    air: Option<String>,
}

#[derive(Serialize)]
struct Printed {
    pulls: PullsReport,
    plan: Option<TestPlanReport>,
}

/// Prints both, or the faults with status 2.
pub fn run(options: &Options) -> anyhow::Result<ExitCode> {
    let bytes = read(&options.file)?;
    match answer(&String::from_utf8_lossy(&bytes), options.air.as_deref()) {
        Ok(printed) => print(&printed).map(|()| ExitCode::SUCCESS),
        Err(faults) => print(&faults).map(|()| ExitCode::from(REFUSED)),
    }
}

fn answer(text: &str, air: Option<&str>) -> Result<Printed, Faults> {
    let build = Build::read(text)?;
    let pulls = pulls_of(&build, air)?;
    let plan = if build.candidates().is_empty() { None } else { Some(test_plan(&build, &pulls)?) };
    Ok(Printed { pulls, plan })
}
