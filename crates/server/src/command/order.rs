//! The order card of a candidate, on standard output.

use super::REFUSED;
use super::analyze::{candidate_of, print, print_text, read};
use crate::order_sheet::{page, workbook};
use clap::{Args, ValueEnum};
use std::io::Write;
use std::path::PathBuf;
use std::process::ExitCode;
use upper_lobe_core::analysis::{Build, Faults, OrderCard, Stages, UnitSystem, order_card, order_csv};

/// What to print.
#[derive(Debug, Args)]
pub struct Options {
    /// Build document; `-` reads standard input.
    pub file: PathBuf,
    /// Identifier of the candidate; the first when absent.
    #[arg(long)]
    pub candidate: Option<String>,
    /// Form.
    #[arg(long = "as", value_enum, default_value = "json")]
    pub form: Form,
    /// Millimetres and newtons instead of inches and pounds, where a form has one system alone.
    #[arg(long)]
    pub metric: bool,
}

/// Forms of an order card.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub enum Form {
    /// Both systems.
    Json,
    /// A sheet of six columns.
    Csv,
    /// A page by itself, to be printed or sent.
    Html,
    /// A workbook; write it into a file.
    Xlsx,
}

/// Prints the card, or every fault with exit status 2.
pub fn run(options: &Options) -> anyhow::Result<ExitCode> {
    match card(options, &read(&options.file)?) {
        Ok(card) => {
            let system = if options.metric { UnitSystem::Metric } else { UnitSystem::Inch };
            match options.form {
                Form::Json => print(&card)?,
                Form::Csv => print_text(&order_csv(&card, system)?)?,
                Form::Html => print_text(&page(&card, system))?,
                Form::Xlsx => std::io::stdout().write_all(&workbook(&card, "", system)?)?,
            }
        }
        Err(faults) => {
            print(&faults)?;
            return Ok(ExitCode::from(REFUSED));
        }
    }
    Ok(ExitCode::SUCCESS)
}

fn card(options: &Options, bytes: &[u8]) -> Result<OrderCard, Faults> {
    let build = Build::read(&String::from_utf8_lossy(bytes))?;
    let candidate = candidate_of(&build, options.candidate.as_deref());
    Ok(order_card(&build, &candidate, &Stages::default())?)
}
