//! A session at the bench, on standard output.

use super::REFUSED;
use super::analyze::{print, print_text, read};
use clap::{Args, ValueEnum};
use std::path::PathBuf;
use std::process::ExitCode;
use upper_lobe_core::analysis::{Build, Faults, SessionSheet, Stages, sheet_csv, sheet_of};

/// What to print.
#[derive(Debug, Args)]
pub struct Options {
    /// Build document; `-` reads standard input.
    pub file: PathBuf,
    /// Identifier of the session.
    #[arg(long)]
    pub session: String,
    /// Form.
    #[arg(long = "as", value_enum, default_value = "json")]
    pub form: Form,
}

/// Forms of a session.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub enum Form {
    /// As the interface has it.
    Json,
    /// A line a reading.
    Csv,
}

/// Prints everything a session asks for and what was read of it, or every fault with exit status 2.
pub fn run(options: &Options) -> anyhow::Result<ExitCode> {
    let sheet = |bytes: &[u8]| -> Result<SessionSheet, Faults> {
        Ok(sheet_of(&Build::read(&String::from_utf8_lossy(bytes))?, &options.session, &Stages::default())?)
    };
    match sheet(&read(&options.file)?) {
        Ok(sheet) if options.form == Form::Csv => print_text(&sheet_csv(&sheet)?)?,
        Ok(sheet) => print(&sheet)?,
        Err(faults) => {
            print(&faults)?;
            return Ok(ExitCode::from(REFUSED));
        }
    }
    Ok(ExitCode::SUCCESS)
}
