//! A build to begin with, on standard output.

use super::REFUSED;
use super::analyze::{print, print_text};
use anyhow::{Context, Result};
use clap::Args;
use std::process::ExitCode;
use upper_lobe_core::analysis::{Beginning, Known, Stages, UnitSystem, beginning, families};

/// What to begin.
#[derive(Debug, Args)]
pub struct Options {
    /// Family of engines; without one they are listed.
    pub family: Option<String>,
    /// What its heads are cast of.
    #[arg(long)]
    pub heads: Option<String>,
    /// What it is for.
    #[arg(long = "use")]
    pub used_for: Option<String>,
    /// What the build is called.
    #[arg(long, default_value = "A new build")]
    pub name: String,
    /// A value that is known, such as `engine.bore=4.04`; inches and pounds where a number stands alone.
    #[arg(long = "known", value_name = "FIELD=TEXT")]
    pub known: Vec<String>,
}

/// Prints the document of a beginning, or the families there are.
pub fn run(options: &Options) -> Result<ExitCode> {
    let Some(family) = &options.family else {
        print(&families())?;
        return Ok(ExitCode::SUCCESS);
    };
    let known = |text: &String| -> Result<Known> {
        let (field, text) = text.split_once('=').with_context(|| format!("--known {text}: write FIELD=TEXT"))?;
        Ok(Known { field: field.trim().to_owned(), text: text.trim().to_owned() })
    };
    let from = Beginning {
        name: options.name.clone(),
        family: family.clone(),
        heads: options.heads.clone(),
        used_for: options.used_for.clone(),
        known: options.known.iter().map(known).collect::<Result<_>>()?,
    };
    match beginning(&from, &[], UnitSystem::Inch, &Stages::default()) {
        Ok(report) => {
            print_text(&report.document)?;
            Ok(ExitCode::SUCCESS)
        }
        Err(faults) => {
            print(&faults)?;
            Ok(ExitCode::from(REFUSED))
        }
    }
}
