//! `upper-lobe owner FILE`: the report for an owner, as a page or as JSON.

use super::REFUSED;
use super::analyze::{print, print_text, read};
use crate::owner_page::page;
use clap::{Args, ValueEnum};
use std::path::PathBuf;
use std::process::ExitCode;
use std::sync::Arc;
use upper_lobe_core::analysis::{Around, Build, Faults, OwnerReport, Stages, UnitSystem, owner_of};

/// What it is printed as.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
enum As {
    /// A page by itself.
    Html,
    /// Both systems.
    Json,
}

/// Whose report.
#[derive(Debug, Args)]
pub struct Options {
    /// Build document; `-` reads standard input.
    file: PathBuf,
    /// Identifier of the candidate; when absent the one that the log has in the engine, else the first.
    #[arg(long)]
    candidate: Option<String>,
    /// The day it is, as 2026-06-01; that of the log's last entry when absent.
    #[arg(long)]
    today: Option<String>,
    /// What it is printed as.
    #[arg(long = "as", value_enum, default_value = "html")]
    as_what: As,
    /// Millimetres and newtons instead of inches and pounds on the page.
    #[arg(long)]
    metric: bool,
}

/// Prints it, or the faults with status 2. A file knows no revisions: its history is what its lists hold.
pub fn run(options: &Options) -> anyhow::Result<ExitCode> {
    let system = if options.metric { UnitSystem::Metric } else { UnitSystem::Inch };
    match report(options, &String::from_utf8_lossy(&read(&options.file)?)) {
        Ok(report) if options.as_what == As::Json => print(&report)?,
        Ok(report) => print_text(&page(&report, system))?,
        Err(faults) => {
            print(&faults)?;
            return Ok(ExitCode::from(REFUSED));
        }
    }
    Ok(ExitCode::SUCCESS)
}

fn report(options: &Options, text: &str) -> Result<OwnerReport, Faults> {
    let build = Build::read(text)?;
    let around = Around { today: options.today.as_deref(), revisions: &[], like: &[] };
    Ok(owner_of(&build, options.candidate.as_deref(), &around, &Arc::new(Stages::default()))?)
}
