//! `upper-lobe service FILE`: what wears and what is due, as JSON or as a calendar.

use super::REFUSED;
use super::analyze::{print, read};
use crate::service_calendar::calendar;
use clap::{Args, ValueEnum};
use std::io::Write as _;
use std::path::PathBuf;
use std::process::ExitCode;
use upper_lobe_core::analysis::{Build, Faults, ServiceReport, Stages, UnitSystem, service_of, wear_of};

/// What it is printed as.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
enum As {
    /// JSON.
    Json,
    /// iCalendar.
    Ics,
}

/// Whose log.
#[derive(Debug, Args)]
pub struct Options {
    /// The build document; `-` reads standard input.
    file: PathBuf,
    /// The day it is, as 2026-06-01; that of the last entry when absent.
    #[arg(long)]
    today: Option<String>,
    /// Documents of other builds: engines like it say what to expect.
    #[arg(long)]
    like: Vec<PathBuf>,
    /// What it is printed as.
    #[arg(long = "as", value_enum, default_value = "json")]
    as_what: As,
}

/// Prints it, or the faults with status 2.
pub fn run(options: &Options) -> anyhow::Result<ExitCode> {
    let text = |path: &PathBuf| read(path).map(|bytes| String::from_utf8_lossy(&bytes).into_owned());
    let others = options.like.iter().map(text).collect::<anyhow::Result<Vec<String>>>()?;
    match answer(&text(&options.file)?, &others, options.today.as_deref()) {
        Ok((report, _)) if options.as_what == As::Json => print(&report).map(|()| ExitCode::SUCCESS),
        Ok((report, name)) => {
            let calendar = calendar(&report, &name, UnitSystem::Inch).to_string();
            std::io::stdout().write_all(calendar.as_bytes())?;
            Ok(ExitCode::SUCCESS)
        }
        Err(faults) => print(&faults).map(|()| ExitCode::from(REFUSED)),
    }
}

fn answer(text: &str, others: &[String], today: Option<&str>) -> Result<(ServiceReport, String), Faults> {
    let build = Build::read(text)?;
    let stages = Stages::default();
    let mut like = Vec::new();
    for other in others {
        like.extend(wear_of(&Build::read(other)?, &stages));
    }
    Ok((service_of(&build, (today, &like), &stages)?, build.name().to_owned()))
}
